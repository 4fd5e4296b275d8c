import { expect, test } from '@playwright/test';
import { ulid } from 'ulid';
import { patient } from './bay';
import { SIGNED_IN } from './where';

test('nothing but sign-in and health is reachable without a session', async ({ page, request }) => {
	expect(await (await request.get('/healthz')).json()).toEqual({ status: 'ok' });
	for (const path of ['/', '/closed', '/cases/new', '/cases/x', '/cases/x/listen']) {
		await page.goto(path);
		await expect(page).toHaveURL(/\/sign-in/);
	}
	for (const path of [
		'/stream?case=x',
		'/cases/x/stand-in',
		'/cases/x/watch/y/samples',
		'/cases/x/watch/y/csv',
		'/__data.json',
		'/cases/x/__data.json'
	]) {
		const body = await (await request.get(path, { maxRedirects: 0 })).text();
		expect(body).not.toContain('TP-');
	}
	expect((await request.post('/cases/x/work', { data: { do: 'scan', entryId: 'x' } })).status()).toBe(401);
	expect((await request.post('/cases/x/entries', { data: {} })).status()).toBe(401);
	expect((await request.post('/cases/x/watch/import', { data: {} })).status()).toBe(401);
});

test('scripts run only from here, and the session cookie is out of their reach', async ({ browser }) => {
	const context = await browser.newContext({ storageState: SIGNED_IN.ana });
	const page = await context.newPage();
	const response = await page.goto('/');
	const policy = response?.headers()['content-security-policy'] ?? '';
	expect(policy).toMatch(/script-src 'self'( 'nonce-[^']+')?;/);
	expect(policy).not.toMatch(/script-src[^;]*unsafe-inline/);
	const session = (await context.cookies()).find((cookie) => cookie.name.includes('session_token'));
	expect(session).toMatchObject({ httpOnly: true, sameSite: 'Lax' });
	await context.close();
});

test('a form from another place is refused', async ({ browser }) => {
	const context = await browser.newContext({ storageState: SIGNED_IN.ana });
	const response = await context.request.post('/preferences?/theme', {
		form: { theme: 'bay' },
		headers: { origin: 'http://elsewhere.example' }
	});
	expect(response.status()).toBe(403);
	await context.close();
});

test('a viewer sees everything and adds nothing', async ({ browser }) => {
	const context = await browser.newContext({ storageState: SIGNED_IN.guest });
	const page = await context.newPage();
	await page.goto('/');
	await expect(page.getByRole('link', { name: 'New case' })).toHaveCount(0);
	const href = await page
		.getByRole('row')
		.filter({ hasText: 'school minibus' })
		.getByRole('link')
		.getAttribute('href');
	await page.goto(`${href}/prove`);
	await expect(page.getByRole('article').first()).toBeVisible();
	await expect(page.getByRole('button', { name: /Clear/ })).toHaveCount(0);
	const post = (path: string, data: object) => context.request.post(`${href}/${path}`, { data });
	expect((await post('work', { do: 'clear', entryId: ulid(), only: null })).status()).toBe(403);
	const note = {
		id: ulid(),
		kind: 'note',
		version: 1,
		observedAt: new Date().toISOString(),
		payload: { text: 'x' }
	};
	expect((await post('entries', note)).status()).toBe(403);
	expect((await post('stand-in', { do: 'key', to: 'off' })).status()).toBe(403);
	await context.close();
});

test('only a lead signs, and not while anything is open', async ({ browser }) => {
	const ana = await browser.newContext({ storageState: SIGNED_IN.ana });
	const page = await ana.newPage();
	await page.goto('/');
	const href = await page
		.getByRole('row')
		.filter({ hasText: 'ferry crew bus' })
		.getByRole('link')
		.getAttribute('href');
	const refused = await ana.request.post(`${href}/hand-over?/sign`, {
		form: { statement: 'mine', entryId: ulid(), corrects: '', why: '' },
		headers: { origin: new URL(page.url()).origin }
	});
	expect(await refused.json()).toMatchObject({
		type: 'error',
		error: { message: 'Only a lead signs a case off.' }
	});
	const marit = await browser.newContext({ storageState: SIGNED_IN.marit });
	const lead = patient(await marit.newPage());
	await lead.goto('/');
	await lead.getByRole('row').filter({ hasText: 'school minibus' }).getByRole('link').click();
	await expect(lead.getByRole('navigation', { name: 'Stations' })).toBeVisible();
	await lead.keyboard.press('8');
	await expect(lead.getByText('It can be signed once nothing is open.')).toBeVisible();
	await expect(lead.getByRole('button', { name: 'Sign and close the case' })).toHaveCount(0);
	await ana.close();
	await marit.close();
});

test('keys of one sign are listed where they are, and can be switched off', async ({ browser }) => {
	const context = await browser.newContext({ storageState: SIGNED_IN.ana });
	const page = await context.newPage();
	const ready = () => page.locator('html[data-ready]').waitFor({ state: 'attached' });
	await page.goto('/');
	await ready();
	const href = await page
		.getByRole('row')
		.filter({ hasText: 'school minibus' })
		.getByRole('link')
		.getAttribute('href');
	await page.goto(`${href}/mend`);
	await ready();
	await page.keyboard.press('Shift+?');
	const keys = page.getByRole('dialog', { name: 'Keys' });
	// Those of this very page before those of every page.
	await expect(keys.getByRole('definition').first()).toHaveText('Before it begins');
	await expect(keys).toContainText('go to a station');
	await page.keyboard.press('Escape');
	await page.keyboard.press('e');
	await expect(page).toHaveURL(/\/mend\/estimate$/);

	await page.goto('/me');
	await ready();
	await page.getByRole('button', { name: 'Switch them off' }).click();
	await expect(page.getByRole('button', { name: 'Switch them on again' })).toBeVisible();
	await page.goto(`${href}/mend`);
	await ready();
	await expect(page.locator('html[data-keys=off]')).toBeAttached();
	for (const key of ['e', '3', '/', '.', 'n', 'Shift+?']) await page.keyboard.press(key);
	await expect(page).toHaveURL(/\/mend$/);
	await expect(page.getByRole('dialog')).toHaveCount(0);
	await expect(page.locator('.key').first()).toBeHidden();
	await context.close();
});
