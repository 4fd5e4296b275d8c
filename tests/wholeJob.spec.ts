import {
	accessible,
	clearAll,
	confirmKey,
	cycleKeyNow,
	driveNow,
	expect,
	goTo,
	openCase,
	readAgain,
	scan,
	test,
	verdictOf,
	VIN,
	writeRepair
} from './bay';
import { benchFault } from '../src/lib/bench/faults/benchFault';

test('an open lead, from the complaint to a signed proof', async ({ page, bay, as }) => {
	const { link, panel } = await bay(benchFault('lead-open', 'rear-left'));
	await openCase(page, 'harbour bus', link, panel);

	await test.step('Listen', async () => {
		await page.getByLabel('In the customer’s own words').fill('Lamp on since the winter salt');
		await page.getByRole('button', { name: 'at key-on' }).click();
		await page.locator('#complaint').getByRole('button', { name: 'Save' }).click();
		await expect(page.getByText('“Lamp on since the winter salt”')).toBeVisible();
		await page.getByLabel('Vehicle identification number').fill('BRM16SCH8P0004183');
		await expect(page.getByText('Place 9 should be 0')).toBeVisible();
		await page.getByLabel('Vehicle identification number').fill(VIN.toLowerCase());
		await expect(page.getByText('The check digit fits.')).toBeVisible();
		await page.getByLabel('Odometer, km').fill('50000');
		await page.locator('#vehicle').getByRole('button', { name: 'Save' }).click();
		// The school minibus of the demo has this number.
		await expect(page.locator('#vehicle').getByRole('alert')).toContainText(
			'That is the number of school minibus'
		);
		await page.getByLabel('It is the same vehicle').check();
		await page.locator('#vehicle').getByRole('button', { name: 'Save' }).click();
		await expect(page.locator('#vehicle')).toContainText(`${VIN} at 50,000 km`);
		const lamp = page.getByRole('radiogroup', { name: 'anti-lock lamp' });
		await lamp.getByText('steady').click();
		await page.getByLabel('When the anti-lock lamp lights').fill('stays on from key-on');
		await page.locator('#lamps-reported').getByRole('button', { name: 'Save' }).click();
		await expect(page.locator('#lamps-reported')).toContainText('anti-lock steady, stays on from key-on');
		await page.getByLabel('Size front left').fill('205/75R16C');
		await page.getByRole('button', { name: 'The same all round' }).click();
		await page.locator('#tyres').getByRole('button', { name: 'Save' }).click();
		await expect(page.locator('#tyres').getByText('205/75R16C')).toHaveCount(4);
	});

	await test.step('Read', async () => {
		await scan(page);
		await expect(page.getByRole('heading', { name: /^8 codes in 8 modules/ })).toBeVisible();
		const brake = page.getByRole('region', { name: 'Brake control' });
		await expect(brake).toContainText('C0045-13');
		await expect(brake).toContainText('failing now, confirmed');
		await expect(brake).toContainText('not available');
		await brake.getByText('bit by bit').click();
		await expect(brake.getByText('confirmed and stored')).toBeVisible();
		await brake.getByText('Bytes on the line').click();
		await expect(brake.getByText('19 02 FF', { exact: true })).toBeVisible();
	});

	await test.step('Mend, on the thread and on the vehicle', async () => {
		await page.goto(`${page.url().replace(/\/read$/, '')}/mend?does=renew-lead&place=rear-left`);
		await page.getByRole('button', { name: 'Save the repair' }).click();
		await expect(page.getByRole('heading', { name: 'One repair is written down' })).toBeVisible();
		await page.getByRole('button', { name: 'Simulator' }).click();
		await page.getByLabel('Repair', { exact: true }).selectOption('renew-lead');
		await page.getByRole('button', { name: 'Do the repair' }).click();
		await expect(page.getByText('Repair done at the rear left.')).toBeVisible();
	});

	await test.step('Prove', async () => {
		await clearAll(page);
		await page.getByRole('button', { name: 'The key is on again: check' }).click();
		await expect(page.getByRole('alert')).toHaveCount(0);
		await expect(page.getByText(/still counts \d+ key cycles/)).toBeVisible();
		await page.getByRole('button', { name: 'Turn the key off' }).click();
		await page.getByRole('button', { name: 'Turn the key on' }).click();
		await expect(page.getByRole('button', { name: 'Turn the key off' })).toBeVisible();
		await confirmKey(page);
		await page.getByRole('button', { name: 'Save what the lamps did' }).click();
		await expect(page.getByText('Say of each lamp what it did.')).toBeVisible();
		await page
			.getByRole('radiogroup', { name: 'anti-lock lamp at key-on' })
			.getByText('lit and went out')
			.click();
		await page.getByRole('button', { name: 'Save what the lamps did' }).click();
		await expect(page.getByRole('complementary', { name: 'Thread' })).toContainText('all lit and went out');
		await readAgain(page);
		await expect(verdictOf(page, 'C0045-13', 'Brake control')).toHaveText(
			'Cleared, but its test has not run'
		);
		await page.getByRole('button', { name: 'Drive 3 km, up to 65 km/h' }).click();
		await expect(page.getByRole('button', { name: /Driving/ })).toBeVisible();
		await expect(page.getByRole('button', { name: 'Drive 3 km, up to 65 km/h' })).toBeVisible();
		await page.getByLabel('Distance, km').fill('3.1');
		await page.getByLabel('Top speed, km/h').fill('65');
		await page.getByRole('button', { name: 'Save the drive' }).click();
		await expect(page.getByRole('complementary', { name: 'Thread' })).toContainText('Proving drive, 3.1 km');
		await readAgain(page);
		await expect(verdictOf(page, 'C0045-13', 'Brake control')).toHaveText('Proven clear');
		await expect(verdictOf(page, 'U0415-81', 'Instrument cluster')).toHaveText('Proven clear');
		await expect(page.getByRole('heading', { level: 1 })).toHaveText('Proven clear');
	});

	await test.step('Hand over', async () => {
		await goTo(page, 'Hand over');
		await expect(page.getByText('Waits for a lead’s signature.')).toBeVisible();
		const lead = await as('marit');
		await lead.goto(page.url());
		await lead.getByRole('button', { name: 'Sign and close the case' }).click();
		await lead.getByRole('button', { name: 'Sign it' }).click();
		await expect(lead.locator('#sign')).toContainText('Checked against the evidence and released.');
		await expect(page.locator('#sign')).toContainText('Checked against the evidence and released.');
		await lead.goto('/closed');
		await expect(lead.getByRole('row').filter({ hasText: 'harbour bus' })).toBeVisible();

		// What was proven teaches, until a lead takes it off with a reason.
		await lead.goto('/library/learned');
		const taught = lead.getByRole('listitem').filter({ hasText: 'harbour bus' });
		await expect(taught).toContainText('C0045, U0415, 50,000 km');
		await taught.getByRole('button', { name: 'Do not learn from it' }).click();
		await taught.getByRole('button', { name: 'Take it off' }).click();
		await expect(lead.getByRole('alert')).toHaveText('Why should nothing be learned from it?');
		await taught.getByLabel('Why not?').fill('The lead was cut by us.');
		await taught.getByRole('button', { name: 'Take it off' }).click();
		await expect(taught).toContainText('Taken off by Marit: The lead was cut by us.');
		await page.goto('/library/learned');
		await expect(page.getByText('A lead says what is learned from.')).toBeVisible();
		await taught.getByRole('button', { name: 'Learn from it again' }).click();
		await expect(taught.getByRole('button', { name: 'Do not learn from it' })).toBeVisible();
		await accessible(lead);
	});

	await test.step('and the thread is closed', async () => {
		await page.goBack();
		await goTo(page, 'Mend');
		await expect(page.getByRole('button', { name: 'Save the repair' })).toHaveCount(0);
	});
});

test('cleared without repairing: it came back at key-on, and a lead closes it unproven', async ({
	page,
	bay,
	as
}) => {
	const vehicle = await bay(benchFault('lead-open', 'front-left'));
	await openCase(page, 'hopeful van', vehicle.link);
	await scan(page);
	await clearAll(page);
	cycleKeyNow(vehicle);
	await confirmKey(page);
	await readAgain(page);
	await expect(verdictOf(page, 'C0035-13', 'Brake control')).toHaveText('Came back at key-on');
	await goTo(page, 'Hand over');
	await expect(page.getByText('Not ready to be handed over')).toBeVisible();
	await expect(page.getByText('C0035-13 in Brake control: came back at key-on.')).toBeVisible();
	await expect(page.getByText('It cannot be proven: close it with things open')).toHaveCount(0);
	const { origin, href } = new URL(page.url());
	const asked = await page.request.post(`${href}?/unproven`, {
		headers: { origin, accept: 'application/json' },
		form: { statement: 'I am no lead, and close it.', head: '0'.repeat(64) }
	});
	expect(await asked.text()).toContain('Only a lead closes a case.');

	await test.step('A lead closes it unproven: a reason, and all that is open stands first', async () => {
		const lead = await as('marit');
		await lead.goto(page.url());
		await lead.getByText('It cannot be proven: close it with things open').click();
		await lead.getByRole('button', { name: 'Close it unproven' }).click();
		const close = lead.getByRole('button', { name: 'Close it', exact: true });
		await close.click();
		await expect(lead.getByText('A sentence that others understand.')).toBeVisible();
		await lead.getByLabel('Why it is closed unproven').fill('The customer sells it for parts.');
		await close.click();
		await expect(lead.getByRole('heading', { level: 1 })).toHaveText('Closed unproven, by a lead');
		const left = lead.getByRole('region', { name: /^Not proven: what stood open/ });
		await expect(left).toContainText('C0035-13 in Brake control: came back at key-on.');
		await expect(left).toContainText('Whoever drives it has to know');
		await expect(lead.locator('#sign')).toContainText('The customer sells it for parts.');
		await lead.goto('/figures');
		await expect(lead.getByRole('button', { name: /closed unproven/ })).toContainText(/^1/);
	});
});

test('a drop-out mended and cleared but not driven: its test has not run', async ({ page, bay }) => {
	const vehicle = await bay(benchFault('ring-loose', 'rear-right', 0.46));
	driveNow(vehicle);
	await openCase(page, 'quiet bus', vehicle.link);
	await scan(page);
	await expect(page.getByRole('region', { name: 'Brake control' })).toContainText('C0050-2F');
	vehicle.host.act({ do: 'mend', at: 'rear-right', repair: 'refit-ring' });
	await writeRepair(page, 'Ring refitted', 'rear-right');
	await clearAll(page);
	cycleKeyNow(vehicle);
	await confirmKey(page);
	await readAgain(page);
	await expect(verdictOf(page, 'C0050-2F', 'Brake control')).toHaveText('Cleared, but its test has not run');
	await expect(
		page.getByText(/It needs vehicle speed above 20 km\/h .* for 10 s without a break/)
	).toBeVisible();
});

test('a drop-out cleared and not mended: it came back while driving', async ({ page, bay }) => {
	const vehicle = await bay(benchFault('ring-loose', 'front-right', 0.46));
	driveNow(vehicle);
	await openCase(page, 'rattling bus', vehicle.link);
	await scan(page);
	await clearAll(page);
	cycleKeyNow(vehicle);
	await confirmKey(page);
	driveNow(vehicle);
	await readAgain(page);
	await expect(verdictOf(page, 'C0040-2F', 'Brake control')).toHaveText('Came back while driving');
});
