import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { PASSWORD } from '../demo/shop';
import { startServer } from '../scripts/shop.mjs';
import { startLibsqlStandIn } from '../src/lib/server/db/libsqlStandIn.fixture';
import { openCase, patient, put } from './bay';
import { makePeople } from './ownPeople';
import { PORT } from './where';

const DATA = 'data/test-outgrown';
const PORTS = [PORT + 98, PORT + 99] as const;
const [A, B] = PORTS.map((port) => `http://127.0.0.1:${port}`) as [string, string];

test.use({ baseURL: A, storageState: { cookies: [], origins: [] } });

test('two servers on one database elsewhere: what is written at one is seen at the other, and each says when it is out of reach', async ({
	page
}) => {
	rmSync(DATA, { recursive: true, force: true });
	await makePeople(DATA, [['bram', 'Bram Oort', 'technician']]);
	const file = join(DATA, 'jaldi.db');
	let remote = await startLibsqlStandIn(file);
	const database = remote.url;
	const started = [];
	try {
		for (const port of PORTS)
			started.push(await startServer({ data: DATA, port, logLevel: 'silent', database }));
		await page.goto('/sign-in');
		await page.getByLabel('User name').fill('bram');
		await page.getByLabel('Password').fill(PASSWORD);
		await page.getByRole('button', { name: 'Sign in' }).click();
		await expect(page.getByRole('heading', { name: 'No case is open' })).toBeVisible();
		await openCase(page, 'ring bus', '');
		const path = new URL(page.url()).pathname;

		// Whoever comes to the other server is signed in there, too, and sees it grow.
		const other = patient(await page.context().newPage());
		await other.goto(`${B}${path}`);
		await expect(other.getByRole('banner')).toContainText('ring bus');
		await put(page, 'note', { text: 'written at the first' });
		await expect(other.getByText('written at the first')).toBeVisible();

		// The database goes, and comes back.
		const port = Number(new URL(database).port);
		await remote.close();
		const away = await page.request.get(`${A}${path}`);
		expect(away.status()).toBe(503);
		expect(await away.text()).toContain('does not reach its database');
		expect((await page.request.get(`${A}/readyz`)).status()).toBe(503);
		remote = await startLibsqlStandIn(file, { port });
		await expect.poll(async () => (await page.request.get(`${A}/readyz`)).status()).toBe(200);
		await page.goto(path);
		await expect(page.getByRole('banner')).toContainText('ring bus');
		await put(page, 'note', { text: 'after it came back' });
		await expect(other.getByText('after it came back')).toBeVisible();
	} finally {
		for (const { server } of started) server.kill('SIGTERM');
		await remote.close();
	}
});
