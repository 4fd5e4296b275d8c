import { ulid } from 'ulid';
import { benchFault } from '../src/lib/bench/faults/benchFault';
import { expect, goTo, openCase, put, scan, test, writeRepair } from './bay';
import { PASSWORD } from '../demo/shop';
import { ORIGIN, SIGNED_IN } from './where';

test('the same key pressed again clears nothing: what cannot be undone asks, and the way back has the focus', async ({
	page,
	bay
}) => {
	const { link } = await bay(benchFault('lead-open', 'rear-left'));
	await openCase(page, 'pressed twice', link);
	await put(page, 'complaint', { words: 'Lamps stay on', symptoms: [], conditions: [] });
	await put(page, 'vehicle-checked', { vin: '1'.repeat(17), checkDigitFits: true, odometerKm: 5 });
	await scan(page);
	await writeRepair(page, 'Lead renewed', 'rear-left');
	await goTo(page, 'Prove');
	await expect(page.getByRole('heading', { name: 'Clear the codes' }).first()).toBeVisible();
	await page.keyboard.press('.');
	await expect(page.getByText('will be gone from the vehicle')).toBeVisible();
	await expect(page.getByRole('button', { name: 'Not now' })).toBeFocused();
	await page.keyboard.press('.');
	await page.keyboard.press('Enter');
	await expect(page.getByText('will be gone from the vehicle')).toHaveCount(0);
	await expect(page.getByText('modules cleared; saved to the case')).toHaveCount(0);
});

test('a recording that goes on unseen is shown on every page, with the way to stop and keep it', async ({
	page,
	bay
}) => {
	const { link } = await bay(benchFault('lead-open', 'rear-left'));
	await openCase(page, 'left running', link);
	await goTo(page, 'Watch');
	await page.getByRole('button', { name: /Start recording/ }).click();
	await expect(page.getByRole('region', { name: 'Running recording' })).toBeVisible();
	await goTo(page, 'Read');
	await expect(page.getByRole('button', { name: 'Scan every module' })).toBeDisabled();
	await expect(page.getByText('A recording runs: see the top of the page.')).toBeVisible();
	const bar = page.getByRole('complementary', { name: 'Work that runs' });
	await bar.getByRole('button', { name: 'Stop and keep' }).click();
	await expect(bar).toHaveCount(0);
	await expect(page.getByRole('button', { name: 'Scan every module' })).toBeEnabled();
	await goTo(page, 'Watch');
	await expect(page.getByText(/readings over|km\/h|Live recording/).first()).toBeVisible();
});

test('nine tabs of one browser all hear what happens, over one stream', async ({ browser }) => {
	const context = await browser.newContext({ storageState: SIGNED_IN.ana });
	const first = await context.newPage();
	await first.goto('/');
	const hrefs = await first
		.getByRole('row')
		.getByRole('link')
		.evaluateAll((links) => links.map((link) => link.getAttribute('href') ?? ''));
	const href = hrefs.find((one) => one.startsWith('/cases/')) ?? '';
	const tabs = [];
	for (let i = 0; i < 9; i++) {
		const tab = await context.newPage();
		await tab.goto(`${href}/listen`);
		await tab.locator('html[data-ready]').waitFor({ state: 'attached' });
		tabs.push(tab);
	}
	const words = `heard in every tab ${ulid()}`;
	await put(tabs[0]!, 'note', { text: words });
	for (const tab of tabs) await expect(tab.getByText(words)).toBeVisible();
	await context.close();
});

test('an entry that names a photo or an id that there is none of is refused at the door', async ({
	page,
	bay
}) => {
	const { link } = await bay(benchFault('lead-open', 'rear-left'));
	await openCase(page, 'odd entries', link);
	const { pathname, origin } = new URL(page.url());
	const send = (kind: string, payload: object) =>
		page.request.post(`/cases/${pathname.split('/')[2]}/entries`, {
			headers: { origin },
			data: { id: ulid(), kind, version: 1, observedAt: new Date().toISOString(), payload }
		});
	const look = {
		position: 'rear-left',
		inspection: 'seating',
		name: 'Seating',
		result: 'bad',
		found: [],
		gapMm: null,
		note: '',
		photos: [{ id: ulid(), sha256: '0'.repeat(64) }],
		proves: [],
		implicates: [],
		says: 'x'
	};
	expect(await (await send('inspection', look)).json()).toMatchObject({
		message: expect.stringContaining('photo that it names is not on this case')
	});
	expect((await send('inspection', { ...look, photos: [], inspection: 'no-such-look' })).status()).toBe(409);
	expect((await send('inspection', { ...look, photos: [] })).status()).toBe(200);
});

test('a stream of events ends with its session, and no page of it is kept', async ({ playwright }) => {
	const client = await playwright.request.newContext({
		baseURL: ORIGIN,
		extraHTTPHeaders: { origin: ORIGIN }
	});
	await client.post('/sign-in?/in', { form: { username: 'teo', password: PASSWORD } });
	const floor = await client.get('/', { headers: { accept: 'text/html' } });
	expect(floor.headers()['cache-control']).toContain('no-store');
	const caseId = /\/cases\/([0-9A-Z]{26})/.exec(await floor.text())?.[1] ?? '';
	const { cookies } = await client.storageState();
	const cookie = cookies.map(({ name, value }) => `${name}=${value}`).join('; ');
	const stream = await fetch(`${ORIGIN}/stream?case=${caseId}`, { headers: { cookie } });
	const told = stream.text();
	await client.post('/sign-in?/out', { form: {} });
	// It would never end by itself.
	expect(await told).toContain('event: head');
	expect((await fetch(`${ORIGIN}/stream?case=${caseId}`, { headers: { cookie } })).status).toBe(401);
	await client.dispose();
});

test('what is typed before the page’s scripts have come stays, and counts', async ({ as }) => {
	const page = await as('marit');
	let come: (() => void) | undefined;
	const held = new Promise<void>((resolve) => (come = resolve));
	await page.route('**/_app/immutable/**/*.js', async (route) => {
		await held;
		await route.continue();
	});
	const loaded = page.goto('/library/reasoning', { waitUntil: 'commit' });
	const minutes = page.getByLabel('Minutes: Look at the fuse');
	await minutes.fill('nonsense');
	const vehicle = page.locator('select[name=vehicle]');
	await vehicle.selectOption('velmora-skiff');
	await expect(page.locator('html[data-ready]')).toHaveCount(0);
	come?.();
	await loaded;
	await expect(minutes).toHaveValue('nonsense');
	await expect(vehicle).toHaveValue('velmora-skiff');
	await page.getByRole('button', { name: 'Save these numbers' }).click();
	await expect(page.getByRole('alert')).toContainText('Look at the fuse');
});

test('a network that goes and comes while somebody types takes nothing of it', async ({ browser }) => {
	const context = await browser.newContext({ storageState: { cookies: [], origins: [] } });
	const page = await context.newPage();
	await page.goto('/sign-in');
	await expect(page.locator('html[data-ready]')).toHaveCount(1);
	await page.getByLabel('User name').fill('ana');
	await page.getByLabel('Password').fill('half of a pass');
	await context.setOffline(true);
	await expect(page.getByText('The server is out of reach.')).toBeVisible();
	// Asked of the page itself: what the browser tells of a request can go missing while a network goes and comes.
	const loads = (): Promise<number> =>
		page.evaluate(
			() =>
				performance
					.getEntriesByType('resource')
					.filter(
						(entry) =>
							entry.name.includes('__data.json') && (entry as PerformanceResourceTiming).responseEnd > 0
					).length
		);
	const before = await loads();
	await context.setOffline(false);
	await expect.poll(loads).toBeGreaterThan(before);
	await expect(page.getByText('The server is out of reach.')).toHaveCount(0);
	await page.getByLabel('Password').press('End');
	await page.keyboard.type('word');
	await expect(page.getByLabel('User name')).toHaveValue('ana');
	await expect(page.getByLabel('Password')).toHaveValue('half of a password');
	await context.close();
});

test('a sign-in that ends under a page asks over it, and what was typed goes on', async ({
	page,
	bay,
	context
}) => {
	const { link } = await bay(benchFault('lead-open', 'rear-left'));
	await openCase(page, 'long lunch', link);
	await page.getByLabel('In the customer’s own words').fill('Lamp on after lunch');
	await context.clearCookies();
	await page.locator('#complaint').getByRole('button', { name: 'Save' }).click();
	const over = page.getByRole('dialog', { name: 'Your sign-in has ended' });
	await expect(over.getByLabel('User name')).toHaveValue('ana');
	await over.getByLabel('Password').fill('not this one');
	await over.getByRole('button', { name: 'Sign in and go on' }).click();
	await expect(over.getByRole('alert')).toContainText('do not belong together');
	await over.getByLabel('Password').fill(PASSWORD);
	await over.getByRole('button', { name: 'Sign in and go on' }).click();
	await expect(over).toHaveCount(0);
	await expect(page.locator('#complaint')).toContainText('“Lamp on after lunch”');

	// Whoever goes on by a link instead comes back to where they were going.
	await context.clearCookies();
	await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: 'Read' }).click();
	await page.getByLabel('User name').fill('ana');
	await page.getByLabel('Password').fill(PASSWORD);
	await page.getByRole('button', { name: 'Sign in', exact: true }).click();
	await expect(page).toHaveURL(/\/read$/);
});
