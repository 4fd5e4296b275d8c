import type { Page } from '@playwright/test';
import { benchFault } from '../src/lib/bench/faults/benchFault';
import type { BenchHost } from '../src/lib/bench/net/host';
import { flashesOf } from '../src/lib/core/blink/flashesOf';
import { accessible, driveNow, expect, goTo, openCase, put, test, writeRepair } from './bay';

/** Taps the space bar at these seconds, whatever the machine is doing meanwhile. */
const tapAt = (page: Page, flashes: { onS: number; offS: number | null }[]) =>
	page.evaluate((times) => {
		const press = (type: string, seconds: number) => {
			const event = new KeyboardEvent(type, { code: 'Space', key: ' ', bubbles: true, cancelable: true });
			Object.defineProperty(event, 'timeStamp', { value: 100_000 + seconds * 1000 });
			document.body.dispatchEvent(event);
		};
		for (const { onS, offS } of times) {
			press('keydown', onS);
			press('keyup', offS ?? onS + 0.05);
		}
	}, flashes);
/** What eyes at the lamp see, for as long as two showings and more take. */
function lampSeen({ vehicle }: BenchHost, lamp: 'brake' | 'anti-lock', seconds: number) {
	const flashes: { onS: number; offS: number | null }[] = [];
	let lit = vehicle.state.lamps[lamp];
	for (let s = 0; s < seconds; s += 0.02) {
		vehicle.advance(0.02);
		const now = vehicle.state.lamps[lamp];
		if (now && !lit) flashes.push({ onS: s, offS: null });
		lit = now;
	}
	return flashes;
}
const reading = (page: Page) => page.locator('[data-reading]');

test('a trailer lamp is tapped along, read by its table, checked as a lamp and put on the thread', async ({
	page,
	trailer
}) => {
	const { link, panel } = await trailer();
	await openCase(page, 'cattle trailer', link, panel, 'hexley-drover');
	await page.goto(`${page.url().replace(/\/listen.*/, '')}/read`);
	await page.getByRole('link', { name: 'Read a lamp that flashes' }).click();
	await expect(page.getByRole('heading', { name: 'Tap at every flash' })).toBeVisible();
	await expect(page.getByText(/valves do not click at key-on/)).toBeVisible();
	await accessible(page);

	const once = flashesOf([3, 2], 1);
	await tapAt(page, once);
	await expect(reading(page)).toHaveText('3-2');
	await expect(page.getByText(/one more showing/)).toBeVisible();
	await page.getByRole('button', { name: /Start over/ }).click();
	await expect(reading(page)).toHaveText('');

	const twice = flashesOf([3, 2], 2);
	await tapAt(page, twice);
	await expect(reading(page)).toHaveText('3-2');
	await expect(page.getByText('axle 2 left: no signal when it rolls')).toBeVisible();
	await expect(page.getByText(/Seen the same more than once/)).toBeVisible();
	// A slip of the finger is taken back.
	await tapAt(page, [{ onS: 40, offS: null }]);
	await page.getByRole('button', { name: /Take the last back/ }).click();
	await page.getByRole('button', { name: 'Show it as a lamp' }).click();
	await expect(page.getByRole('img', { name: 'Lamp lit' })).toBeVisible();
	await page.getByRole('button', { name: 'Stop' }).click();
	await expect(page.getByRole('img', { name: 'Lamp dark' })).toBeVisible();

	await page.getByRole('button', { name: /Put it on the thread/ }).click();
	await expect(page.getByRole('region', { name: 'Told by a lamp' })).toContainText(
		'3-2 axle 2 left: no signal when it rolls seen 2 times'
	);
	await expect(page.getByRole('button', { name: /^Lamp code 3-2/ })).toBeVisible();
});

test('held for as long as it is lit, and read by a table that is chosen by hand', async ({ page, bay }) => {
	const { link } = await bay();
	await openCase(page, 'old van', link);
	await page.goto(`${page.url().replace(/\/listen.*/, '')}/read/lamp`);
	await page.getByLabel(/hold for as long as it is lit/).check();
	await expect(page.getByRole('heading', { name: 'Hold while it is lit' })).toBeVisible();
	// A long beginning before each showing is no flash.
	const showing = (from: number) => [
		{ onS: from, offS: from + 2.2 },
		...flashesOf([2, 4], 1).map(({ onS, offS }) => ({
			onS: onS + from + 3.2,
			offS: (offS ?? 0) + from + 3.2
		}))
	];
	await tapAt(page, [...showing(0), ...showing(12)]);
	await expect(reading(page)).toHaveText('2-4');
	await expect(page.getByText('No table is chosen: the number alone.')).toBeVisible();
	await page.getByLabel('Table').selectOption('norvane-pedal');
	await expect(page.getByText('front right sensor, no or weak signal')).toBeVisible();
	await page.keyboard.press('x');
	await expect(reading(page)).toHaveText('');
});

test('pedal and bridge by the clock: too short begins the step again, right goes on', async ({
	page,
	trailer
}) => {
	const { link } = await trailer();
	await openCase(page, 'bridged trailer', link, '', 'hexley-drover');
	await page.goto(`${page.url().replace(/\/listen.*/, '')}/read/lamp`);
	await page.getByText('Make it tell, step by step').click();
	const button = page.getByRole('button', { name: /^(Done|Hold|Press) enter/ });
	const press = (type: 'keydown' | 'keyup', seconds: number) =>
		button.evaluate(
			(element, [what, at]) => {
				const event = new KeyboardEvent(what as string, { code: 'Enter', bubbles: true, cancelable: true });
				Object.defineProperty(event, 'timeStamp', { value: performance.now() + 1000 * Number(at) });
				element.dispatchEvent(event);
			},
			[type, seconds] as const
		);
	await press('keydown', 0);
	await expect(button).toHaveText(/Hold/);
	await press('keydown', 0);
	await press('keyup', 0.3);
	await expect(page.getByRole('alert')).toContainText(/Let go after 0\.\d s: hold it for 1\.5 s/);
	await press('keydown', 60);
	await press('keyup', 62);
	await expect(page.getByText('All done.')).toBeVisible();
});

test('a trailer with two faults: read by its lamp, repaired, reset and read again until none is left', async ({
	page,
	trailer
}) => {
	const { host, link, panel } = await trailer(
		benchFault('lead-open', 'axle1-right'),
		benchFault('lead-short-to-ground', 'axle2-left')
	);
	await openCase(page, 'two faults', link, panel, 'hexley-drover');
	await page.goto(`${page.url().replace(/\/listen.*/, '')}/read/lamp`);
	const watch = () => lampSeen(host, 'brake', 25);
	const bridge = (seconds: number) => {
		host.act({ do: 'bridge', closed: true });
		host.vehicle.advance(seconds);
		host.act({ do: 'bridge', closed: false });
	};
	const found: string[] = [];
	for (let i = 0; i < 2; i++) {
		bridge(2);
		await tapAt(page, watch());
		const says = page
			.getByRole('paragraph')
			.filter({ hasText: /^axle \d (left|right): circuit open or shorted$/ });
		await expect(says).toBeVisible();
		const where = (await says.innerText()).split(':')[0] ?? '';
		found.push(where);
		await page.getByRole('button', { name: /Put it on the thread/ }).click();
		await expect(page.getByRole('region', { name: 'Told by a lamp' })).toContainText(where);
		host.act({ do: 'mend', at: where.replace('axle ', 'axle').replace(' ', '-'), repair: 'renew-lead' });
		host.vehicle.advance(3);
		bridge(5);
		host.vehicle.advance(2);
		await page.getByRole('link', { name: 'Read a lamp that flashes' }).click();
		// Nobody taps before there is something to tap on.
		await expect(page.getByRole('heading', { name: 'Tap at every flash' })).toBeVisible();
	}
	expect(found.sort()).toEqual(['axle 1 right', 'axle 2 left']);
	bridge(2);
	await tapAt(page, watch());
	await expect(page.getByRole('paragraph').filter({ hasText: 'no fault is shown' })).toBeVisible();
});

test('an older vehicle from its lamp to its proof: pedal, two codes in turn, repair, pedal, drive, lamp', async ({
	page,
	pickUp
}) => {
	const vehicle = await pickUp(
		benchFault('lead-open', 'front-right'),
		benchFault('lead-short-to-ground', 'rear-left')
	);
	const { host, link, panel } = vehicle;
	const foot = (pressed: boolean, seconds: number) => {
		host.act({ do: 'pedal', pressed });
		host.vehicle.advance(seconds);
	};
	const press = (times: number) => {
		for (let i = 0; i < times; i++) {
			foot(true, 0.2);
			foot(false, 0.2);
		}
		host.vehicle.advance(2);
	};
	const key = (to: 'off' | 'on') => {
		host.act({ do: 'key', to });
		host.vehicle.advance(to === 'off' ? 2 : 0.5);
	};
	const askIt = () => {
		key('off');
		foot(true, 0.1);
		key('on');
		foot(true, 3);
		foot(false, 0.5);
		press(3);
	};
	await openCase(page, 'old pick-up', link, panel, 'norvane-wold');
	await put(page, 'complaint', { words: 'The lamp stays on', symptoms: [], conditions: [] });
	await put(page, 'vehicle-checked', { vin: '11111111111111111', checkDigitFits: true, odometerKm: 240_000 });
	await page.reload();
	await expect(page.getByText('Read its codes by the lamp')).toBeVisible();
	await page.keyboard.press('.');
	await expect(page.getByRole('heading', { name: 'Tap at every flash' })).toBeVisible();
	await page.getByText('Make it tell, step by step').click();
	await expect(page.getByText('Press the pedal three times')).toBeVisible();

	askIt();
	await tapAt(page, lampSeen(host, 'anti-lock', 40));
	await expect(reading(page)).toHaveText('2-3 3-1');
	await expect(page.getByText('front right sensor, open or shorted')).toBeVisible();
	await expect(page.getByText('rear left sensor, open or shorted')).toBeVisible();
	await page.getByRole('button', { name: /Put them on the thread/ }).click();
	const told = page.getByRole('region', { name: 'Told by a lamp' });
	await expect(told).toContainText('2-3');
	await expect(told).toContainText('3-1');
	// Two wheels at once: what is done next is reasoned from both.
	await expect(page.getByText(/front right: .+; and rear left: /)).toBeVisible();
	await goTo(page, 'Reason');
	await expect(page.getByRole('heading', { level: 1 })).toHaveText(/possible causes left of|at once/);
	await expect(page.getByRole('button', { name: 'Start this step' })).toBeVisible();
	await goTo(page, 'Hand over');
	const codes = page.getByRole('table').filter({ hasText: 'told by its lamp' });
	await expect(codes).toContainText('2-3');
	await expect(page.getByText('No module had a code.')).toHaveCount(0);

	host.act({ do: 'mend', at: 'front-right', repair: 'renew-lead' });
	host.act({ do: 'mend', at: 'rear-left', repair: 'renew-lead' });
	await writeRepair(page, 'Both leads renewed', 'front right');
	await expect(page.getByText('Make it forget, then drive it')).toBeVisible();
	await page.keyboard.press('.');
	await expect(page).toHaveURL(/prove/);
	await expect(page.getByRole('region', { name: 'Lamp codes' })).toContainText('told before the repair');
	await accessible(page);

	key('off');
	key('on');
	press(8);
	driveNow(vehicle);
	await put(page, 'proving-drive', {
		distanceKm: 4,
		topSpeedKmh: 70,
		stops: 2,
		road: 'dry',
		driver: '',
		note: ''
	});
	await page.reload();
	await page.getByRole('link', { name: 'Read its lamp' }).click();
	await expect(page.getByRole('heading', { name: 'Tap at every flash' })).toBeVisible();
	askIt();
	await tapAt(page, lampSeen(host, 'anti-lock', 25));
	await expect(page.getByText('no fault is kept')).toBeVisible();
	await page.getByRole('button', { name: /Put it on the thread/ }).click();
	await expect(page.getByText('Ask a lead to sign')).toBeVisible();
	await page.goto(page.url().replace(/\/read.*/, '/prove'));
	await expect(page.getByRole('heading', { name: 'Proven by its lamp' })).toBeVisible();
	await goTo(page, 'Hand over');
	await expect(page.getByRole('table').filter({ hasText: 'told by its lamp' })).toContainText(
		'No longer told'
	);
	await expect(page.getByText('Waits for a lead’s signature.')).toBeVisible();
});
