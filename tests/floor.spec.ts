import { expect, openCase, test } from './bay';
import { SIGNED_IN } from './where';

const PHONE = { width: 390, height: 844 };

test('a case is planned where it is seen: promised as people say it, given to somebody, and the floor is put in order by it', async ({
	page
}) => {
	const name = 'harbour mower';
	await openCase(page, name, '');
	const mine = new URL(page.url()).pathname.replace(/\/listen$/, '');
	await expect(page.getByRole('region', { name: 'What is planned' })).toContainText(
		'Nothing promised; nobody has it yet'
	);

	await test.step('words that name no day are kept, and said to be no date', async () => {
		await page.getByRole('button', { name: 'Plan' }).click();
		const dialog = page.getByRole('dialog', { name: new RegExp(name) });
		await dialog.getByLabel('Promised for').fill('when the road is dry');
		await expect(dialog.getByRole('status')).toContainText('No day is in these words');
		await dialog.getByLabel('Promised for').fill('yesterday 9:30');
		await expect(dialog.getByRole('status')).toContainText('That is yesterday 09:30');
		await dialog.getByLabel('Who has it').selectOption('Ana');
		await dialog.getByLabel('Waits for').selectOption('a part');
		await dialog.getByLabel('Until when, or who helps').fill('comes with the morning ferry');
		await dialog.getByRole('button', { name: 'Save' }).click();
		await expect(dialog).toBeHidden();
		await expect(page.getByRole('region', { name: 'What is planned' })).toContainText(
			'Promised for yesterday 09:30; Ana has it; waits for a part (comes with the morning ferry)'
		);
		await expect(page.getByRole('complementary', { name: 'Thread' })).toContainText('Given to Ana');
	});

	await test.step('it is late, so it stands before what came in before it, and is found by what it is', async () => {
		await page.goto('/?show=late');
		const row = page.getByRole('row').filter({ hasText: name });
		await expect(row).toContainText('yesterday 09:30');
		await expect(row).toContainText('late');
		await expect(row).toContainText('waits for a part');
		await page.goto('/?show=mine&sort=number&words=mower');
		await expect(page.getByRole('row').filter({ hasText: 'harbour' })).toHaveCount(1);
		await expect(page.getByRole('link', { name: /^Mine/ })).toHaveAttribute('aria-current', 'page');
		await page.goto('/?words=mower&code=C0035');
		await expect(page.getByText('None of the open cases is one of these.')).toBeVisible();
	});

	await test.step('what it was promised for is put right, and taken back', async () => {
		await page.goto('/?words=mower');
		await page.getByRole('button', { name: new RegExp(`^Plan .*${name}`) }).click();
		const dialog = page.getByRole('dialog', { name: new RegExp(name) });
		await expect(dialog.getByLabel('Promised for')).toHaveValue('yesterday 09:30');
		await dialog.getByLabel('Promised for').fill('');
		await dialog.getByLabel('Who has it').selectOption('Teo');
		await dialog.getByRole('button', { name: 'Save' }).click();
		const row = page.getByRole('row').filter({ hasText: name });
		await expect(row).toContainText('nothing promised');
		await expect(row).toContainText('Teo');
		await expect(row).not.toContainText('late');
	});

	await test.step('by person it is pulled to somebody else, by keyboard too', async () => {
		await page.goto('/?by=person&words=mower');
		const lane = (person: string) => page.getByRole('region', { name: new RegExp(`^${person}`) });
		await expect(lane('Teo')).toContainText(name);
		await lane('Teo').getByRole('listitem').filter({ hasText: name }).focus();
		await page.keyboard.press('Enter');
		await lane('Nobody yet').getByRole('list').focus();
		await page.keyboard.press('Enter');
		await expect(lane('Nobody yet')).toContainText(name);
		await page.reload();
		await expect(lane('Nobody yet')).toContainText(name);
		const entry = lane('Nobody yet').getByRole('listitem').filter({ hasText: name });
		await entry.hover();
		await page.mouse.down();
		const to = await lane('Ana').getByRole('list').boundingBox();
		await page.mouse.move((to?.x ?? 0) + 80, (to?.y ?? 0) + 30, { steps: 12 });
		await page.mouse.up();
		await expect(lane('Ana')).toContainText(name);
		const teo = page.getByRole('checkbox', { name: 'Teo is here today' });
		await teo.uncheck();
		await expect(lane('Teo')).toContainText('not here today');
		await page.reload();
		await expect(teo).not.toBeChecked();
		await teo.check();
		await expect(lane('Teo')).not.toContainText('not here');
		await page.goto(`${mine}/listen`);
		await expect(page.getByRole('region', { name: 'What is planned' })).toContainText('Ana has it');
	});
});

test('on a phone the floor is one case under the other, and nothing lies beyond its edge', async ({
	page
}) => {
	await page.setViewportSize(PHONE);
	for (const path of ['/', '/?by=person', '/closed']) {
		await page.goto(path);
		await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
		expect(await page.evaluate(() => document.documentElement.scrollWidth), path).toBeLessThanOrEqual(390);
	}
	await page.goto('/');
	await expect(page.getByRole('list').getByRole('link', { name: 'Velmora Skiff' }).first()).toBeVisible();
	await page.getByText('Menu', { exact: true }).click();
	await page.getByRole('link', { name: 'Tyres' }).click();
	await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
	await expect(page.getByRole('link', { name: 'Tyres' })).toBeHidden();
});

test('a vehicle that comes in is promised in words, and the case has the moment', async ({ page }) => {
	await page.goto('/cases/new');
	await page.getByText('It is of a type that is described already').click();
	await page.getByLabel('Which type?').selectOption('brindle-marlow-16');
	await page.getByLabel('What do you call it?').fill('promised bus');
	await page.getByLabel('Promised for').fill('tomorrow 3pm');
	await expect(page.getByText('That is tomorrow 15:00')).toBeVisible();
	await page.getByRole('button', { name: 'Open the case' }).click();
	await expect(page.getByRole('region', { name: 'What is planned' })).toContainText(
		'Promised for tomorrow 15:00'
	);
});

test('a vehicle’s page has every visit, and its codes over them', async ({ page }) => {
	await page.goto('/?words=bakery');
	await page.getByRole('row').filter({ hasText: 'bakery van' }).getByRole('link').click();
	await page
		.getByRole('banner')
		.getByRole('link', { name: /bakery van/ })
		.click();
	await page.getByRole('link', { name: 'Every visit of this vehicle' }).click();
	await expect(page.getByRole('heading', { level: 1 })).toHaveText('bakery van was here twice');
	const codes = page.getByRole('region', { name: 'Its codes, visit by visit' });
	await expect(codes.getByRole('columnheader')).toHaveCount(3);
	await expect(codes.getByRole('row').filter({ hasText: 'C0035-2F' }).getByRole('cell')).toHaveCount(2);
	const visits = page.getByRole('region', { name: 'Its visits' }).getByRole('listitem');
	await expect(visits.first()).toContainText('It is the same again');
	await expect(visits.nth(1)).toContainText('signed');
	expect((await page.request.get('/vehicles/nobody')).status()).toBe(404);

	await page.goto('/closed?words=bakry');
	await expect(page.getByRole('row').filter({ hasText: 'bakery van' })).toHaveCount(1);
	await page.getByRole('textbox', { name: 'Code' }).fill('C0099-13');
	await page.getByRole('button', { name: 'Show those' }).click();
	await expect(page.getByText('None of the signed cases is one of these.')).toBeVisible();
	await expect(page).toHaveURL(/words=bakry&code=C0099-13/);
	await page.getByRole('link', { name: 'All again' }).click();
	await expect(page.getByRole('row').filter({ hasText: 'bakery van' })).toHaveCount(1);
});

test('whoever only looks sees what is promised and who has it; a reload in the middle of planning loses nothing', async ({
	page,
	browser
}) => {
	const office = await browser.newContext({ storageState: SIGNED_IN.guest });
	const looks = await office.newPage();
	await looks.goto('/?words=minibus');
	const row = looks.getByRole('row').filter({ hasText: 'school minibus' });
	await expect(row).toContainText(/\d\d:\d\d/);
	await expect(row).toContainText('Ana');
	await expect(looks.getByRole('button', { name: /^Plan/ })).toHaveCount(0);
	await office.close();

	await openCase(page, 'tide wagon', '');
	await page.getByRole('button', { name: 'Plan' }).click();
	const dialog = page.getByRole('dialog', { name: /tide wagon/ });
	await dialog.getByLabel('Promised for').fill('tomorrow 3pm');
	await dialog.getByLabel('Stands at').fill('lift 7');
	await page.reload();
	await page.getByRole('button', { name: 'Plan' }).click();
	await expect(dialog.getByLabel('Promised for')).toHaveValue('tomorrow 3pm');
	// Somebody else plans it meanwhile: what they said of other things stays.
	const other = await page.context().newPage();
	await other.goto(page.url());
	await other.getByRole('button', { name: 'Plan' }).click();
	const theirs = other.getByRole('dialog', { name: /tide wagon/ });
	await theirs.getByLabel('Who has it').selectOption('Teo');
	await theirs.getByRole('button', { name: 'Save' }).click();
	await expect(theirs).toBeHidden();
	await dialog.getByRole('button', { name: 'Save' }).click();
	await expect(page.getByRole('region', { name: 'What is planned' })).toContainText(
		'Promised for tomorrow 15:00; Teo has it; lift 7'
	);
	await page.getByRole('button', { name: 'Plan' }).click();
	await dialog.getByLabel('Stands at').fill('nowhere');
	await dialog.getByRole('button', { name: 'Discard' }).click();
	await page.getByRole('button', { name: 'Plan' }).click();
	await expect(dialog.getByLabel('Stands at')).toHaveValue('lift 7');
});

test('a lead says from when to when the shop works', async ({ as }) => {
	const page = await as('marit');
	await page.goto('/people');
	const hours = page.getByRole('region', { name: 'The day’s work' });
	await expect(hours.getByLabel('From')).toHaveValue('08:00');
	await hours.getByLabel('From').fill('18:00');
	await hours.getByRole('button', { name: 'Save the hours' }).click();
	await expect(hours.getByRole('alert')).toHaveText('Two times of a day, the first before the second.');
	await hours.getByLabel('From').fill('07:45');
	await hours.getByRole('button', { name: 'Save the hours' }).click();
	await expect(hours.getByRole('status')).toHaveText('Saved.');
	await page.reload();
	await expect(hours.getByLabel('From')).toHaveValue('07:45');
});
