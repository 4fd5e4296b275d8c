import { newDescription } from '../library/vehicle/newDescription';
import { vehicleTypeOf } from '../library/vehicle/vehicleType';
import { benchFault } from '../src/lib/bench/faults/benchFault';
import { BenchHost } from '../src/lib/bench/net/host';
import {
	accessible,
	confirmKey,
	cycleKeyNow,
	driveNow,
	expect,
	goTo,
	test,
	verdictOf,
	writeRepair
} from './bay';

const VIN = '11111111111111111';

/** A van that nobody described, on the bench, key on. */
async function unknownVan(): Promise<{ host: BenchHost; can: string; network: string }> {
	const made = newDescription({
		template: 'van',
		sensors: [
			['front', 'passive'],
			['rear', 'two-wire']
		]
	});
	if (!made.ok) throw new Error(made.error);
	const faults = [benchFault('lead-open', 'rear-left')];
	const host = new BenchHost({ type: vehicleTypeOf(made.value), vin: VIN, odometerKm: 180_000, faults });
	const { canPort, linkPort } = await host.start();
	host.act({ do: 'key', to: 'on' });
	host.vehicle.advance(5);
	return { host, can: `slcan://127.0.0.1:${canPort}`, network: `127.0.0.1:${linkPort}` };
}

test('an unknown van on CAN: found, described by its answers, read, mended, cleared and proven over the adapter', async ({
	page
}) => {
	const { host, can } = await unknownVan();
	const bay = { host, link: '', panel: '' };
	try {
		await page.goto('/cases/new');
		await page.getByText('Van', { exact: true }).click();
		await page.getByLabel('What is it, in words?').fill('Grey van with a rack');
		await page.getByRole('button', { name: 'Open the case' }).click();
		await expect(page.getByRole('heading', { name: 'Complaint' })).toBeVisible();

		await test.step('an address that the shop does not connect to is refused, and what was typed stays', async () => {
			await goTo(page, 'Read');
			const address = page.getByLabel('Interface address');
			await address.fill('slcan://10.9.8.7:3333');
			await page.getByRole('button', { name: 'Save the address' }).click();
			await expect(page.getByText('This shop does not connect there')).toBeVisible();
			await expect(address).toHaveValue('slcan://10.9.8.7:3333');
			await address.fill(can);
			await page.getByRole('button', { name: 'Save the address' }).click();
			await expect(page.getByText(`Interface at ${can}`)).toBeVisible();
			await expect(page.getByRole('button', { name: /Scan/ })).toHaveCount(0);
		});

		await test.step('who is there is asked once, and one press makes it the description', async () => {
			await page.getByRole('link', { name: 'Find its modules' }).click();
			await page.getByRole('button', { name: 'Search its modules' }).click();
			await expect(page.getByRole('heading', { level: 1 })).toHaveText('8 modules answer');
			await expect(page.getByLabel('What 0028 is')).toHaveValue('brake');
			await expect(page.getByText(/can set \d+ codes/).first()).toBeVisible();
			await accessible(page);
			await page.getByLabel('What 0030 is').selectOption('brake');
			await page.getByRole('button', { name: 'Make it the description' }).click();
			await expect(page.getByRole('alert')).toHaveText('Two modules cannot both be the brake module.');
			await page.getByLabel('What 0030 is').selectOption('steering-angle');
			await page.getByRole('button', { name: 'Make it the description' }).click();
			await expect(page).toHaveURL(/read$/);
		});

		await page.getByRole('button', { name: 'Scan every module' }).click();
		await expect(page.getByText('All 8 modules asked; saved to the case.')).toBeVisible();
		await expect(page.getByRole('region', { name: 'Brake control' })).toContainText('C0045-13');
		await goTo(page, 'Reason');
		await expect(page.locator('section', { has: page.locator('#left') })).toContainText('rear left');

		await writeRepair(page, 'Lead to the sensor renewed', 'rear-left');
		host.act({ do: 'mend', at: 'rear-left', repair: 'renew-lead' });
		await goTo(page, 'Prove');
		await page.getByRole('button', { name: 'Clear all 8 modules' }).click();
		await page.getByRole('button', { name: 'Clear all 8 modules now' }).click();
		await expect(page.getByText('8 of 8 modules cleared; saved to the case.')).toBeVisible();
		cycleKeyNow(bay);
		await confirmKey(page);
		for (const lamp of ['anti-lock', 'stability'])
			await page
				.getByRole('radiogroup', { name: `${lamp} lamp at key-on` })
				.getByText('lit and went out')
				.click();
		await page.getByRole('button', { name: 'Save what the lamps did' }).click();
		driveNow(bay);
		await page.getByLabel('Distance, km').fill('3.1');
		await page.getByLabel('Top speed, km/h').fill('65');
		await page.getByRole('button', { name: 'Save the drive' }).click();
		await page.getByRole('button', { name: 'Read every module' }).click();
		await expect(page.getByText('All 8 modules asked; saved to the case.')).toBeVisible();
		await expect(verdictOf(page, 'C0045-13', 'Brake control')).toHaveText('Proven clear');
	} finally {
		await host.stop();
	}
});

test('a vehicle on the network says that it is there; a lead says where the shop looks', async ({
	page,
	as
}) => {
	const { host, network } = await unknownVan();
	try {
		const lead = await as('marit');
		await lead.goto('/library/equipment');
		const rules = lead.getByLabel('Hosts, networks and devices');
		const before = await rules.inputValue();
		expect(before).toContain('127.0.0.1');
		await rules.fill(`${before}\n300.1.1.1`);
		await lead.getByRole('button', { name: 'Save where it connects' }).click();
		await expect(lead.getByRole('alert')).toContainText('300.1.1.1');
		await expect(rules).toHaveValue(`${before}\n300.1.1.1`);
		await rules.fill(`${before}\n${network}`);
		await lead.getByRole('button', { name: 'Save where it connects' }).click();
		await expect(lead.getByText('Saved; it holds from now on.')).toBeVisible();

		await page.goto('/cases/new');
		await page.getByText('Van', { exact: true }).click();
		await page.getByLabel('What is it, in words?').fill('Blue van');
		await page.getByRole('button', { name: 'Open the case' }).click();
		await expect(page.getByRole('heading', { name: 'Complaint' })).toBeVisible();
		await goTo(page, 'Read');
		await page.getByRole('link', { name: 'Find its modules' }).click();
		await page.getByRole('button', { name: 'Look on the shop’s network' }).click();
		await page.getByRole('listitem').filter({ hasText: network }).getByRole('button').click();
		await page.getByRole('button', { name: 'Search its modules' }).click();
		await expect(page.getByRole('heading', { level: 1 })).toHaveText('8 modules answer');
		await expect(page.getByText(VIN)).toBeVisible();
		// Nobody but a lead says where the shop connects.
		await page.goto('/library/equipment');
		await expect(page.getByRole('button', { name: 'Save where it connects' })).toHaveCount(0);
	} finally {
		await host.stop();
	}
});

const LOG = [
	'7E0#0322F19700000000',
	'7E8#100862F197414253',
	'7E0#3000000000000000',
	'7E8#212038',
	'7E0#0322F442',
	'7E8#0562F44235E8',
	'7E0#031902FF',
	'7E8#075902FF40351409',
	'7DF#023E00',
	'7EB#027E00',
	'7A1#023E00'
]
	.map((line, i) => `(${(i / 50).toFixed(6)}) can0 ${line}`)
	.join('\n');

test('a log of the bus tells which modules a vehicle has, and the description grows by it', async ({
	as
}) => {
	const page = await as('marit');
	await page.goto('/cases/new');
	await page.getByText('Car', { exact: true }).click();
	await page.getByLabel('What is it, in words?').fill('Logged saloon');
	await page.getByRole('button', { name: 'Open the case' }).click();
	await expect(page.getByRole('heading', { name: 'Complaint' })).toBeVisible();
	await goTo(page, 'Read');
	await page
		.getByLabel('File to look through')
		.setInputFiles({ name: 'ride.log', mimeType: 'text/plain', buffer: Buffer.from(LOG) });
	await page.getByRole('button', { name: 'Save it on the thread' }).click();
	await page.getByRole('link', { name: 'Which modules are in it?' }).click();
	await page.getByRole('button', { name: 'Take them from ride.log' }).click();
	await expect(page.getByRole('heading', { level: 1 })).toHaveText('2 modules answer, 1 silent');
	await expect(page.getByText('Not all were asked. Taken from ride.log')).toBeVisible();
	await accessible(page);
	await expect(page.getByLabel('What 07E0 is')).toHaveValue('brake');
	await page.getByLabel('What 07E3 is').selectOption('cluster');
	await page.getByRole('button', { name: 'Make it the description' }).click();
	await expect(page.getByRole('complementary', { name: 'Thread' })).toContainText('2 modules');
	await page.getByRole('link', { name: 'Read with another tool' }).click();
	await expect(page.getByLabel('ABS 8: what it said')).toBeVisible();
	await expect(page.getByRole('combobox')).toHaveCount(2);
});
