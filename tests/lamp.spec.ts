import type { Page } from '@playwright/test';
import { benchFault } from '../src/lib/bench/faults/benchFault';
import { flashesOf } from '../src/lib/core/blink/flashesOf';
import { accessible, expect, openCase, test } from './bay';

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
	const bridge = (seconds: number) => {
		host.act({ do: 'bridge', closed: true });
		host.vehicle.advance(seconds);
		host.act({ do: 'bridge', closed: false });
	};
	/** What eyes at the drawbar see, for as long as two showings and more take. */
	const watch = () => {
		const flashes: { onS: number; offS: number | null }[] = [];
		let lit = host.vehicle.state.lamps.brake;
		for (let s = 0; s < 25; s += 0.02) {
			host.vehicle.advance(0.02);
			const now = host.vehicle.state.lamps.brake;
			if (now && !lit) flashes.push({ onS: s, offS: null });
			lit = now;
		}
		return flashes;
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
	}
	expect(found.sort()).toEqual(['axle 1 right', 'axle 2 left']);
	bridge(2);
	await tapAt(page, watch());
	await expect(page.getByRole('paragraph').filter({ hasText: 'no fault is shown' })).toBeVisible();
});
