import AxeBuilder from '@axe-core/playwright';
import { benchFault } from '../src/lib/bench/faults/benchFault';
import { expect, goTo, openCase, patient, test, type Bay } from './bay';
import type { Page } from '@playwright/test';

const spin = (bay: Bay, position: string, kmh: number) =>
	bay.host.act({ do: 'spin', position: position as 'front-left', kmh });
const reading = (page: Page, name: string) => page.locator('dl div').filter({ hasText: name }).locator('dd');

test('live data are recorded, marked, kept through a reload, and looked through', async ({ page, bay }) => {
	const stand = await bay(benchFault('lead-open', 'rear-left'));
	await openCase(page, 'recorded bus', stand.link, stand.panel);
	await goTo(page, 'Watch');
	await expect(page.getByRole('heading', { name: 'Nothing watched yet' })).toBeVisible();
	// Every value more makes all slower, and it says so before anything is asked.
	const rate = page.getByText(/readings a second · sees nothing/);
	const before = await rate.textContent();
	await page.getByLabel('yaw rate').check();
	await expect(rate).not.toHaveText(before ?? '');
	await page.getByLabel('yaw rate').uncheck();

	await page.keyboard.press('r');
	await expect(page.getByRole('heading', { name: 'Recording', exact: true })).toBeVisible();
	spin(stand, 'front-left', 12);
	await expect(reading(page, 'front-left')).toContainText('12.0');
	await expect(reading(page, 'rear-left')).toContainText('not available');
	await page.keyboard.press('Space');
	await expect(page.getByText('1 mark')).toBeVisible();
	await page.reload();
	await expect(page.getByText('1 mark')).toBeVisible();
	await expect(reading(page, 'front-left')).toContainText('12.0');
	await page.keyboard.press('x');
	await expect(page.getByText(/readings over \d+ s, saved to the case/)).toBeVisible();

	await page.getByRole('link', { name: /Live recording/ }).click();
	// On a machine that is busy the wheel that was spun may be told of too.
	await expect(page.getByRole('heading', { name: /^(One finding|\d findings)$/ })).toBeVisible();
	await expect(page.locator('.apexcharts-series path:visible').first()).toBeVisible();
	await page.getByRole('button', { name: /As a list/ }).click();
	await expect(page.getByRole('cell', { name: 'n/a' }).first()).toBeVisible();
	const csv = page.waitForEvent('download');
	await page.getByRole('link', { name: 'CSV' }).click();
	expect((await csv).suggestedFilename()).toMatch(/^live-.*\.csv$/);
	const axe = await new AxeBuilder({ page }).analyze();
	expect(axe.violations.map(({ id }) => id)).toEqual([]);
});

test('wheels turned one after the other are noticed and ticked off without a touch', async ({
	page,
	bay
}) => {
	const stand = await bay(benchFault('lead-open', 'front-right'));
	await openCase(page, 'spun bus', stand.link, stand.panel);
	await goTo(page, 'Watch');
	await page.getByRole('link', { name: 'Spin the wheels' }).click();
	await expect(page.getByRole('heading', { level: 1 })).toContainText('Not recording');
	await page.getByRole('button', { name: 'Start' }).click();
	const task = page.getByRole('heading', { level: 1 });
	await expect(task).toContainText('Spin the front left');
	await expect(page.getByRole('alert')).toContainText('save and clear');
	const wheel = (name: string) => page.getByRole('listitem').filter({ hasText: name });
	for (const [position, name, said] of [
		['front-left', 'Front left', /answers, up to/],
		['rear-left', 'Rear left', /its mate turns with it/],
		['rear-right', 'Rear right', /its mate turns with it/]
	] as const) {
		spin(stand, position, 10);
		await expect(task).toContainText(`${name} is turning`);
		await expect(wheel(name).locator('.num')).toHaveText('10.0');
		await expect(task).toContainText('let it run out');
		spin(stand, position, 0);
		await expect(wheel(name)).toContainText(said);
	}
	await expect(task).toContainText('All wheels are judged');
	await expect(page.getByText('The round is on the thread.')).toBeVisible();
	await page.keyboard.press('Escape');
	await expect(page.getByRole('heading', { name: /Wheels turned by hand/ })).toBeVisible();
	await expect(
		page.getByText('Front right tells "not available": frozen after a hard fault.').first()
	).toBeVisible();
});

test('driven wheels in gear: the one that stays dark is told from its mate', async ({ page, bay }) => {
	const stand = await bay(benchFault('sensor-stuck-low', 'rear-right'));
	await openCase(page, 'geared bus', stand.link, stand.panel);
	await goTo(page, 'Watch');
	await page.getByRole('link', { name: 'In gear on stands' }).click();
	await expect(page.getByRole('heading', { level: 1 })).toContainText('Not recording');
	await page.getByRole('button', { name: 'Start' }).click();
	const task = page.getByRole('heading', { level: 1 });
	await expect(task).toContainText('Run in gear at walking pace');
	stand.host.act({ do: 'in-gear', kmh: 7 });
	await expect(task).toContainText('All wheels are judged');
	await expect(page.getByRole('listitem').filter({ hasText: 'Rear left' })).toContainText('runs even');
	await expect(page.getByRole('listitem').filter({ hasText: 'Rear right' })).toContainText(
		'stays at zero while its mate is driven'
	);
	// The sound follows the wheel once somebody asks for it.
	await page.keyboard.press('m');
	await expect(page.getByRole('button', { name: /sound follows/ })).toHaveAttribute('aria-pressed', 'true');
});

const drive = (header: string) => {
	const rows = Array.from({ length: 600 }, (_, i) => {
		const kmh = Math.min(50, i / 4)
			.toFixed(1)
			.replace('.', ',');
		const dropped = i > 400 && i < 408 ? '0' : kmh;
		return [`${Math.floor(i / 20)},${String((i % 20) * 5).padStart(2, '0')}`, kmh, kmh, dropped, kmh].join(
			';'
		);
	});
	return Buffer.from(`${header}\n${rows.join('\n')}\n`);
};
const file = (name: string, buffer: Buffer) => ({ name, mimeType: 'text/csv', buffer });

test('a file is asked about once, remembered, and put on the thread; a wrong one is refused with a reason', async ({
	page,
	bay
}) => {
	const stand = await bay();
	await openCase(page, 'filed bus', stand.link, stand.panel);
	await goTo(page, 'Watch');
	const chooser = page.getByLabel('File of live data');
	await chooser.setInputFiles(file('picture.csv', Buffer.from([0x89, 0x50, 0, 0, 1, 2])));
	await expect(page.getByRole('alert')).toContainText('picture.csv: Line 1: this is no text');
	await chooser.setInputFiles(file('empty.csv', Buffer.from('')));
	await expect(page.getByRole('alert')).toContainText('It is empty. Nothing was saved.');

	const unclear = 'zeit [s];A;B;C;D';
	await chooser.setInputFiles(file('other tool.csv', drive(unclear)));
	await expect(page.getByText('What are these columns?')).toBeVisible();
	// What the columns do is offered, and asked about.
	await expect(page.getByText('“A” moves like a wheel')).toBeVisible();
	await expect(page.getByLabel('What C is')).toHaveValue('rear_left');
	await page.getByLabel('What zeit [s] is').selectOption('left out');
	await page.getByRole('button', { name: 'Read it so' }).click();
	await expect(page.getByRole('alert')).toContainText('One column must be the time');
	await page.getByLabel('What zeit [s] is').selectOption('the time');
	for (const [column, wheel] of [
		['A', 'front left wheel'],
		['B', 'front right wheel'],
		['C', 'rear left wheel'],
		['D', 'rear right wheel']
	] as const) {
		await page.getByLabel(`What ${column} is`).selectOption(wheel);
		await page.getByLabel(`Unit of ${column}`).selectOption('km/h');
	}
	await page.getByRole('button', { name: 'Read it so' }).click();
	await expect(page.getByText('Rear left falls to 0.0 km/h and returns, once')).toBeVisible();
	await page.getByRole('button', { name: 'Put it on the thread' }).click();
	await expect(page.getByRole('heading', { name: 'other tool.csv' })).toBeVisible();
	await expect(page.getByRole('heading', { name: 'One finding' })).toBeVisible();

	await goTo(page, 'Watch');
	await page.getByLabel('File of live data').setInputFiles(file('again.csv', drive(unclear)));
	await expect(page.getByText('Its columns are taken as somebody here told before.')).toBeVisible();
});

test('a wrong unit is asked about; a file cut off and rows out of order are told', async ({ page, bay }) => {
	const stand = await bay();
	await openCase(page, 'odd files', stand.link, stand.panel);
	await goTo(page, 'Watch');
	// The wheels are in mph under a header that says km/h; the vehicle's own speed gives it away. The last row is cut.
	const rows = Array.from({ length: 400 }, (_, i) => {
		const kmh = Math.min(60, i / 4);
		return [(i / 20).toFixed(2), ...Array<string>(4).fill((kmh / 1.609344).toFixed(2)), kmh.toFixed(0)].join(
			','
		);
	});
	rows.splice(100, 0, rows[20] ?? '');
	rows.push('20.00,37');
	const header = 'time_s,front_left_kmh,front_right_kmh,rear_left_kmh,rear_right_kmh,vehicle_kmh';
	await page
		.getByLabel('File of live data')
		.setInputFiles(file('odd.csv', Buffer.from([header, ...rows].join('\n'))));
	await expect(page.getByText(/looks like mph taken for km\/h/)).toBeVisible();
	await page.getByText('2 rows are not as the others').click();
	await expect(page.getByText('line 102: time runs backwards here')).toBeVisible();
	await expect(page.getByText('line 403: the row has 2 of 6 columns: cut off?')).toBeVisible();
	await page.getByRole('button', { name: 'Read the wheels in mph' }).click();
	await expect(page.getByText(/looks like mph/)).toHaveCount(0);
	await expect(page.getByText(/All 4 wheels agree/)).toBeVisible();
});

test('a round outlives a reload, is on the thread once, and a second tab sees the same', async ({
	page,
	bay,
	context
}) => {
	const stand = await bay();
	await openCase(page, 'reloaded bus', stand.link, stand.panel);
	await goTo(page, 'Watch');
	// By keyboard: the space bar works the box that has the focus.
	await page.getByLabel('yaw rate').focus();
	await page.keyboard.press('Space');
	await expect(page.getByLabel('yaw rate')).toBeChecked();
	await page.getByRole('link', { name: 'In gear on stands' }).click();
	const task = page.getByRole('heading', { level: 1 });
	await expect(task).toContainText('Not recording');
	await page.getByRole('button', { name: 'Start' }).click();
	await expect(task).toContainText('Run in gear');
	stand.host.act({ do: 'in-gear', kmh: 7 });
	await expect(task).toContainText('All wheels are judged');
	await expect(page.getByText('The round is on the thread.')).toBeVisible();
	await page.reload();
	await expect(task).toContainText('All wheels are judged');
	const other = patient(await context.newPage());
	await other.goto(page.url());
	await expect(other.getByRole('heading', { level: 1 })).toContainText('All wheels are judged');
	await other.close();
	await page.keyboard.press('Escape');
	await expect(page.getByRole('heading', { name: /Driven wheels in gear/ })).toHaveCount(1);
});

test('tyres: what they do to the readings, and what if', async ({ page }) => {
	await page.goto('/tyres');
	for (const wheel of ['front left', 'front right', 'rear left'])
		await page.getByLabel(`Size ${wheel}`).fill('205/55R16');
	await page.getByLabel('Size rear right').fill('round');
	await expect(page.getByText('expected a tyre size such as')).toBeVisible();
	await page.getByLabel('Size rear right').fill('T125/70D16');
	await page.getByLabel('driven').selectOption('rear axle');
	await page.getByLabel('a code allows, km/h').fill('6');
	await expect(page.getByRole('heading', { name: 'The wheels roll up to 8.7 % apart' })).toBeVisible();
	// 6 km/h of 8.686 %: from 69 km/h on.
	await expect(page.getByText('km/h from 69 km/h on')).toBeVisible();
	await expect(page.getByText('A temporary spare is fitted')).toBeVisible();
	await expect(page.getByText('All 205/55R16: up to 0.0 % apart')).toBeVisible();
});

test('a road test is planned and covered as it is driven', async ({ page, bay }) => {
	const stand = await bay();
	await openCase(page, 'driven bus', stand.link, stand.panel);
	await goTo(page, 'Watch');
	await page.getByRole('link', { name: 'Plan the road test' }).click();
	await expect(page.getByRole('heading', { name: 'Road test, 4 things to cover' })).toBeVisible();
	await expect(page.getByText('only the other looks at the screen')).toBeVisible();
	await page.keyboard.press('r');
	await expect(page.getByRole('heading', { name: '4 of 4 still to cover' })).toBeVisible();
	stand.host.act({
		do: 'drive',
		rate: 1,
		legs: [
			{ toKmh: 50, overS: 0.5 },
			{ toKmh: 50, overS: 60 }
		]
	});
	const even = page.getByRole('listitem').filter({ hasText: 'Straight and even' });
	await expect(even).toContainText(/[2-9] of 30 s/);
	await page.keyboard.press('x');
	await expect(page.getByText(/saved to the case/)).toBeVisible();
});

test('a frame log becomes a recording by the shop’s own list of signals', async ({ page, bay }) => {
	const stand = await bay();
	await openCase(page, 'framed bus', stand.link, stand.panel);
	await goTo(page, 'Watch');
	// Two wheels in one frame, 0.01 km/h a count; the right one is gone for half a second.
	const lines = Array.from({ length: 400 }, (_, i) => {
		const counts = (value: number) =>
			Math.round(value * 100)
				.toString(16)
				.toUpperCase()
				.padStart(4, '0');
		const kmh = Math.min(50, i / 4);
		return `(${(i / 20).toFixed(6)}) can0 5A1#${counts(kmh)}${counts(i > 300 && i < 310 ? 0 : kmh)}${counts(kmh)}${counts(kmh)}`;
	});
	const log = { name: 'yard.log', mimeType: 'text/plain', buffer: Buffer.from(`${lines.join('\n')}\n`) };
	await page.getByLabel('File of live data').setInputFiles(log);
	await expect(page.getByText('Which frames carry what?')).toBeVisible();
	await page.getByLabel('Frames', { exact: true }).selectOption({ index: 1 });
	for (const [wheel, byte] of [
		['front-left wheel speed', 0],
		['front-right wheel speed', 2],
		['rear-left wheel speed', 4],
		['rear-right wheel speed', 6]
	] as const) {
		await page.getByLabel('Carry', { exact: true }).selectOption(wheel);
		await page.getByLabel('from byte (0 …)').fill(String(byte));
		await page.getByRole('button', { name: 'Add this signal' }).click();
		await expect(
			page.getByRole('listitem').filter({ hasText: `${wheel}: 16 bits from byte ${byte}` })
		).toBeVisible();
	}
	await page.getByRole('button', { name: 'Read it so' }).click();
	await expect(page.getByText('Front right falls to 0.0 km/h and returns, once')).toBeVisible();
	await page.getByRole('button', { name: 'Put it on the thread' }).click();
	await expect(page.getByRole('heading', { name: 'yard.log' })).toBeVisible();
});
