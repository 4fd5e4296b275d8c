import type { Page } from '@playwright/test';
import { benchFault } from '../src/lib/bench/faults/benchFault';
import {
	accessible,
	clearAll,
	confirmKey,
	cycleKeyNow,
	expect,
	goTo,
	openCase,
	put,
	scan,
	test,
	VIN
} from './bay';

const LEARNING_DRIVE = [
	{ toKmh: 20, overS: 5 },
	{ toKmh: 20, overS: 7, steeringDeg: 200 },
	{ toKmh: 20, overS: 7, steeringDeg: -200 },
	{ toKmh: 45, overS: 8, steeringDeg: 0 },
	{ toKmh: 45, overS: 18 },
	{ toKmh: 0, overS: 8 },
	{ toKmh: 0, overS: 60 }
];

const stepOf = (page: Page, name: string) =>
	page
		.getByRole('list', { name: 'In this order' })
		.getByRole('listitem')
		.filter({ has: page.getByRole('heading', { name: new RegExp(`^${name}, `) }) });

/** Confirms all that only a person can say, and begins it. */
async function begin(page: Page, name: string, button: string): Promise<void> {
	const one = stepOf(page, name);
	await expect(one.getByRole('button', { name: button })).toBeDisabled();
	for (const box of await one.getByRole('checkbox').all()) await box.check();
	await one.getByRole('button', { name: button }).click();
	await one.getByRole('button', { name: `${button} now` }).click();
}

async function heard(page: Page, vehicle: string, link: string, panel: string): Promise<void> {
	await openCase(page, vehicle, link, panel);
	await put(page, 'complaint', { words: 'Lamps stay on', symptoms: [], conditions: ['at key-on'] });
	await put(page, 'vehicle-checked', { vin: VIN, checkDigitFits: true, odometerKm: 50_000 });
	await page.reload();
}

test('a new brake control module is coded, taught and driven in before anything is proven', async ({
	page,
	bay
}) => {
	const { host, link, panel } = await bay(benchFault('module-internal', 'brake'));
	await heard(page, 'new module', link, panel);
	await scan(page);

	await test.step('before it begins: this shop can finish it; the way is chosen and goes onto the thread', async () => {
		await page.goto(`${page.url().replace(/\/read.*/, '')}/mend?does=renew-module&place=brake`);
		await page.getByRole('link', { name: /Can this shop finish it/ }).click();
		await expect(page.getByText('Yes: this shop can finish it.')).toBeVisible();
		const ways = page.getByRole('region', { name: /ways? to mend/ });
		await expect(ways.getByRole('row', { name: /module with its hydraulic unit/ })).toBeVisible();
		await page.getByRole('button', { name: 'Choose it' }).click();
		await expect(page.getByRole('textbox', { name: 'Done', exact: true })).toHaveValue(/Renew the module/);
	});

	await test.step('the repair calls for five calibrations, the first is the next step', async () => {
		await page.getByRole('button', { name: 'Save the repair' }).click();
		await expect(page.getByText('One repair is written down')).toBeVisible();
		host.act({ do: 'mend', at: 'brake', repair: 'renew-module' });
		host.vehicle.advance(5);
		await expect(page.getByRole('region', { name: 'Next step' })).toContainText('Coding, brake control');
		await page.keyboard.press('.');
		await expect(page.getByRole('heading', { name: '5 calibrations are due' })).toBeVisible();
		await expect(stepOf(page, 'Learning drive')).toContainText('Waits for coding, steering angle zero');
		await accessible(page);
	});

	await test.step('nothing is written on the move; standing it is, and read back', async () => {
		host.act({
			do: 'drive',
			rate: 1,
			legs: [
				{ toKmh: 20, overS: 1 },
				{ toKmh: 20, overS: 600 }
			]
		});
		host.vehicle.advance(3);
		await begin(page, 'Coding', 'Write it into the module');
		await expect(page.getByText(/Not begun: the vehicle stands – read .*Nothing was changed/)).toBeVisible();
		host.vehicle.world.motion.stop();
		host.vehicle.advance(2);
		await stepOf(page, 'Coding').getByRole('button', { name: 'Write it into the module' }).click();
		await stepOf(page, 'Coding').getByRole('button', { name: 'Write it into the module now' }).click();
		await expect(page.getByText(/Coding, brake control: done; saved to the case/)).toBeVisible();
		await expect(stepOf(page, 'Coding')).toContainText('tyre circumference, as coded: none → 2130 mm');
	});

	await test.step('what the new module says of itself is expected, not a new fault', async () => {
		await scan(page);
		await goTo(page, 'Prove');
		await expect(
			page.getByText(/^Nothing is proven before 4 calibrations are done: steering angle zero/)
		).toBeVisible();
		const missing = page.getByRole('article', { name: 'C0131-54 in Brake control' });
		await expect(missing).toContainText('Expected: the brake control module was replaced');
	});

	await test.step('sensors are taught, the drive is followed phase by phase', async () => {
		await page.keyboard.press('.');
		for (const name of ['Steering angle zero', 'Yaw and lateral zero', 'Brake pressure zero']) {
			await begin(page, name, 'Teach it');
			await expect(page.getByText(new RegExp(`${name}, .*: done; saved to the case`))).toBeVisible();
		}
		await begin(page, 'Learning drive', 'Begin the drive');
		await expect(stepOf(page, 'Learning drive')).toContainText('0 of 3 s');
		// Whoever reloads in the middle still sees it, and can stop it.
		await page.reload();
		await expect(
			stepOf(page, 'Learning drive').getByRole('button', { name: 'Stop the drive' })
		).toBeVisible();
		host.act({ do: 'drive', rate: 4, legs: LEARNING_DRIVE });
		await expect(page.getByRole('heading', { name: 'Every calibration is done' })).toBeVisible({
			timeout: 45_000
		});
	});

	await test.step('then it is cleared and read, and only the module’s own test is still asked for', async () => {
		host.vehicle.world.motion.stop();
		host.vehicle.advance(2);
		await clearAll(page);
		cycleKeyNow({ host, link, panel });
		await confirmKey(page);
		await page.getByRole('button', { name: 'Read every module' }).click();
		await expect(page.getByText('All 9 modules asked; saved to the case.')).toBeVisible();
		await expect(page.getByText(/^Nothing is proven before/)).toHaveCount(0);
	});
});

test('a steering angle that was never reset is taught; a lead may leave out what another workshop does, by name', async ({
	page,
	bay,
	as
}) => {
	const { link, panel } = await bay(benchFault('steering-angle-off-centre', 'steering-angle', 0.6));
	await heard(page, 'track rod', link, panel);
	await scan(page);
	await goTo(page, 'Mend');
	await page.getByLabel('Done', { exact: true }).fill('Track rod right renewed');
	await page.getByRole('button', { name: 'Save the repair' }).click();
	await expect(page.getByText('One repair is written down')).toBeVisible();
	await page.keyboard.press('c');
	await expect(page.getByRole('heading', { name: '2 calibrations are due' })).toBeVisible();
	// A technician cannot let it go; by hand it asks for what came of it.
	await expect(page.getByRole('button', { name: 'Skip (lead only)' })).toHaveCount(0);
	await stepOf(page, 'Wheel alignment').getByRole('button', { name: 'Save it' }).click();
	await expect(page.getByText(/Say how it was done/)).toBeVisible();

	const lead = await as('marit');
	await lead.goto(page.url());
	await stepOf(lead, 'Wheel alignment').getByRole('button', { name: 'Skip (lead only)' }).click();
	await lead.getByLabel('Why may it be skipped?').fill('Measured and set at the mainland yard, sheet 4471');
	await lead.getByRole('button', { name: 'Skip it, in my name' }).click();
	await expect(stepOf(lead, 'Wheel alignment')).toContainText('waived');

	await expect(page.getByRole('heading', { name: 'One calibration is due' })).toBeVisible();
	await begin(page, 'Steering angle zero', 'Teach it');
	await expect(page.getByRole('heading', { name: 'Every calibration is done' })).toBeVisible();
	await expect(stepOf(page, 'Steering angle zero')).toContainText(
		/steering wheel angle: -?\d\d\.\d → -?0(\.\d)? °/
	);

	await test.step('the report tells what was taught, with values, and what was left out, by whom', async () => {
		await goTo(page, 'Hand over');
		const taught = page.getByRole('region', { name: 'What its modules were told and taught' });
		await expect(taught).toContainText(
			'Wheel alignment, steering angle: left out by a lead. Measured and set'
		);
		await expect(taught).toContainText(/\(Marit\)/);
		await expect(taught).toContainText(
			/Steering angle zero, steering angle: done – steering angle zero 0 → /
		);
	});
});
