import { execFileSync, spawnSync } from 'node:child_process';
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ulid } from 'ulid';
import { PASSWORD } from '../demo/shop';
import { signIn } from '../scripts/ownShop';
import { startServer } from '../scripts/shop.mjs';
import { examine } from '../src/lib/care/examine';
import { expect, openCase, patient, test } from './bay';
import { makePeople } from './ownPeople';
import { PORT } from './where';

const DATA = 'data/test-full';
const FULL_PORT = PORT + 96;
const ORIGIN = `http://127.0.0.1:${FULL_PORT}`;
const SIZE = '96m';

/** A disk of its own, so small that it can be filled; not everybody may make one. */
function mounted(): boolean {
	mkdirSync(DATA, { recursive: true });
	try {
		execFileSync('mount', ['-t', 'tmpfs', '-o', `size=${SIZE}`, 'tmpfs', DATA], { stdio: 'ignore' });
		return true;
	} catch {
		return false;
	}
}
const unmount = () => execFileSync('umount', ['-l', DATA], { stdio: 'ignore' });

/** Takes all the room that is left. */
function fill(): void {
	const piece = Buffer.alloc(256 * 1024);
	try {
		for (;;) writeFileSync(join(DATA, 'filler'), piece, { flag: 'a' });
	} catch {
		// It is full.
	}
}

test.use({ baseURL: ORIGIN, storageState: { cookies: [], origins: [] } });

test('a full disk: every page says it and goes on reading, nothing is half saved, and with room all goes on', async ({
	browser
}) => {
	rmSync(DATA, { recursive: true, force: true });
	test.skip(!mounted(), 'no small disk can be made here: it takes the right to mount one');
	try {
		await makePeople(DATA, [['rona', 'Rona Amsel', 'lead']]);
		const { server } = await startServer({ data: DATA, port: FULL_PORT, logLevel: 'silent' });
		try {
			const cookie = await signIn(ORIGIN, 'rona');
			const context = await browser.newContext({ baseURL: ORIGIN });
			const [name = '', value = ''] = cookie.split(/=(.*)/s);
			await context.addCookies([{ name, value, url: ORIGIN }]);
			const page = patient(await context.newPage());
			await openCase(page, 'last minibus', '');
			const caseId = /cases\/(\w{26})/.exec(page.url())?.[1] ?? '';
			const add = (id: string, text: string) =>
				fetch(`${ORIGIN}/cases/${caseId}/entries`, {
					method: 'POST',
					headers: { cookie, origin: ORIGIN, 'content-type': 'application/json' },
					body: JSON.stringify({
						id,
						kind: 'note',
						version: 1,
						observedAt: new Date().toISOString(),
						payload: { text }
					})
				});
			const ready = async () => (await fetch(`${ORIGIN}/readyz`)).status;
			expect(await ready()).toBe(200);

			fill();
			const saved: string[] = [];
			const id = ulid();
			let refused: Response | null = null;
			// What is left in the log's last pages is used up first.
			for (let i = 0; i < 400 && !refused; i++) {
				const one = i === 0 ? id : ulid();
				const answer = await add(one, `note ${i} ${'x'.repeat(1_900)}`);
				if (answer.status === 200) saved.push(one);
				else refused = answer;
			}
			expect(refused?.status).toBe(503);
			expect(await refused?.json()).toMatchObject({
				message: expect.stringContaining('The server’s disk is full')
			});
			expect(await ready()).toBe(503);
			expect((await fetch(`${ORIGIN}/healthz`)).status).toBe(200);
			for (const path of ['/', `/cases/${caseId}/reason`, '/library', '/me']) {
				await page.goto(path);
				await expect(page.getByRole('alert').filter({ hasText: 'disk is full' })).toBeVisible();
				await expect(page.getByRole('heading', { level: 1 }).first()).toBeVisible();
			}
			// What is recorded on a page waits on the device until there is room.
			await page.goto(`/cases/${caseId}/listen`);
			await page
				.getByLabel('In the customer’s own words')
				.fill(`It pulled to the left. ${'x'.repeat(1_500)}`);
			await page.locator('#complaint').getByRole('button', { name: 'Save' }).click();
			await expect(page.getByText('It is kept on this device and goes by itself.')).toBeVisible();

			// Whoever signs in now is not told that their password is wrong.
			const other = patient(await browser.newPage({ baseURL: ORIGIN }));
			await other.goto('/sign-in');
			await other.getByLabel('User name').fill('rona');
			await other.getByLabel('Password').fill(PASSWORD);
			await other.getByRole('button', { name: 'Sign in' }).click();
			await expect(other.getByText('disk is full').last()).toBeVisible();
			await expect(other.getByText('do not belong together')).toHaveCount(0);
			await other.close();

			rmSync(join(DATA, 'filler'));
			await expect.poll(ready).toBe(200);
			const after = ulid();
			expect((await add(after, 'there is room')).status).toBe(200);
			saved.push(after);
			await expect(page.getByText('It pulled to the left.').first()).toBeVisible();
			const { entries } = (await (
				await fetch(`${ORIGIN}/cases/${caseId}/case.json`, { headers: { cookie } })
			).json()) as { entries: { id: string; kind: string }[] };
			const notes = entries.filter(({ kind }) => kind === 'note').map((entry) => entry.id);
			expect(notes).toEqual(saved);
			await context.close();
		} finally {
			server.kill('SIGTERM');
			await new Promise((resolve) => server.once('exit', resolve));
		}
		expect((await examine(join(DATA, 'jaldi.db'))).problems).toEqual([]);

		// A folder that may only be read: nothing is started on it, and what is wrong is said in a sentence.
		unmount();
		execFileSync('mount', ['-t', 'tmpfs', '-o', `ro,size=${SIZE}`, 'tmpfs', DATA]);
		const env = {
			...process.env,
			PORT: String(FULL_PORT),
			JALDI_DATABASE_URL: `file:${join(process.cwd(), DATA, 'jaldi.db')}`
		};
		const { status, stderr } = spawnSync(process.execPath, ['scripts/start.mjs'], { env, encoding: 'utf8' });
		expect(status).toBe(1);
		expect(stderr).toContain('The server may not write into its data folder');
		expect(stderr).not.toMatch(/^ {4}at /m);
	} finally {
		unmount();
	}
});
