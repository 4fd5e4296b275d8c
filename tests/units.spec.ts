import { PASSWORD } from '../demo/shop';
import { benchFault } from '../src/lib/bench/faults/benchFault';
import {
	clearAll,
	confirmKey,
	expect,
	goTo,
	openCase,
	patient,
	readAgain,
	scan,
	test,
	verdictOf,
	VIN
} from './bay';

const STATIONS = [
	'listen',
	'read',
	'watch',
	'watch/road',
	'watch/tyres',
	'measure',
	'measure/look',
	'measure/substitute',
	'reason',
	'mend',
	'mend/plan',
	'prove',
	'prove/drive',
	'hand-over'
];
/** A quantity in a unit that whoever looks does not read. */
const OTHERS = /\d[ \u00a0](?:km|km\/h|kPa|°C|mm)(?![\w/])/;

interface CaseFile {
	entries: { kind: string; payload: Record<string, unknown> }[];
}

test('a whole case in miles, psi and Fahrenheit, kept as everything is kept', async ({
	browser,
	bay,
	as
}) => {
	const { link, panel } = await bay(benchFault('lead-open', 'rear-left'));
	const context = await browser.newContext({ storageState: { cookies: [], origins: [] } });
	const page = patient(await context.newPage());
	await page.goto('/sign-in');
	await page.getByLabel('User name').fill('teo');
	await page.getByLabel('Password').fill(PASSWORD);
	await page.getByRole('button', { name: 'Sign in' }).click();
	await page.waitForURL(({ pathname }) => pathname === '/');

	await page.goto('/me');
	for (const [kind, unit] of [
		['Distance and speed', 'mi'],
		['Tyre pressure', 'psi'],
		['Torque', 'lb·ft'],
		['Temperature', '°F'],
		['Gap and tread', 'in']
	] as const)
		await page.getByRole('radiogroup', { name: kind }).getByText(unit, { exact: true }).click();
	await page.getByRole('button', { name: 'Save units' }).click();
	await expect(page.getByText('Saved: from now on you read and type them so.')).toBeVisible();

	await openCase(page, 'channel shuttle', link, panel);
	await page.getByLabel('In the customer’s own words').fill('Lamp on from 60 km/h');
	await page.getByLabel('At about what speed, mph').fill('20');
	await page.locator('#complaint').getByRole('button', { name: 'Save' }).click();
	await expect(page.locator('#complaint')).toContainText('“Lamp on from 60 km/h”');
	await expect(page.locator('#complaint')).toContainText('at about 20 mph');
	await page.getByLabel('Vehicle identification number').fill(VIN);
	await page.getByLabel('Odometer, mi').fill('31068');
	await page.locator('#vehicle').getByRole('button', { name: 'Save' }).click();
	await page.getByLabel('It is the same vehicle').check();
	await page.locator('#vehicle').getByRole('button', { name: 'Save' }).click();
	await expect(page.locator('#vehicle')).toContainText(`${VIN} at 31,068 mi`);
	await page.getByRole('radiogroup', { name: 'anti-lock lamp' }).getByText('steady').click();
	await page.locator('#lamps-reported').getByRole('button', { name: 'Save' }).click();
	await expect(page.locator('#lamps-reported')).toContainText('anti-lock steady');
	await page.getByLabel('Size front left').fill('205/75R16C');
	await page.getByLabel('Pressure front left, psi').fill('47.5');
	await page.getByLabel('Tread front left, in').fill('0.25');
	await page.getByRole('button', { name: 'The same all round' }).click();
	await page.locator('#tyres').getByRole('button', { name: 'Save' }).click();
	await expect(page.locator('#tyres')).toContainText('47.5 psi');
	await expect(page.locator('#tyres')).toContainText('0.25 in');

	await scan(page);
	await page.goto(`${page.url().replace(/\/read$/, '')}/mend?does=renew-lead&place=rear-left`);
	await page.getByRole('button', { name: 'Save the repair' }).click();
	await expect(page.getByRole('heading', { name: 'One repair is written down' })).toBeVisible();
	await page.getByRole('button', { name: 'Simulator' }).click();
	await page.getByLabel('Repair', { exact: true }).selectOption('renew-lead');
	await page.getByRole('button', { name: 'Do the repair' }).click();
	await expect(page.getByText('Repair done at the rear left.')).toBeVisible();
	await clearAll(page);
	await page.getByRole('button', { name: 'Turn the key off' }).click();
	await page.getByRole('button', { name: 'Turn the key on' }).click();
	await expect(page.getByRole('button', { name: 'Turn the key off' })).toBeVisible();
	await confirmKey(page);
	await page
		.getByRole('radiogroup', { name: 'anti-lock lamp at key-on' })
		.getByText('lit and went out')
		.click();
	await page.getByRole('button', { name: 'Save what the lamps did' }).click();
	await expect(page.getByRole('complementary', { name: 'Thread' })).toContainText('all lit and went out');
	await page.getByRole('button', { name: 'Drive 2 mi, up to 40 mph' }).click();
	await expect(page.getByRole('button', { name: /Driving/ })).toBeVisible();
	await expect(page.getByRole('button', { name: 'Drive 2 mi, up to 40 mph' })).toBeVisible();
	await page.getByLabel('Distance, mi').fill('2');
	await page.getByLabel('Top speed, mph').fill('40');
	await page.getByRole('button', { name: 'Save the drive' }).click();
	await expect(page.getByRole('complementary', { name: 'Thread' })).toContainText('Proving drive, 2.00 mi');
	await readAgain(page);
	await expect(verdictOf(page, 'C0045-13', 'Brake control')).toHaveText('Proven clear');
	await goTo(page, 'Hand over');
	await expect(page.getByText('Driven to prove it: 2.0 mi.')).toBeVisible();

	const at = page.url().replace(/\/hand-over$/, '');
	const found: string[] = [];
	for (const station of STATIONS) {
		await page.goto(`${at}/${station}`);
		await expect(page.getByRole('heading', { level: 1 })).toHaveCount(1);
		const lines = (await page.locator('body').innerText()).replace(/“[^”]*”/g, '').split('\n');
		found.push(...lines.filter((one) => OTHERS.test(one)).map((one) => `${station}: ${one}`));
	}
	// What the customer said stands as they said it, on the thread of every page.
	expect(found.filter((one) => !one.endsWith('Lamp on from 60 km/h'))).toEqual([]);

	const { entries } = (await (await page.request.get(`${at}/case.json`)).json()) as CaseFile;
	const kept = (kind: string) => entries.findLast((entry) => entry.kind === kind)?.payload;
	expect(kept('vehicle-checked')).toMatchObject({ odometerKm: 49_999 });
	expect(kept('complaint')).toMatchObject({ atKmh: expect.closeTo(32.19, 1) });
	expect(kept('proving-drive')).toMatchObject({
		distanceKm: expect.closeTo(3.219, 2),
		topSpeedKmh: expect.closeTo(64.37, 1)
	});
	expect(kept('tyres-fitted')).toMatchObject({
		tyres: expect.arrayContaining([
			expect.objectContaining({ pressureKpa: expect.closeTo(327.5, 1), treadMm: expect.closeTo(6.35, 2) })
		])
	});

	// Whoever chose nothing reads the same case in the shop's.
	const lead = await as('marit');
	await lead.goto(`${at}/hand-over`);
	await expect(lead.getByText('Driven to prove it: 3.2 km.')).toBeVisible();
	await expect(lead.getByText('49,999 km').first()).toBeVisible();
	await lead.getByRole('button', { name: 'Sign and close the case' }).click();
	await lead.getByRole('button', { name: 'Sign it' }).click();
	await expect(lead.locator('#sign')).toContainText('Checked against the evidence and released.');
	await page.goto('/me');
	await page.getByRole('button', { name: 'As the shop has them' }).click();
	await expect(page.getByText('As the shop has them.')).toBeVisible();
	await context.close();
});
