import AxeBuilder from '@axe-core/playwright';
import sharp from 'sharp';
import type { Page } from '@playwright/test';
import { benchFault } from '../src/lib/bench/faults/benchFault';
import { writeCapture } from '../src/lib/core/scope/captureRows';
import { captureOf, makeSignal } from '../src/lib/core/scope/signals.fixture';
import { expect, goTo, openCase, scan, test } from './bay';

const bench = (page: Page, name: string) =>
	page.getByRole('navigation', { name: 'At the bench' }).getByRole('link', { name }).click();
const wheel = async (page: Page, name: string) => {
	await page.getByRole('navigation', { name: 'Wheel' }).getByRole('link', { name }).click();
	await expect(page).toHaveURL(new RegExp(`at=${name.replace(' ', '-')}`));
};
const pick = (page: Page, measurement: string) =>
	page.getByRole('button', { name: new RegExp(`^${measurement}`) }).click();
const accessible = async (page: Page) =>
	expect(
		(await new AxeBuilder({ page }).analyze()).violations.map(({ id, nodes }) => [id, nodes[0]?.html])
	).toEqual([]);

test('a meter reading is judged at once, from the meter and by hand, and says what it proves', async ({
	page,
	bay
}) => {
	const { link, panel } = await bay(benchFault('lead-open', 'rear-left'));
	await openCase(page, 'metered bus', link, panel);
	await scan(page);
	await goTo(page, 'Measure');
	await expect(page.getByRole('heading', { name: 'Rear left: nothing measured yet' })).toBeVisible();
	await expect(page.getByText('Coil resistance misleads.')).toBeVisible();
	await accessible(page);

	// The mate first, by the meter that is connected.
	await wheel(page, 'rear right');
	await pick(page, 'Feed at the plugged sensor');
	await page.keyboard.press('r');
	await expect(page.getByText('In its window.')).toBeVisible();
	await page.getByLabel(/keep as the shop’s reference/).check();
	await page.getByRole('button', { name: 'Save' }).click();
	await expect(page.getByRole('heading', { name: 'Rear right: one reading, as it should be' })).toBeVisible();

	await wheel(page, 'rear left');
	await pick(page, 'Feed at the plugged sensor');
	await expect(page.getByText('from its mate on this vehicle')).toBeVisible();
	const reading = page.getByLabel('Reading');
	await reading.fill('nonsense');
	await expect(page.getByRole('button', { name: 'Save' })).toBeDisabled();
	await reading.fill('0,02');
	await expect(page.getByText('Out of its window.')).toBeVisible();
	await reading.press('Enter');
	await expect(
		page.getByRole('heading', { name: 'Rear left: one reading, out of its window' })
	).toBeVisible();
	await expect(page.getByRole('list', { name: /harness, suspect/ })).toBeVisible();
	await expect(page.getByRole('complementary', { name: 'Thread' })).toContainText('rear left: 20 mV');

	// The next vehicle of the type is measured against what was kept.
	const other = await bay();
	await openCase(page, 'second bus', other.link, other.panel);
	await goTo(page, 'Measure');
	await pick(page, 'Feed at the plugged sensor');
	await expect(page.getByText(/from (one|\d+) good readings? on this type here/)).toBeVisible();
});

test('a sensor is identified by a short round, and what would harm it is said', async ({ page, bay }) => {
	const { link, panel } = await bay();
	await openCase(page, 'unknown bus', link, panel);
	await goTo(page, 'Measure');
	await page.getByRole('button', { name: 'Make sure' }).click();
	const round = page.getByRole('region', { name: 'Which sensor is it?' });
	await round.getByRole('button', { name: 'A wave that grows with speed' }).click();
	await expect(round.getByText('It is passive coil')).toBeVisible();
	await round.getByRole('button', { name: 'Save for all wheels' }).click();
	await expect(page.getByText('as identified here')).toBeVisible();
	await expect(page.getByRole('button', { name: /^Coil through the harness/ })).toBeVisible();
	await expect(page.getByText('A lamp loads a coil’s input to nothing')).toBeVisible();
});

test('a capture shows the gap of a ring, its place on the map, and is laid over another', async ({
	page,
	bay
}) => {
	const stand = await bay(benchFault('ring-tooth-missing', 'rear-left', 0));
	await openCase(page, 'captured bus', stand.link, stand.panel);
	stand.host.act({ do: 'in-gear', kmh: 15 });
	await goTo(page, 'Measure');
	await wheel(page, 'rear left');
	await bench(page, 'Oscilloscope');
	await expect(page.getByText('46 teeth are one turn')).toBeVisible();
	await page.keyboard.press('c');
	await expect(page.getByText('rear left: a gap in the ring.').first()).toBeVisible();
	await expect(page.getByText(/a tooth of 46 is missing/)).toBeVisible();
	await expect(page.getByRole('img', { name: /^Ring of 46 teeth; look at \d+°$/ })).toBeVisible();
	await expect(page.getByRole('img', { name: 'Ring of 46 teeth, every one seen' })).toBeVisible();
	await page.keyboard.press('r');
	await expect(page.getByText('between the upright ones')).toBeVisible();
	await page.getByRole('button', { name: 'Show it' }).click();
	await page.getByRole('combobox', { name: 'Picture' }).selectOption('low-pass');
	await expect(page.getByText('What was found comes from the samples')).toBeVisible();
	const csv = page.waitForEvent('download');
	await page.getByRole('link', { name: 'CSV' }).click();
	expect((await csv).suggestedFilename()).toMatch(/^capture-.*\.csv$/);
	await accessible(page);

	await page.getByRole('link', { name: 'Oscilloscope' }).click();
	await page.getByRole('button', { name: /Take a capture/ }).click();
	await expect(page.getByText('2 of 2')).toBeVisible();
	await page.getByLabel('Lay over').selectOption({ index: 1 });
	await page.keyboard.press('[');
	await expect(page.getByText('1 of 2')).toBeVisible();
	// What the signal got through is proven; what it points at is suspect.
	await goTo(page, 'Measure');
	await expect(page.getByRole('list', { name: /ring, suspect.*harness, proven good/ })).toBeVisible();
});

test('a sensor that speaks says which way it turns, and that it stands; standing, it accuses nothing', async ({
	page,
	estate
}) => {
	const stand = await estate();
	await openCase(page, 'speaking sensors', stand.link, stand.panel, 'norvane-lichen');
	await goTo(page, 'Measure');
	await wheel(page, 'rear left');
	await bench(page, 'Oscilloscope');
	await page.getByRole('button', { name: /Take a capture/ }).click();
	await expect(page.getByText('its sensor says so itself').first()).toBeVisible();
	await expect(page.getByText('It says that no tooth passes.').first()).toBeVisible();
	await goTo(page, 'Measure');
	await expect(page.getByRole('list', { name: /suspect/ })).toHaveCount(0);

	stand.host.act({ do: 'in-gear', kmh: 15 });
	await bench(page, 'Oscilloscope');
	await page.getByRole('button', { name: /Take a capture/ }).click();
	await expect(page.getByText('It says that it turns forwards.').first()).toBeVisible();
	await expect(page.getByText(/Strength of the field: \d of 7\./).first()).toBeVisible();
	await accessible(page);
});

test('a capture of another instrument is brought in, a wrong file is refused and nothing lost', async ({
	page,
	bay
}) => {
	const { link } = await bay();
	await openCase(page, 'imported bus', link);
	await goTo(page, 'Measure');
	await bench(page, 'Oscilloscope');
	await expect(page.getByText('No oscilloscope is connected here')).toBeVisible();
	const chooser = page.getByLabel('File of a capture');
	const csv = (text: string, name: string) => ({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });
	await chooser.setInputFiles(csv('time_s,rear_left_v\nno,numbers\n', 'wrong.csv'));
	await expect(page.getByRole('alert')).toContainText('wrong.csv cannot be taken in. Line 2');

	const made = (missing: number[], seed: number) =>
		makeSignal({
			kind: 'active',
			rateHz: 20_000,
			durationS: 1,
			teeth: 46,
			hz: 160,
			missing,
			snrDb: 30,
			seed
		});
	await chooser.setInputFiles(
		csv(writeCapture(captureOf(20_000, { rear_left: made([7], 1), ch2: made([], 2) })), 'ring.csv')
	);
	await expect(page.getByText('rear left: a gap in the ring.')).toBeVisible();
	await page.getByLabel('ch2').selectOption('rear right');
	await page.getByRole('button', { name: 'Keep it on the case' }).click();
	await expect(page.getByRole('heading', { name: 'Capture', exact: true })).toBeVisible();
	await expect(page.getByText('1 of 1')).toBeVisible();
	await expect(page.getByRole('columnheader', { name: 'rear left' })).toBeVisible();
});

test('a generator in place of the sensor proves the harness, and the code it sets is marked as ours', async ({
	page,
	bay
}) => {
	const stand = await bay();
	await openCase(page, 'substituted bus', stand.link, stand.panel);
	await scan(page);
	await goTo(page, 'Measure');
	await wheel(page, 'front right');
	await bench(page, 'Substitute a signal');
	await page.getByLabel('Current levels from a generator').check();
	// 46 teeth, 2.13 m: 20 km/h are 120 Hz.
	await page.getByLabel('Speed wanted').fill('20');
	await expect(page.getByText('120 Hz')).toBeVisible();
	// Whoever takes a while to clip the generator on sets the code.
	stand.host.vehicle.plug('front-right', false);
	stand.host.vehicle.advance(5);
	await page.getByRole('button', { name: 'Open the plug and hold it there' }).click();
	await expect(page.getByRole('button', { name: 'Take it off' })).toBeVisible();
	// As long as it is on, every page says so.
	const standsIn = page.getByText('A signal of ours stands in for the sensor of front right.');
	await expect(standsIn).toBeVisible();
	// An open circuit freezes the value until the code is cleared: that is done here, with the signal on.
	stand.host.vehicle.advance(5);
	await page.getByRole('button', { name: /Watch the live value/ }).click();
	await expect(page.getByText('The module shows no value')).toBeVisible();
	await page.getByRole('button', { name: /^Clear brake control with the signal on/ }).click();
	await page.getByRole('button', { name: 'Clear it and watch' }).click();
	await expect(page.getByText('The fault is at the wheel: sensor, gap or ring.')).toBeVisible();
	await accessible(page);
	await page.getByRole('button', { name: 'Save what it proved' }).click();
	await expect(page.getByRole('complementary', { name: 'Thread' })).toContainText('The module follows');
	await page.getByRole('button', { name: 'Take it off' }).click();
	await expect(page.getByRole('button', { name: 'Open the plug' })).toBeVisible();
	await expect(standsIn).toHaveCount(0);
	// Plugging in takes a while: it sets the code once more. Then the modules need a moment before they answer.
	stand.host.vehicle.plug('front-right', false);
	stand.host.vehicle.advance(5);
	stand.host.vehicle.plug('front-right', true);
	stand.host.vehicle.advance(5);
	await scan(page);
	await expect(page.getByText('Made by us').first()).toBeVisible();
	// It is not chased: what is asked for next is to clear it.
	await expect(page.getByText('Find the fault')).toHaveCount(0);
	// What should not count is withdrawn with a reason, and stays on the thread, struck through.
	const thread = page.getByRole('complementary', { name: 'Thread' });
	const proved = thread.getByRole('listitem').filter({ hasText: 'The module follows' });
	await proved.getByRole('button').first().click();
	await expect(proved.getByRole('button', { name: 'Withdraw it' })).toBeDisabled();
	await proved.getByLabel('It should not count, because').fill('the clip was on the mate’s plug');
	await proved.getByRole('button', { name: 'Withdraw it' }).click();
	await expect(thread.getByText('Withdrawn: ')).toBeVisible();
	await expect(thread).toContainText('the clip was on the mate’s plug');
	await expect(thread.getByRole('listitem').filter({ hasText: 'The module follows' })).toHaveClass(
		/line-through/
	);
	await expect(page.getByText('Made by us').first()).toBeVisible();
});

test('halving ends at the stretch that is at fault, and goes on after a reload', async ({ page, bay }) => {
	const { link, panel } = await bay(benchFault('lead-open', 'rear-left'));
	await openCase(page, 'halved bus', link, panel);
	await goTo(page, 'Measure');
	await wheel(page, 'rear left');
	await bench(page, 'Halve the harness');
	await page.getByRole('button', { name: 'Set it up' }).click();
	await expect(page.getByRole('button', { name: 'Put everything back' })).toBeVisible();
	const good = page.getByRole('button', { name: 'voltage as at the fed end' });
	const heading = page.getByRole('heading', { name: /^Measure at / });
	await expect(heading).toHaveText('Measure at plug X21, module side');
	await page.keyboard.press('r');
	await expect(page.getByText(/1\d\.\d V: voltage as at the fed end/)).toBeVisible();
	await good.click();
	await expect(heading).toHaveText('Measure at plug X21, wheel side');
	await page.reload();
	await expect(heading).toHaveText('Measure at plug X21, wheel side');
	await page.getByRole('button', { name: 'Set it up' }).click();
	await expect(page.getByRole('button', { name: 'Put everything back' })).toBeVisible();
	await page.keyboard.press('r');
	await good.click();
	await expect(heading).toHaveText('Measure at wire at the sensor’s plug');
	await page.keyboard.press('r');
	await page.getByRole('button', { name: 'no voltage' }).click();
	await expect(page.getByRole('heading', { level: 1 })).toContainText(
		'The fault is in the white wire between plug X21, wheel side and wire at the sensor’s plug.'
	);
	await accessible(page);
});

test('what was looked at is kept with a photo that is drawn anew', async ({ page, bay }) => {
	const { link } = await bay();
	await openCase(page, 'looked-at bus', link);
	await goTo(page, 'Measure');
	await bench(page, 'Look');
	await page.getByRole('button', { name: /^Ring, tooth by tooth/ }).click();
	const photo = await sharp({ create: { width: 3000, height: 2000, channels: 3, background: '#785' } })
		.withExif({ IFD0: { Artist: 'somebody with a camera' } })
		.jpeg()
		.toBuffer();
	const box = page.getByLabel('Add photos');
	await box.setInputFiles({ name: 'no-photo.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('nothing') });
	await expect(page.getByRole('alert')).toContainText('This is no photo that can be read');
	await box.setInputFiles({ name: 'ring.jpg', mimeType: 'image/jpeg', buffer: photo });
	await expect(page.getByAltText('to be kept with this look')).toBeVisible();
	await page.getByLabel('packed with dirt').check();
	await accessible(page);
	await page.getByRole('button', { name: 'Bad' }).click();
	await expect(page.getByRole('heading', { name: /ring, tooth by tooth, packed with dirt/ })).toBeVisible();
	const source = await page.getByAltText('Ring, tooth by tooth, as it was seen').getAttribute('src');
	const kept = await page.request.get(source ?? '');
	const told = await sharp(await kept.body()).metadata();
	expect([told.format, told.width, told.height, told.exif]).toEqual(['jpeg', 1600, 1067, undefined]);
});

test('sensors change places: the fault goes with the part, and the reasoning follows', async ({
	page,
	bay
}) => {
	const { link, panel } = await bay(benchFault('sensor-dead', 'rear-left'));
	await openCase(page, 'swapped bus', link, panel);
	await scan(page);
	await goTo(page, 'Measure');
	await wheel(page, 'rear left');
	await bench(page, 'Swap');
	await expect(
		page.getByRole('heading', { name: 'Does the fault of rear left go with a part?' })
	).toBeVisible();
	const read = page.getByRole('region', { name: 'What was read there' });
	await expect(read).toContainText('fails now');
	await accessible(page);
	await page.getByRole('button', { name: 'They are swapped' }).click();
	await expect(page.getByRole('heading', { name: /^Swapped at rear left/ })).toBeVisible();
	// Nothing is signed, and nothing proven, with another wheel’s part in place.
	await goTo(page, 'Prove');
	await expect(page.getByText(/still in place: rear left, rear right/).first()).toBeVisible();
	await page.goBack();
	const back = page.getByRole('button', { name: /^Everything is back/ });
	await expect(back).toBeDisabled();
	await page.getByText('It went with the part, to rear right').click();
	await accessible(page);
	await back.click();
	const thread = page.getByRole('complementary', { name: 'Thread' });
	await expect(thread).toContainText('the fault went with the part');
	await expect(page.getByRole('button', { name: 'They are swapped' })).toBeVisible();
	await goTo(page, 'Reason');
	const left = page.locator('section', { has: page.locator('#left') });
	await expect(left).toContainText(/rear left/i);
	await expect(left).toContainText(/sensor/);
});
