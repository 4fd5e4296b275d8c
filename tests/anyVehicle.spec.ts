import { accessible, expect, goTo, put, test, verdictOf, writeRepair } from './bay';
import type { Page } from '@playwright/test';
import { writeCapture } from '../src/lib/core/scope/captureRows';
import { captureOf, makeSignal, normalNumbers } from '../src/lib/core/scope/signals.fixture';

/** Counts what a person does: presses, choices, fields that are filled. */
class Hands {
	acts = 0;
	constructor(private readonly page: Page) {}
	async press(name: string | RegExp): Promise<void> {
		this.acts += 1;
		await this.page.getByRole('button', { name }).first().click();
	}
	async follow(name: string): Promise<void> {
		this.acts += 1;
		await this.page.getByRole('link', { name }).first().click();
	}
	async choose(text: string): Promise<void> {
		this.acts += 1;
		await this.page.getByText(text, { exact: true }).first().click();
	}
	async fill(label: string | RegExp, text: string): Promise<void> {
		this.acts += 1;
		await this.page.getByRole('textbox', { name: label }).first().fill(text);
	}
}

const RATE_HZ = 10_000;
const coil = (seed: number) =>
	makeSignal({
		kind: 'passive',
		rateHz: RATE_HZ,
		durationS: 1,
		teeth: 48,
		hz: 150,
		peakAt100Hz: 0.9,
		snrDb: 30,
		seed
	});
const nothing = (seed: number) => {
	const noise = normalNumbers(seed);
	return Float32Array.from({ length: RATE_HZ }, () => 0.004 * noise());
};
/** Four wheels follow the road, the first at a share of it; the headers name no wheel. */
function driveOf(columns: readonly string[], firstShare: number): Buffer {
	const ratios: Record<string, number> = { W1: firstShare, W2: 1, W3: 1.001, W4: 0.999 };
	const rows = Array.from({ length: 900 }, (_, i) => {
		const kmh = 40 * (1 - Math.cos(i / 60)) + (i % 7) / 50;
		return columns
			.map((name) => (name === 't' ? (i / 10).toFixed(1) : (kmh * (ratios[name] ?? 1)).toFixed(2)))
			.join(',');
	});
	return Buffer.from([columns.join(','), ...rows].join('\n'));
}

const MOST_ACTS = 25;
const PRINT_OUT = `Scan of 30 November
[ABS / ESP]
C0035-13  Front left wheel speed circuit open   active
[Airbag]
no faults stored
`;

test('an unknown saloon: plate and words, another tool’s print-out, a repair, and proven on a person’s word', async ({
	page
}) => {
	const hands = new Hands(page);
	const thread = page.getByRole('complementary', { name: 'Thread' });

	await test.step('from New case to the first computed step in few touches', async () => {
		await page.goto('/cases/new');
		await hands.choose('Car');
		await hands.fill('What is it, in words?', 'White saloon, 2011');
		await hands.fill('Plate', 'ZX 12 ABC');
		await accessible(page);
		await hands.press('Open the case');
		await expect(page.getByRole('heading', { name: 'Complaint' })).toBeVisible();
		await expect(thread).toContainText('Vehicle described');
		await hands.follow('Read');
		await hands.follow('Read with another tool');
		await hands.fill('Read with', 'grey handheld');
		await hands.fill('Print-out of the other tool', PRINT_OUT);
		await hands.press('Check the text');
		await expect(page.getByLabel('Codes of Brake control')).toHaveValue(
			'C0035-13 active – Front left wheel speed circuit open'
		);
		await accessible(page);
		await hands.press('All the others were asked and had no codes');
		await hands.press('Save the reading');
		await expect(page.getByRole('heading', { level: 1 })).toHaveText('1 code in 1 module');
		await expect(page.getByText(/with grey handheld, on their word/)).toBeVisible();
		await goTo(page, 'Reason');
		hands.acts += 1;
		await expect(page.getByRole('button', { name: 'Start this step' })).toBeVisible();
		expect(hands.acts).toBeLessThanOrEqual(MOST_ACTS);
		await expect(page.getByRole('heading', { level: 2, name: /What is left/ })).toBeVisible();
		const left = page.locator('section', { has: page.locator('#left') });
		await expect(left).toContainText('front left');
	});

	await test.step('what is found out at the vehicle is kept, and the next case begins with it', async () => {
		await page.getByRole('link', { name: /White saloon, 2011/ }).click();
		await expect(page.getByRole('heading', { level: 1 })).toContainText('things are only assumed');
		await accessible(page);
		const plug = page.getByRole('listitem').filter({ hasText: 'Front-left body plug' });
		await plug.getByLabel('where', { exact: true }).fill('behind the headlamp');
		await plug.getByLabel('minutes to reach, min', { exact: true }).fill('many');
		await page.getByRole('button', { name: 'Keep 2 things' }).click();
		await expect(page.getByRole('alert')).toContainText('front-left body plug.accessMin');
		await plug.getByLabel('minutes to reach, min', { exact: true }).fill('12');
		await page.getByLabel('How do you know?').fill('seen at the vehicle');
		await page.getByRole('button', { name: 'Keep 2 things' }).click();
		await expect(thread).toContainText('Description of the vehicle corrected');
		await page.reload();
		await expect(plug.getByLabel('where', { exact: true })).toHaveValue('behind the headlamp');
		await goTo(page, 'Measure');
		await page.getByRole('link', { name: /Halve the harness/ }).click();
		await expect(page.getByText('12 min to reach').first()).toBeVisible();
	});

	await test.step('what the sensor is, is told first', async () => {
		await goTo(page, 'Measure');
		await expect(page.getByText('Which sensor is it?')).toBeVisible();
		await put(page, 'sensor-identified', {
			position: 'front-left',
			family: 'passive',
			answers: {},
			probability: 1
		});
	});

	await test.step('what is only usual is said so where it counts, and a press opens its field', async () => {
		const atTheModule = async () => {
			await goTo(page, 'Measure');
			const chosen = page.locator('#now');
			await expect(chosen).toBeVisible();
			const coil = 'Coil through the harness';
			if (!(await chosen.textContent())?.includes(coil))
				await page.getByRole('button', { name: new RegExp(`^${coil}`) }).click();
			await expect(chosen).toContainText(coil);
		};
		await atTheModule();
		await page.getByRole('link', { name: 'usually; not known for this one' }).click();
		const minutes = page.locator('input:focus');
		await expect(minutes).toHaveAttribute('id', 'field:modules.brake.accessMin');
		await minutes.fill('18');
		await page.getByLabel('How do you know?').fill('timed');
		await page.getByRole('button', { name: 'Keep one thing' }).click();
		await expect(thread.getByText('timed')).toBeVisible();
		// A pin that nobody has told is not called by a name of ours: it is asked for.
		await atTheModule();
		await page.getByRole('link', { name: 'not told yet' }).click();
		await page.locator('input:focus').fill('23');
		await page.getByLabel('How do you know?').fill('counted at the plug');
		await page.getByRole('button', { name: 'Keep one thing' }).click();
		await expect(thread.getByText('counted at the plug')).toBeVisible();
		await atTheModule();
		await expect(page.getByRole('region', { name: /^Coil through/ })).toContainText('brake.23');
	});

	await test.step('live data and captures of other tools name the link', async () => {
		await goTo(page, 'Watch');
		await page.getByLabel('File of live data').setInputFiles({
			name: 'drive.csv',
			mimeType: 'text/csv',
			buffer: driveOf(['t', 'W1', 'W2', 'W3', 'W4'], 0)
		});
		await expect(page.getByText('“W1” moves like a wheel')).toHaveCount(0);
		await expect(page.getByText('“W2” moves like a wheel')).toBeVisible();
		for (const [column, wheel] of [
			['W1', 'front left wheel'],
			['W2', 'front right wheel'],
			['W3', 'rear left wheel'],
			['W4', 'rear right wheel']
		] as const)
			await page.getByLabel(`What ${column} is`).selectOption(wheel);
		await page.getByRole('button', { name: 'Read it so' }).click();
		await expect(page.getByText(/Front left .*(stays at|not available|zero)/i).first()).toBeVisible();
		await page.getByRole('button', { name: 'Put it on the thread' }).click();
		await expect(page.getByRole('heading', { name: 'drive.csv' })).toBeVisible();

		for (const [place, channels] of [
			['at the sensor', { front_left: coil(1), front_right: coil(2) }],
			['at the module', { front_left: nothing(3), front_right: coil(4) }]
		] as const) {
			await goTo(page, 'Measure');
			await page
				.getByRole('navigation', { name: 'At the bench' })
				.getByRole('link', { name: 'Oscilloscope' })
				.click();
			await page.getByLabel('File of a capture').setInputFiles({
				name: `${place}.csv`,
				mimeType: 'text/csv',
				buffer: Buffer.from(writeCapture(captureOf(RATE_HZ, channels)))
			});
			await page.getByText(place, { exact: true }).last().click();
			await page.getByRole('button', { name: 'Keep it on the case' }).click();
			await expect(page.getByRole('heading', { name: 'Capture', exact: true })).toBeVisible();
		}
		await goTo(page, 'Reason');
		const left = page.locator('section', { has: page.locator('#left') });
		await expect(left).toContainText(/front left[^.]*lead|lead[^.]*front left/i);
	});

	await test.step('mended, cleared and read again with the other tool', async () => {
		await writeRepair(page, 'Lead to the sensor renewed', 'front-left');
		await goTo(page, 'Prove');
		await page.getByRole('button', { name: 'I cleared all 8 modules with it' }).click();
		await expect(thread).toContainText('Cleared in 8 modules with grey handheld');
		await page.getByRole('button', { name: 'I did it, the vehicle cannot tell' }).click();
		await expect(page.getByText('Key cycle saved, by your word.')).toBeVisible();
		for (const lamp of ['anti-lock', 'stability'])
			await page
				.getByRole('radiogroup', { name: `${lamp} lamp at key-on` })
				.getByText('lit and went out')
				.click();
		await page.getByRole('button', { name: 'Save what the lamps did' }).click();
		await expect(thread).toContainText('all lit and went out');
		await page.getByLabel('Distance, km').fill('12');
		await page.getByLabel('Top speed, km/h').fill('80');
		await page.getByRole('button', { name: 'Save the drive' }).click();
		await expect(thread).toContainText('Proving drive, 12 km');
		const again = async (testsRan: boolean) => {
			await page.getByRole('link', { name: 'Read with another tool' }).click();
			await expect(page.getByLabel('Read with')).toHaveValue('grey handheld');
			await page.getByRole('button', { name: 'All were asked and had no codes' }).click();
			if (testsRan) await page.getByLabel(/tests of its codes have run/).check();
			await page.getByRole('button', { name: 'Save the reading' }).click();
			await expect(page.getByRole('heading', { level: 1 })).toHaveText('No codes');
			await goTo(page, 'Prove');
		};
		// A reading that does not say whether the tests ran proves nothing.
		await again(false);
		await expect(verdictOf(page, 'C0035-13', 'Brake control')).toHaveText(
			'Cleared, but its test has not run'
		);
		await again(true);
		// It was seen in live data: there it must be seen to be gone, by the same columns in another order.
		await expect(verdictOf(page, 'C0035-13', 'Brake control')).toHaveText('Quiet, but not all is shown');
		await goTo(page, 'Watch');
		await page.getByLabel('File of live data').setInputFiles({
			name: 'after.csv',
			mimeType: 'text/csv',
			buffer: driveOf(['W4', 'W3', 't', 'W2', 'W1'], 1)
		});
		await expect(page.getByText('Its columns are taken as somebody here told before.')).toBeVisible();
		await expect(page.getByText(/All 4 wheels agree/)).toBeVisible();
		await page.getByRole('button', { name: 'Put it on the thread' }).click();
		await expect(page.getByRole('heading', { name: 'after.csv' })).toBeVisible();
		await goTo(page, 'Prove');
		await expect(verdictOf(page, 'C0035-13', 'Brake control')).toHaveText('Proven clear');
	});

	await test.step('every mark says on whose word it stands', async () => {
		const code = page.getByRole('article', { name: 'C0035-13 in Brake control' });
		await expect(code).toContainText('With grey handheld, on the word of Ana.');
		await goTo(page, 'Hand over');
		await expect(page.getByRole('heading', { level: 1 })).toHaveText('Proven clear');
	});
});

test('a three-axle trailer and a motorcycle are opened and worked like any other', async ({ as }) => {
	const page = await as('marit');
	for (const [kind, words, wheel, corner, code] of [
		['Trailer', 'Timber trailer', 'axle 3 right', 'axle3 right', 'C1C16-13'],
		['Motorcycle', 'Blue touring machine', 'rear wheel', 'rear wheel', 'C1C18-13']
	] as const) {
		await page.goto('/cases/new');
		await page.getByText(kind, { exact: true }).click();
		await page.getByLabel('What is it, in words?').fill(words);
		await page.getByRole('button', { name: 'Open the case' }).click();
		await expect(page.getByRole('heading', { name: 'Complaint' })).toBeVisible();
		await goTo(page, 'Measure');
		await expect(page.getByRole('link', { name: wheel })).toBeVisible();
		await goTo(page, 'Read');
		await page.getByRole('link', { name: 'Read with another tool' }).click();
		await page.getByLabel('Read with').fill('handheld');
		const reader = kind === 'Trailer' ? 'Trailer brake control' : 'Brake control';
		await page.getByLabel(`${reader}: what it said`).selectOption('codes');
		await page.getByLabel(`Codes of ${reader}`).fill(code);
		await page.getByRole('button', { name: 'All the others were asked and had no codes' }).click();
		await page.getByRole('button', { name: 'Save the reading' }).click();
		await expect(page.getByRole('heading', { level: 1 })).toHaveText('1 code in 1 module');
		// A maker's own code points nowhere until somebody says what it means.
		await goTo(page, 'Reason');
		await page.getByRole('link', { name: 'Write down what its maker says of it' }).click();
		await page.getByLabel('Called').fill(`${wheel} sensor circuit`);
		await page.getByLabel('Circuit').selectOption('wheel-speed');
		await page.getByLabel('Corner').selectOption({ label: corner });
		await page.getByLabel(/Why/).fill('From the maker’s list.');
		await page.getByRole('button', { name: /Save/ }).click();
		await expect(page.getByRole('heading', { level: 1 })).toContainText(`${wheel} sensor circuit`);
		await page.goBack();
		await page.goBack();
		await page.reload();
		await expect(page.getByRole('button', { name: 'Start this step' })).toBeVisible();
		await expect(page.locator('section', { has: page.locator('#left') })).toContainText(wheel);
	}
});

test('a lead passes a description on as a file and brings one in; a bad one is refused whole', async ({
	as
}) => {
	const page = await as('marit');
	await page.goto('/library/vehicles');
	await accessible(page);
	const file = await (await page.request.get('/library/vehicles/ottaro-pip/file')).json();
	const bringIn = async (name: string, text: string) => {
		await page
			.getByLabel('Description of a vehicle')
			.setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(text) });
		await page.getByRole('button', { name: 'Bring it in' }).click();
	};
	const refused = page.getByRole('alert');
	await bringIn('half.json', JSON.stringify(file).slice(0, 900));
	await expect(refused).toContainText('half.json');
	await expect(refused).toContainText('no JSON');
	await bringIn('empty.json', ' ');
	await expect(refused).toContainText('empty.json');
	await bringIn(
		'odd.json',
		JSON.stringify({ ...file, wheels: [{ ...file.wheels[0], circumferenceM: 1950 }] })
	);
	await expect(refused).toContainText('wheels.front-left.circumferenceM');
	await bringIn('nameless.json', JSON.stringify({ wheels: [{ position: 'front-left' }] }));
	await expect(refused).toContainText('give it one');
	await expect(page.getByRole('listitem').filter({ hasText: 'Pip' })).toContainText('comes with Jaldi');
	await bringIn('night.json', JSON.stringify({ ...file, id: 'night-shuttle', model: 'night shuttle' }));
	await expect(page.getByText('is in, version 1; nothing of it is assumed.')).toBeVisible();
	await expect(page.getByRole('listitem').filter({ hasText: 'night shuttle' })).toContainText('version 1');
});

test('a lead keeps a description in order: drawn, corrected, undone, compared and taken back', async ({
	page,
	as
}) => {
	const lead = await as('marit');
	await lead.goto('/library/vehicles');
	await lead.getByRole('link', { name: 'Velmora Skiff' }).click();
	await expect(lead.getByRole('img', { name: /^Modules, segments/ })).toContainText('Brake control');
	await lead.getByRole('link', { name: 'rear right' }).click();
	await expect(lead.getByRole('img', { name: 'Wires of the sensor at the rear right' })).toContainText(
		'rear right sensor'
	);
	await accessible(lead);
	await lead
		.locator('summary')
		.filter({ hasText: /^\s*Wheels/ })
		.click();
	const teeth = lead.getByLabel('teeth of its ring').first();
	const before = await teeth.inputValue();
	await teeth.fill('51');
	await lead.getByRole('button', { name: 'Undo' }).click();
	await expect(teeth).toHaveValue(before);
	await teeth.fill('many');
	await lead.getByLabel('How do you know?').fill('counted on the bench');
	await lead.getByRole('button', { name: 'Keep one thing' }).click();
	await expect(lead.getByRole('alert')).toContainText('ringTeeth');
	await teeth.fill('51');
	await lead.getByRole('button', { name: 'Keep one thing' }).click();
	await expect(lead.getByRole('listitem').filter({ hasText: 'counted on the bench' })).toContainText(
		'stands'
	);
	await lead.getByRole('listitem').filter({ hasText: 'comes with Jaldi' }).getByRole('link').click();
	await expect(
		lead.getByRole('heading', { name: '1 thing is said otherwise than in version 1' })
	).toBeVisible();
	await expect(lead.getByRole('listitem').filter({ hasText: 'ringTeeth' })).toContainText('51');
	await lead.getByRole('button', { name: 'Take version 1 up again' }).click();
	await expect(lead.getByText('Kept as version 3.')).toBeVisible();
	await expect(teeth).toHaveValue(before);
	await page.goto(lead.url());
	await expect(page.getByRole('button', { name: /Take version/ })).toHaveCount(0);
	const answer = await page.request.put('/library/vehicles/velmora-skiff', {
		data: { because: '', corrections: [{ path: 'volts', value: 24 }] },
		headers: { origin: new URL(page.url()).origin }
	});
	expect(answer.status()).toBe(403);
});
