import { createHmac } from 'node:crypto';
import { readFileSync, rmSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { PASSWORD } from '../demo/shop';
import { startServer } from '../scripts/shop.mjs';
import { accessible, expect, patient, test } from './bay';
import { makePeople } from './ownPeople';
import { PORT } from './where';

const DATA = 'data/test-people';
const PEOPLE_PORT = PORT + 94;
const ORIGIN = `http://127.0.0.1:${PEOPLE_PORT}`;

test.use({ baseURL: ORIGIN, storageState: { cookies: [], origins: [] } });

async function signIn(page: Page, username: string, password: string) {
	await page.goto('/sign-in');
	await page.getByLabel('User name').fill(username);
	await page.getByLabel('Password').fill(password);
	await page.getByRole('button', { name: 'Sign in' }).click();
}
const atTheFloor = (page: Page) => expect(page.getByRole('navigation', { name: 'Shop' })).toBeVisible();

/** The six digits of a moment (RFC 6238, SHA-1, 30 s), written here from the standard: a second method. */
function digitsAt(secret: string, ms: number): string {
	const bits = [...secret].map((sign) =>
		'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567'.indexOf(sign).toString(2).padStart(5, '0')
	);
	const key = Buffer.from((bits.join('').match(/.{8}/g) ?? []).map((byte) => parseInt(byte, 2)));
	const counter = Buffer.alloc(8);
	counter.writeBigUInt64BE(BigInt(Math.floor(ms / 30_000)));
	const mac = createHmac('sha1', key).update(counter).digest();
	const at = (mac.at(-1) ?? 0) & 15;
	return String((mac.readUInt32BE(at) & 0x7fffffff) % 1_000_000).padStart(6, '0');
}

test('a lead brings somebody in, who chooses a password, leaves a screen, and is shut out', async ({
	browser,
	page
}) => {
	rmSync(DATA, { recursive: true, force: true });
	await makePeople(DATA, [['rona', 'Rona Amsel', 'lead']]);
	const { server } = await startServer({ data: DATA, port: PEOPLE_PORT, logLevel: 'silent' });
	try {
		await signIn(page, 'rona', PASSWORD);
		await atTheFloor(page);
		await page.goto('/people');
		await accessible(page);
		await page.getByLabel('Name', { exact: false }).first().fill('Iven Holm');
		await page.getByLabel('User name').fill('iven');
		await page.getByRole('button', { name: 'Bring them in' }).click();
		const code = await page.getByRole('status').locator('.num').first().innerText();
		await expect(page.getByText('invited, has not come in yet')).toBeVisible();

		const other = patient(await (await browser.newContext({ baseURL: ORIGIN })).newPage());
		await other.goto('/join');
		await accessible(other);
		await other.getByLabel('Code').fill('AAAA-AAAA-AAAA');
		await other.getByLabel('Password').fill('gull over harbour');
		await other.getByRole('button', { name: 'Come in' }).click();
		await expect(other.getByText('This code opens nothing')).toBeVisible();
		await other.getByLabel('Code').fill(code.toLowerCase());
		await other.getByLabel('Password').fill('Iven2026');
		await other.getByRole('button', { name: 'Come in' }).click();
		await expect(other.getByText('among the first that anybody would try')).toBeVisible();
		await other.getByLabel('Password').fill('gull over harbour');
		await other.getByRole('button', { name: 'Come in' }).click();
		await atTheFloor(other);

		// Their own password, and six digits for a shared tablet.
		await other.goto('/me');
		await accessible(other);
		await other.getByLabel('The one you have').fill('not that');
		await other.getByLabel('The new one').fill('tide over causeway');
		await other.getByRole('button', { name: 'Change it' }).click();
		await expect(other.getByText('That is not your password.')).toBeVisible();
		await other.getByLabel('The one you have').fill('gull over harbour');
		await other.getByLabel('The new one').fill('tide over causeway');
		await other.getByRole('button', { name: 'Change it' }).click();
		await expect(other.getByText('It is changed.')).toBeVisible();
		await other.getByRole('textbox', { name: 'Digits' }).fill('270418');
		await other.getByRole('button', { name: 'Set them' }).click();
		await expect(other.getByText('they open a screen that you locked today')).toBeVisible();
		await other.goto('/decode');
		const beside = patient(await other.context().newPage());
		await beside.goto('/library');
		await other.getByRole('button', { name: 'Lock this screen' }).click();
		// Two windows of one screen are locked together.
		await expect(beside.getByRole('heading', { name: 'Locked for Iven Holm' })).toBeVisible();
		await beside.close();
		await expect(other.getByRole('heading', { name: 'Locked for Iven Holm' })).toBeVisible();
		await accessible(other);
		await other.goto('/');
		await expect(other.getByRole('heading', { name: 'Locked for Iven Holm' })).toBeVisible();
		await other.getByLabel('Six digits').fill('111111');
		await other.getByRole('button', { name: 'Open' }).click();
		await expect(other.getByText('That does not open it.')).toBeVisible();
		await other.getByLabel('Six digits').fill('270418');
		await other.getByRole('button', { name: 'Open' }).click();
		await atTheFloor(other);
		// What is a lead's is no page of theirs.
		const refused = await other.request.get('/people', { headers: { accept: 'text/html' } });
		expect(refused.status()).toBe(403);
		expect(await refused.text()).toContain('A lead looks after the people of the shop.');

		await page.goto('/people');
		await page.getByRole('link', { name: /Iven Holm/ }).click();
		await accessible(page);
		await expect(page.getByText('Signed in at one place')).toBeVisible();
		await page.getByLabel('Why?').fill('Works elsewhere now');
		await page.getByRole('button', { name: 'Shut out' }).click();
		await expect(page.getByText('Shut out: Works elsewhere now')).toBeVisible();
		await other.goto('/closed');
		await expect(other).toHaveURL(/\/sign-in/);
		await signIn(other, 'iven', 'tide over causeway');
		await expect(other.getByText('You are shut out of this shop: ask a lead.')).toBeVisible();

		await page.goto('/people/log');
		await accessible(page);
		await expect(page.getByRole('listitem').first()).toContainText(
			'Rona Amsel shut out Iven Holm: Works elsewhere now'
		);
		const download = page.waitForEvent('download');
		await page.getByRole('link', { name: /as a file/ }).click();
		expect(readFileSync(await (await download).path(), 'utf8')).toContain('person-shut-out');
		await other.context().close();

		// How the server is: what failed in a browser is there, and figures for a program.
		await page.evaluate(() => void setTimeout(() => Promise.reject(new Error('a promise of the test'))));
		await expect
			.poll(async () => {
				await page.goto('/health');
				return page.getByText('a promise of the test').count();
			})
			.toBe(1);
		await accessible(page);
		const metrics = await page.request.get('/metrics');
		expect(await metrics.text()).toMatch(/jaldi_request_seconds_count\{route="\/\(shop\)\/people"/);

		// A screen that is left locks itself, and opens where it was.
		await page.goto('/people');
		await page.getByLabel('Lock by themselves after').fill('5');
		await page.getByRole('button', { name: 'Save', exact: true }).click();
		await expect(page.getByText('Saved.')).toBeVisible();
		await page.clock.install();
		await page.goto('/people/log');
		await page.clock.fastForward('04:00');
		await page.mouse.click(5, 5);
		await page.clock.fastForward('04:00');
		await expect(page).toHaveURL(/people\/log$/);
		await page.clock.fastForward('06:00');
		await expect(page.getByRole('heading', { name: 'Locked for Rona Amsel' })).toBeVisible();
		await page.getByLabel('Password').fill(PASSWORD);
		await page.getByRole('button', { name: 'Open' }).click();
		await expect(page).toHaveURL(/people\/log$/);

		// Nothing of a lead's pages runs off a phone.
		const wide = page.viewportSize() ?? { width: 1280, height: 800 };
		await page.setViewportSize({ width: 390, height: 844 });
		for (const path of ['/people', '/people/log', '/people/programs', '/health', '/me']) {
			await page.goto(path);
			expect(
				await page.evaluate(() => document.documentElement.scrollWidth - innerWidth),
				path
			).toBeLessThanOrEqual(0);
		}
		await page.setViewportSize(wide);

		// A lead's second factor.
		await page.goto('/me');
		const factor = page.getByRole('region', { name: 'Second factor' });
		await factor.getByLabel('Your password').fill(PASSWORD);
		await factor.getByRole('button', { name: 'Set up' }).click();
		const secret = await factor.locator('.num').first().innerText();
		await factor.getByLabel('The six digits').fill('000000');
		await factor.getByRole('button', { name: 'Set it up' }).click();
		await expect(factor.getByText('That is not the code of now')).toBeVisible();
		await factor.getByLabel('Your password').fill(PASSWORD);
		await factor.getByRole('button', { name: 'Set up' }).click();
		const again = (await factor.locator('.num').first().innerText()).replace(/\s/g, '');
		expect(again).toHaveLength(secret.replace(/\s/g, '').length);
		const [spare = ''] = await factor.getByRole('listitem').allInnerTexts();
		await factor.getByLabel('The six digits').fill(digitsAt(again, Date.now()));
		await factor.getByRole('button', { name: 'Set it up' }).click();
		await expect(factor.getByText('It is set up')).toBeVisible();
		await page.getByRole('button', { name: 'Sign out', exact: true }).click();
		await signIn(page, 'rona', PASSWORD);
		await expect(page.getByRole('heading', { name: 'Six digits from your phone' })).toBeVisible();
		await accessible(page);
		await page.goto('/people');
		await expect(page).toHaveURL(/\/sign-in/);
		await signIn(page, 'rona', PASSWORD);
		await page.getByLabel('Code').fill(spare);
		await page.getByRole('button', { name: 'Sign in' }).click();
		await atTheFloor(page);
		await page.goto('/people');
		await expect(page.getByText('second factor')).toBeVisible();
	} finally {
		server.kill('SIGTERM');
	}
});
