import { accessible, expect, goTo, test } from './bay';

const PRINT_OUT = `[ABS]
01314 - Wheel sensor rear left, signal line interrupted  present
480A12  sporadic
[Electric parking brake]
no faults stored
`;

test('codes in a maker’s own notation are recorded, found, given a meaning and reasoned with', async ({
	page,
	as
}) => {
	await page.goto('/cases/new');
	await page.getByText('Van', { exact: true }).click();
	await page.getByLabel('What is it, in words?').fill('Green bakery van');
	await page.getByRole('button', { name: 'Open the case' }).click();
	await expect(page.getByRole('heading', { name: 'Complaint' })).toBeVisible();
	await goTo(page, 'Read');
	const read = page.url();
	await page.getByRole('link', { name: 'Read with another tool' }).click();
	await page.getByLabel('Read with').fill('maker’s own tool');
	await page.getByRole('textbox', { name: 'Print-out of the other tool' }).fill(PRINT_OUT);
	await page.getByRole('button', { name: 'Check the text' }).click();
	const box = page.getByLabel('Codes of Brake control');
	await expect(box).toHaveValue(
		'01314 present – Wheel sensor rear left signal line interrupted\n480A12 sporadic'
	);
	const understood = page.getByRole('listitem').filter({ has: box });
	await expect(understood).toContainText('in the maker’s own notation');

	// It names a module that nobody described: the description grows, and nothing that was written is lost.
	await expect(page.getByText('It names Electric parking brake')).toBeVisible();
	await page.getByRole('button', { name: 'Add it to the description' }).click();
	await expect(page.getByLabel('Parking brake: what it said')).toBeVisible();
	await expect(page.getByText('It names Electric parking brake')).toHaveCount(0);
	await expect(page.getByLabel('Read with')).toHaveValue('maker’s own tool');

	// Six hex digits may be the bytes of a code: the person says which.
	await page.getByRole('button', { name: 'It means C080A-12' }).click();
	await expect(understood).toContainText('C080A-12');
	await box.fill(`${await box.inputValue()}\nWheel sensor front right: air gap, stored`);
	await expect(understood).toContainText('Wheel sensor front right: air gap');
	const picture = { name: 'print-out.png', mimeType: 'image/png', buffer: await page.screenshot() };
	await page.locator('input[type=file][capture]').setInputFiles(picture);
	await expect(page.getByRole('img', { name: 'Print-out of the other tool' })).toBeVisible();
	await accessible(page);
	await page.getByRole('button', { name: 'All the others were asked and had no codes' }).click();
	await page.getByRole('button', { name: 'Save the reading' }).click();

	await expect(page.getByRole('heading', { level: 1 })).toHaveText('3 codes in 1 module');
	const own = page
		.getByRole('article')
		.filter({ has: page.getByRole('link', { name: '01314', exact: true }) });
	await expect(own).toContainText('“Wheel sensor rear left signal line interrupted”');
	await page.getByText('Its print-out', { exact: true }).click();
	await expect(page.getByRole('img', { name: 'Print-out of maker’s own tool' })).toBeVisible();
	await accessible(page);

	// Nobody has said what it means: it points nowhere. A lead says it once, for every later case.
	await goTo(page, 'Reason');
	await expect(page.getByText('01314 has no meaning here yet')).toBeVisible();
	const lead = await as('marit');
	await lead.goto(read);
	await lead
		.getByRole('article')
		.filter({ has: lead.getByRole('link', { name: '01314', exact: true }) })
		.getByRole('link', { name: 'Write down what its maker says of it' })
		.click();
	await lead.getByLabel('Called').fill('Rear left wheel sensor, open');
	await lead.getByLabel('It tells of').selectOption({ label: 'circuit open' });
	await lead
		.locator('label')
		.filter({ hasText: /^Circuit/ })
		.locator('select')
		.selectOption('wheel-speed');
	await lead.getByLabel('Corner').selectOption('rear-left');
	await lead.getByLabel(/Why/).fill('The maker’s list says so.');
	await lead.getByRole('button', { name: 'Save a new version' }).click();
	await expect(lead.getByRole('heading', { level: 1 })).toHaveText('01314 Rear left wheel sensor, open');
	await expect(lead.getByText('One case of this shop had it')).toBeVisible();
	await accessible(lead);
	await page.reload();
	await expect(page.locator('section', { has: page.locator('#left') })).toContainText('rear left');
	await expect(page.getByText('01314 has no meaning here yet')).toHaveCount(0);

	// How often it came is told like of any other, by its name.
	await goTo(page, 'Prove');
	await expect(page.getByRole('article', { name: '01314 in Brake control' })).toContainText(
		'Rear left wheel sensor, open'
	);
	const proof = page.getByRole('article', { name: 'Wheel sensor front right: air gap in Brake' });
	await proof.getByLabel('Times').fill('3');
	await proof.getByLabel('in km driven so').fill('40');
	await proof.getByRole('button', { name: /Save/ }).click();
	await expect(page.getByRole('complementary', { name: 'Thread' })).toContainText(
		'Wheel sensor front right: air gap, by'
	);

	// The decoder finds it as it stands on the print-out.
	await page.keyboard.press('/');
	await page.keyboard.type('01314');
	await expect(page.getByRole('option', { name: /Rear left wheel sensor, open/ })).toBeVisible();
});
