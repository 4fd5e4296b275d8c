import type { Page } from '@playwright/test';
import { benchFault } from '../src/lib/bench/faults/benchFault';
import type { PayloadOf } from '../src/lib/case/entries/entry';
import { accessible, expect, goTo, openCase, put, scan, test, VIN } from './bay';

const step = (test_: string, place: string, seen: Record<string, string>): PayloadOf<'test-step'> => ({
	test: test_,
	place,
	name: test_,
	station: 'measure',
	from: 'own',
	how: 'done',
	seen,
	because: '',
	minutes: 4
});
const left = (page: Page) => page.getByRole('region', { name: /What is left/ });
const next = (page: Page) => page.locator('#next-test');

test('a common cause: two silent modules lead to the splice they share, their codes are not chased, and it is mended', async ({
	page,
	bay
}) => {
	const { link, panel } = await bay(benchFault('splice-corroded', 'S7'));
	await openCase(page, 'ferry side', link, panel);
	await scan(page);
	await goTo(page, 'Reason');
	await expect(page.getByText(/^Do not chase these \d codes/)).toBeVisible();
	await page.getByText(/^Do not chase/).click();
	await expect(page.getByText('steering angle is silent').first()).toBeVisible();
	await expect(page.getByText('One fault alone explains all that was read.')).toBeVisible();
	await expect(left(page)).toContainText('splice S7');
	await accessible(page);

	// The test that is offered is begun, its timer runs through a reload, and it is told what was seen.
	await put(page, 'test-step', step('fuse', 'F14', { 'fuse@F14': 'whole' }));
	await put(page, 'test-step', step('splice', 'S7', { 'splice@S7': 'corroded' }));
	await page.reload();
	await expect(page.getByRole('heading', { name: /^Proven: splice S7/ })).toBeVisible();
	await expect(page.getByRole('button', { name: /^Splice S7, supply: proven bad/ })).toBeVisible();
	await next(page).getByRole('link', { name: 'Take it to Mend' }).click();
	await expect(page.getByRole('textbox', { name: 'Done', exact: true })).toHaveValue('Renew the splice');
	await page.getByRole('button', { name: 'Save the repair' }).click();
	await expect(page.getByText('One repair is written down')).toBeVisible();
	await goTo(page, 'Reason');
	await expect(page.getByRole('button', { name: /^Splice S7, supply: proven bad/ })).toHaveCount(0);
});

test('a step is begun, runs through a reload, is told by keyboard, and moves the grid', async ({
	page,
	bay
}) => {
	const { link, panel } = await bay(benchFault('lead-open', 'rear-left'));
	await openCase(page, 'open lead', link, panel);
	await scan(page);
	await goTo(page, 'Reason');
	const grid = page.getByRole('table', { name: /Proof grid/ });
	await expect(grid.getByRole('button', { name: /^Rear left, lead: suspect/ })).toBeVisible();
	await next(page).getByRole('button', { name: 'Start this step' }).focus();
	await page.keyboard.press('Enter');
	await expect(page.getByRole('timer')).toBeVisible();
	await page.reload();
	await expect(page.getByRole('timer')).toBeVisible();
	await page.getByLabel(/What else there is to say/).fill('no lift is free');
	await page.reload();
	await expect(page.getByLabel(/What else there is to say/)).toHaveValue('no lift is free');
	const name = await next(page).locator('strong').first().innerText();
	await page.getByRole('button', { name: 'Cannot be done here' }).click();
	await expect(page.getByRole('timer')).toHaveCount(0);
	await expect(page.getByRole('region', { name: /Worksheet: 1 step/ })).toContainText('no lift is free');
	// It is obeyed: something else is offered.
	await expect(next(page)).not.toContainText(name);

	await grid.getByRole('button', { name: /^Rear left, lead: suspect/ }).click();
	await expect(page.getByRole('heading', { name: /^Rear left, lead: suspect/ })).toBeVisible();
	await expect(page.getByText(/What moved/)).toBeVisible();
	await expect(page.getByRole('row', { name: /for .* ×/ }).first()).toBeVisible();
});

test('from the suggestion to the measurement in one tap; the reading ends the step and brings the next', async ({
	page,
	bay
}) => {
	const { link, panel } = await bay(benchFault('sensor-dead', 'rear-left'));
	await openCase(page, 'dead sensor', link, panel);
	await put(page, 'complaint', { words: 'Lamp on', symptoms: [], conditions: [] });
	await put(page, 'vehicle-checked', { vin: VIN, checkDigitFits: true, odometerKm: 50_000 });
	await scan(page);
	await goTo(page, 'Reason');
	await next(page).getByRole('button', { name: 'Start this step' }).click();
	await expect(page.getByRole('timer')).toBeVisible();
	const strip = page.getByRole('region', { name: 'Next step' });
	await expect(strip).toContainText('Meter: across the plugged sensor’s two pins');
	await strip.getByRole('button', { name: /Go to it/ }).click();
	await expect(page).toHaveURL(/measure\?at=rear-left&test=/);
	await expect(page.getByRole('heading', { name: /across the plugged sensor/i }).first()).toBeVisible();
	await page.getByRole('button', { name: /Read the meter/ }).click();
	await expect(page.getByText(/of its window\./)).toBeVisible();
	await page.getByRole('button', { name: 'Save' }).click();
	await expect(strip).not.toContainText('across the plugged sensor');
	await expect(strip.getByRole('button', { name: /Go to it/ })).toBeVisible();
	await goTo(page, 'Reason');
	// The step has ended by itself, with its minutes.
	await expect(page.getByRole('timer')).toHaveCount(0);
	await expect(page.getByRole('region', { name: /Worksheet: 1 step/ })).toBeVisible();
	// A sheet that nobody chose a wheel for opens at the suspected one.
	await page.goto(page.url().replace(/reason.*/, 'mend/fit?sheet=sensor'));
	await expect(page.getByRole('combobox', { name: /^Where/ })).toHaveValue('rear-left');
});

test('two faults at once are found where one does not explain all', async ({ page, bay }) => {
	const { link, panel } = await bay(
		benchFault('lead-open', 'rear-left'),
		benchFault('lead-short-to-ground', 'front-right')
	);
	await openCase(page, 'two at once', link, panel);
	await scan(page);
	await goTo(page, 'Reason');
	await expect(
		left(page)
			.getByText(/; and /)
			.first()
	).toBeVisible();
	await expect(page.getByText('No single fault explains all that was read; two do.')).toBeVisible();
	const grid = page.getByRole('table', { name: /Proof grid/ });
	await expect(grid.getByRole('button', { name: /^Rear left, lead: suspect/ })).toBeVisible();
	await expect(grid.getByRole('button', { name: /^Front right, lead: (suspect|proven bad)/ })).toBeVisible();
});

test('readings that cannot both be right are named, and repeating one settles it', async ({ page, bay }) => {
	const { link, panel } = await bay(benchFault('lead-open', 'rear-left'));
	await openCase(page, 'contradicted', link, panel);
	await scan(page);
	await put(page, 'test-step', step('scope-module', 'rear-left', { 'scope-module@rear-left': 'whole' }));
	await put(page, 'test-step', step('scope-sensor', 'rear-left', { 'scope-sensor@rear-left': 'flat' }));
	await goTo(page, 'Reason');
	await expect(page.getByText('These two readings cannot both be right:')).toBeVisible();
	await put(page, 'test-step', step('scope-module', 'rear-left', { 'scope-module@rear-left': 'flat' }));
	await expect(page.getByText('These two readings cannot both be right:')).toHaveCount(0);
});

test('the thread is replayed: what was known at a moment', async ({ page, bay }) => {
	const { link, panel } = await bay(benchFault('lead-open', 'rear-left'));
	await openCase(page, 'looked back at', link, panel);
	await scan(page);
	await put(page, 'test-step', step('meter:lead-feed', 'rear-left', { 'meter:lead-feed@rear-left': 'high' }));
	await goTo(page, 'Reason');
	await expect(page.getByRole('heading', { level: 1 })).toHaveText(/possible causes left/);
	const now = await page.getByRole('heading', { level: 1 }).innerText();
	const moment = page.getByLabel('Moment on the thread');
	await moment.focus();
	await page.keyboard.press('ArrowLeft');
	await expect(page).toHaveURL(/upto=/);
	await expect(page.getByRole('heading', { name: /^As it was after “Read, all 9 modules/ })).toBeVisible();
	await expect(page.getByRole('heading', { level: 1 })).not.toHaveText(now);
	await expect(page.getByRole('button', { name: 'Start this step' })).toHaveCount(0);
	await page.getByRole('button', { name: 'Back to now' }).click();
	await expect(page.getByRole('heading', { level: 1 })).toHaveText(now);
});

test('a lead sets how sure the shop wants to be; a technician reads it', async ({ page, bay, as }) => {
	const { link, panel } = await bay(benchFault('lead-open', 'rear-left'));
	await openCase(page, 'policy', link, panel);
	await scan(page);
	await goTo(page, 'Reason');
	const section = (of: Page) => of.getByRole('region', { name: /^This shop orders parts/ });
	await expect(section(page)).toBeVisible();
	await expect(section(page).getByRole('slider')).toHaveCount(0);
	const other = await as('marit');
	await other.goto(page.url());
	await section(other).getByRole('slider').fill('100');
	await section(other).getByRole('button', { name: 'Hold to this' }).click();
	await expect(section(other)).toContainText('98 %');
	await page.reload();
	await expect(section(page)).toContainText('prove first');
});

test('a lead changes the library’s minutes; a wrong number is refused and nothing lost', async ({ as }) => {
	const page = await as('marit');
	await page.goto('/library/reasoning');
	const minutes = page.getByLabel('Minutes: Look at the fuse');
	await minutes.fill('nonsense');
	await page.getByRole('button', { name: 'Save these numbers' }).click();
	await expect(page.getByRole('alert')).toContainText('Look at the fuse');
	await expect(minutes).toHaveValue('nonsense');
	await minutes.fill('3,5');
	await page.getByRole('button', { name: 'Save these numbers' }).click();
	await expect(page.getByRole('status')).toContainText('Saved as state');
	await expect(page.getByRole('heading', { level: 1 })).toContainText('this shop’s own');
	const find = page.getByRole('searchbox', { name: 'Find a test, a repair or a fault' });
	await find.fill('fuse look');
	await expect(minutes).toHaveValue('3.5');
	await expect(page.getByRole('heading', { level: 2 })).toHaveCount(2);
	await find.fill('no such thing');
	await expect(page.getByText('Nothing is called so.')).toBeVisible();
	await find.fill('');
	await page.getByRole('button', { name: 'Check it' }).click();
	await expect(page.getByText(/told apart/).first()).toBeVisible();
	await accessible(page);
});

test('two wheels at once: what they share comes first, the plug is looked at, and cleaning it is the repair', async ({
	page,
	bay
}) => {
	const { link, panel } = await bay(benchFault('shared-plug-corroded', 'X20', 0.8));
	await openCase(page, 'both rears', link, panel);
	await scan(page);
	await expect(
		page.getByText('Rear left and rear right fail at once: look first at what they share')
	).toBeVisible();
	await goTo(page, 'Reason');
	await expect(page.getByText(/Look at plug X\d+ \(.+\), \d+ min; then/)).toBeVisible();
	await expect(page.getByText('One fault alone explains all that was read.')).toBeVisible();
	await expect(left(page)).toContainText(/plug X(3|20)/);
	await accessible(page);
	await put(page, 'test-step', step('shared-plug', 'X3', { 'shared-plug@X3': 'clean' }));
	await put(page, 'test-step', step('shared-plug', 'X20', { 'shared-plug@X20': 'corroded' }));
	await page.reload();
	await expect(page.getByText(/Look at plug X/)).toHaveCount(0);
	await expect(page.getByRole('heading', { name: /^Proven: plug X20/ })).toBeVisible();
	await next(page).getByRole('link', { name: 'Take it to Mend' }).click();
	await expect(page.getByRole('textbox', { name: 'Done', exact: true })).toHaveValue(
		'Clean the plug that the wheels share, and lock it home'
	);
	await page.getByRole('button', { name: 'Save the repair' }).click();
	await expect(page.getByText('One repair is written down')).toBeVisible();
});
