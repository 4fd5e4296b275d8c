import { mkdtempSync, openSync, ftruncateSync, closeSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, goTo, openCase, test } from './bay';

const folder = mkdtempSync(join(tmpdir(), 'jaldi-files-'));
const file = (name: string, content: string | Buffer) => {
	const path = join(folder, name);
	writeFileSync(path, content);
	return path;
};
const NOBODY = '127.0.0.1:9';

test('by keyboard alone: / opens the decoder, a code is typed, opened and added to the case', async ({
	page
}) => {
	await openCase(page, 'decoder bus', NOBODY);
	await goTo(page, 'Read');
	await page.keyboard.press('/');
	await expect(page.getByRole('combobox', { name: 'Code or words' })).toBeFocused();
	await page.keyboard.type('404513/2f');
	const first = page.getByRole('option').first();
	await expect(first).toContainText('C0045-13');
	await expect(first).toContainText('Rear-left wheel speed sensor circuit');
	await expect(first).toContainText('Failing now, confirmed');
	await page.keyboard.press('Enter');
	await expect(page.getByRole('heading', { level: 1 })).toContainText('C0045-13');
	await expect(page.getByText('Check first.')).toBeVisible();
	await page.getByRole('button', { name: /^Add to TP-/ }).focus();
	await page.keyboard.press('Enter');
	await expect(page).toHaveURL(/read$/);
	const told = page.getByRole('region', { name: 'Told to us' });
	await expect(told).toContainText('C0045-13');
	await expect(told).toContainText('not read by us yet');

	// Faster than any answer: Enter opens what was typed, not what was answered a moment before.
	await page.keyboard.press('/');
	await page.keyboard.type('C0050-2F');
	await page.keyboard.press('Enter');
	await expect(page.getByRole('heading', { level: 1 })).toContainText('C0050-2F');
	await page.getByRole('link', { name: /^Back to TP-/ }).click();
	await expect(page).toHaveURL(/read$/);

	await page.keyboard.press('/');
	await page.keyboard.type('kick panel');
	await expect(page.getByRole('option').first()).toContainText('U1A02');
	await page.keyboard.press('Shift+Enter');
	await expect(page.getByRole('dialog', { name: 'Decoder' })).toBeHidden();
	await expect(told).toContainText('U1A02');
});

test('the decoder says what a lone byte means, why a text is no code, and that nothing goes by some words', async ({
	page
}) => {
	await page.goto('/decode');
	const field = page.getByRole('combobox', { name: 'Code or words' });
	await field.fill('2F');
	await expect(page.getByText('As a suffix')).toContainText('signal erratic');
	await field.fill('C00G5');
	await expect(page.getByText('At sign 4: expected three hex digits')).toBeVisible();
	await field.fill('zebra');
	await expect(page.getByText('Nothing here goes by these words')).toBeVisible();
	await field.fill('59 02 FF 40 35 14 2F C1 21 87 AF');
	await expect(page.getByText('Codes by status: 2 codes')).toBeVisible();
	await page.goto('/codes/nonsense');
	await expect(page.getByRole('heading', { name: /“nonsense” is no code/ })).toBeVisible();
});

const TEXTS = [
	{
		layout: 'a print-out',
		text: 'Brake control - 2 codes\n-----\nC0045-13  Rear left wheel   Status: 2F\n  stored, present\n  Vehicle speed : 12 km/h\nC0050-2F  Rear right wheel  stored\n\nPage 1 of 1',
		found: '2 codes found, 1 line passed over',
		saved: 1,
		shows: ['Brake control', 'failing now, confirmed', 'Vehicle speed 12 km/h', '“stored”']
	},
	{
		layout: 'an e-mail',
		text: 'Hi Ana,\nthe van shows C0035 and U0121:87, since 11/25.\nRegards, Teo',
		found: '2 codes found, 2 lines passed over',
		saved: 1,
		shows: ['C0035', 'U0121-87']
	},
	{
		layout: 'a bare column',
		text: 'C0040 13 2F\nC0040 2F 28\n403514/2F',
		found: '3 codes found, 0 lines passed over',
		saved: 2,
		shows: ['C0040-13', 'C0040-2F', 'C0035-14']
	}
];
for (const { layout, text, found, saved, shows } of TEXTS) {
	test(`pasted: ${layout} is understood, shown, and saved only when confirmed`, async ({ page }) => {
		await openCase(page, `paste ${layout}`, NOBODY);
		await goTo(page, 'Read');
		await page.getByRole('textbox', { name: 'Text or file with codes' }).fill(text);
		await page.reload();
		await expect(page.getByRole('textbox', { name: 'Text or file with codes' })).toHaveValue(text);
		await page.getByRole('button', { name: 'Check the text' }).click();
		const preview = page.getByRole('region', { name: 'What was understood' });
		await expect(preview.getByRole('heading', { name: found })).toBeVisible();
		for (const words of shows) await expect(preview).toContainText(words);
		await expect(page.getByRole('region', { name: 'Told to us' })).toHaveCount(0);
		await preview.getByRole('checkbox').last().uncheck();
		await preview.getByRole('button', { name: /^Save/ }).click();
		const told = page.getByRole('region', { name: 'Told to us' });
		await expect(told.getByRole('link')).toHaveCount(saved);
		await page.reload();
		await expect(page.getByRole('textbox', { name: 'Text or file with codes' })).toHaveValue('');
		await expect(page.getByRole('complementary', { name: 'Thread' })).toContainText('told, not read by us');
	});
}

test('a log with a damaged line and a lost segment: the rest is read, kept, and opens byte by byte', async ({
	page
}) => {
	const log = [
		'(100.000000) bus0 7E0#031902FF00000000',
		'(100.001000) bus0 7E8#100B5902FF403514',
		'(100.001500) bus0 7E0#3000000000000000',
		'(100.002000) bus0 7E8#222FC12187AF0000',
		'(100.0xx000) bus0 7E8#00',
		'(100.100000) bus0 7E0#031902FF00000000',
		'(100.101000) bus0 7E8#100B5902FF403514',
		'(100.101500) bus0 7E0#3000000000000000',
		'(100.102000) bus0 7E8#212FC12187AF0000',
		'(100.200000) bus0 18FECA0B#04FF15030503FFFF'
	].join('\n');
	await openCase(page, 'logged bus', NOBODY);
	await goTo(page, 'Read');
	await page.getByLabel('File to look through').setInputFiles(file('ride.log', log));
	const preview = page.getByRole('region', { name: 'What was understood' });
	await expect(
		preview.getByRole('heading', { name: '9 frames in 0.2 s, 2 exchanges, 3 codes' })
	).toBeVisible();
	await expect(preview).toContainText('1 broken message and 1 damaged line were passed over');
	await expect(preview).toContainText('segment 1 expected, 2 came');
	await expect(preview).toContainText('Wheel speed sensor, axle 1 left');
	await preview.getByRole('button', { name: 'Save it on the thread' }).click();
	await page.getByRole('link', { name: 'Every exchange, byte by byte' }).click();
	await expect(page.getByRole('heading', { name: 'ride.log' })).toBeVisible();
	await page.getByText('11 bytes').click();
	await expect(page.getByText('code: C0035-14')).toBeVisible();
	await expect(page.getByText('status: failing now, confirmed').first()).toBeVisible();
	// The log itself is kept, byte for byte, damaged line and all.
	const download = page.waitForEvent('download');
	await page.getByRole('link', { name: 'The log as it came' }).click();
	expect(readFileSync(await (await download).path(), 'utf8')).toBe(log);

	await test.step('one that the server does not keep is told, and what it says is saved all the same', async () => {
		await goTo(page, 'Read');
		await page.route('**/file', (route) => route.fulfill({ status: 413, body: 'too large' }));
		await page.getByLabel('File to look through').setInputFiles(file('again.log', log));
		await preview.getByRole('button', { name: 'Save it on the thread' }).click();
		await expect(page.getByText(/larger than this server keeps/)).toBeVisible();
		await expect(page.getByRole('button', { name: /^Frame log again\.log/ })).toBeVisible();
		await page.unroute('**/file');
	});
});

test('a binary file, an empty one and one of two gigabytes are each refused with a sentence', async ({
	page
}) => {
	await openCase(page, 'wrong files', NOBODY);
	await goTo(page, 'Read');
	const chooser = page.getByLabel('File to look through');
	const refusal = page.getByRole('region', { name: 'Codes from elsewhere' }).getByRole('alert');
	await chooser.setInputFiles(file('photo.log', Buffer.from([0xff, 0xd8, 0, 0, 1, 2])));
	await expect(refusal).toContainText('binary file');
	await chooser.setInputFiles(file('nothing.txt', ''));
	await expect(refusal).toContainText('It is empty');
	const huge = openSync(join(folder, 'huge.log'), 'w');
	ftruncateSync(huge, 2_100_000_000);
	closeSync(huge);
	await chooser.setInputFiles(join(folder, 'huge.log'));
	await expect(refusal).toContainText('It has 2.1 GB; up to 1.0 GB are read here');
	await chooser.setInputFiles(file('broken.gz', Buffer.from([0x1f, 0x8b, 8, 0, 1])));
	await expect(refusal).toContainText('compression is damaged');
	const dropped = await page.evaluateHandle(() => {
		const data = new DataTransfer();
		data.items.add(new File(['Dear workshop, please look at the brakes.'], 'letter.txt'));
		return data;
	});
	await page
		.getByRole('group', { name: 'Text or file with codes' })
		.dispatchEvent('drop', { dataTransfer: dropped });
	await expect(page.getByText('No code was found in it')).toBeVisible();
});

test('a lead writes the shop’s own words with a form; they stand first, and a second lead overwrites nothing', async ({
	as,
	page
}) => {
	const marit = await as('marit');
	const other = await as('marit');
	for (const tab of [marit, other]) await tab.goto('/codes/C0064/write');
	await expect(marit.getByLabel('Called')).toHaveValue('Roll rate sensor');
	await marit.getByLabel('Called').fill('Roll rate: look at the bracket');
	await marit
		.getByRole('region', { name: 'What sets it' })
		.getByRole('button', { name: 'Write it down' })
		.click();
	await marit.getByLabel('Kind of condition').selectOption('held');
	await marit.getByLabel('Seconds').fill('2.5');
	await marit.getByLabel('Seconds').blur();
	await marit.getByLabel('Signal').first().selectOption('lateral');
	await marit.getByLabel('Number').fill('0.4');
	await marit.getByLabel('Number').blur();
	await expect(marit.getByText('Lateral acceleration above 0.4 g, for 2.5 s without a break.')).toBeVisible();
	await marit.getByLabel('Why').fill('seen on three vehicles');
	await marit.getByRole('button', { name: 'Save a new version' }).click();
	await expect(marit.getByRole('heading', { level: 1 })).toContainText('Roll rate: look at the bracket');

	await other.getByLabel('Called').fill('Another view');
	await other.getByLabel('Why').fill('because');
	await other.getByRole('button', { name: 'Save a new version' }).click();
	await expect(other.getByRole('alert')).toContainText('Somebody else wrote version 1');
	await expect(other.getByLabel('Called')).toHaveValue('Another view');

	await page.goto('/codes/C0064');
	const sources = page.getByRole('region', { name: /Two sources/ });
	await expect(sources.getByRole('columnheader').nth(1)).toContainText('This shop');
	await expect(sources).toContainText('Lateral acceleration above 0.4 g');
	await expect(page.getByText('version 1')).toBeVisible();
	await page.goto('/codes/C0064/write');
	await expect(page.getByRole('heading', { name: /A lead writes the shop’s own words/ })).toBeVisible();
});

test('packs: out as a file, refused whole with a line, in again, found, and taken away', async ({ as }) => {
	const page = await as('marit');
	await page.goto('/library');
	const download = page.waitForEvent('download');
	await page.getByRole('row').filter({ hasText: 'Norvane' }).getByRole('link', { name: 'CSV' }).click();
	const csv = (await (await download).path()) ?? '';
	const { readFileSync } = await import('node:fs');
	const table = readFileSync(csv, 'utf8')
		.replaceAll('maker-norvane', 'cove-data')
		.replaceAll('Norvane', 'Cove');
	const rows = table.split('\n');
	rows[2] = (rows[2] ?? '').replace('wheel-speed', 'wheel speed').replace('tone-ring', 'tone ring');
	await page.getByLabel('Pack file').setInputFiles(file('bad.csv', rows.join('\n')));
	await page.getByRole('button', { name: 'Bring it in' }).click();
	await expect(page.getByRole('alert')).toContainText(/Refused whole: bad.csv.*Line 3: group/s);
	await page
		.getByLabel('Pack file')
		.setInputFiles(file('good.csv', table.replace('Yaw sensor zero out of range', 'Capstan drift')));
	await page.getByRole('button', { name: 'Bring it in' }).click();
	await expect(page.getByText('is in, 15 definitions')).toBeVisible();
	await page.keyboard.press('/');
	await page.keyboard.type('capstan');
	await expect(page.getByRole('option').first()).toContainText('Capstan drift');
	await page.keyboard.press('Escape');
	await page.getByRole('row').filter({ hasText: 'Cove' }).getByRole('button', { name: 'Take away' }).click();
	await expect(page.getByText('The pack is taken away')).toBeVisible();
	const schema = await page.request.get('/library/pack.schema.json');
	expect((await schema.json()).properties.format.const).toBe('jaldi-code-pack');
});

test('two sources disagree: the page shows on what, and the case keeps which one the measurements supported', async ({
	page
}) => {
	await openCase(page, 'two books', NOBODY);
	await goTo(page, 'Read');
	await page.keyboard.press('/');
	await page.keyboard.type('C0045');
	await expect(page.getByRole('option').first()).toContainText('C0045');
	await page.keyboard.press('Enter');
	await expect(
		page.getByRole('heading', { name: /disagree on which circuit it is and what sets it/ })
	).toBeVisible();
	await page.getByLabel('Source that was right').selectOption({ label: 'Circuit numbering' });
	await page.getByLabel('Because').fill('Unplugged the rear-left sensor: the code changed at once');
	await page.getByRole('button', { name: 'Write it down' }).click();
	await expect(page.getByRole('region', { name: /Which one do the measurements/ })).toContainText(
		'Unplugged the rear-left sensor'
	);
	await page.getByRole('link', { name: /^Back to TP-/ }).click();
	await expect(page.getByRole('complementary', { name: 'Thread' })).toContainText(
		'Circuit numbering is right here'
	);
});
