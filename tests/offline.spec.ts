import { chromium, expect, test, type Page } from '@playwright/test';
import { eq } from 'drizzle-orm';
import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, readFileSync, rmSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { strFromU8, unzipSync } from 'fflate';
import sharp from 'sharp';
import { PASSWORD } from '../demo/shop';
import { startServer } from '../scripts/shop.mjs';
import { openDatabase } from '../src/lib/server/db/open';
import { session, user } from '../src/lib/server/db/schema';
import { Threads } from '../src/lib/server/db/threads';
import { accessible, openCase, patient } from './bay';
import { makePeople } from './ownPeople';
import { CHROMIUM, CHROMIUM_FLAGS, PORT } from './where';

const DATA = 'data/test-offline';
const OFF_PORT = PORT + 97;
const ORIGIN = `http://127.0.0.1:${OFF_PORT}`;
const FLAGS = [
	'--headless=new',
	...CHROMIUM_FLAGS,
	// A finger, as on a tablet.
	'--blink-settings=primaryPointerType=2,availablePointerTypes=2',
	'--remote-debugging-port=0'
];

/** A tablet: a browser with a profile of its own that outlives it. */
async function tablet(profile: string): Promise<{ browser: ChildProcess; page: Page }> {
	const folder = resolve(DATA, profile);
	const said = join(folder, 'DevToolsActivePort');
	rmSync(said, { force: true });
	const browser = spawn(CHROMIUM, [...FLAGS, `--user-data-dir=${folder}`, 'about:blank'], {
		stdio: 'ignore'
	});
	const port = () => (existsSync(said) ? (readFileSync(said, 'utf8').split('\n')[0] ?? '') : '');
	await expect.poll(port, { timeout: 60_000 }).not.toBe('');
	const remote = await chromium.connectOverCDP(`http://127.0.0.1:${port()}`);
	const [context] = remote.contexts();
	if (!context) throw new Error('the browser has no profile');
	const page = await context.newPage();
	const goto = page.goto.bind(page);
	page.goto = (path, options) => goto(new URL(path, ORIGIN).href, options);
	patient(page);
	page.setDefaultTimeout(45_000);
	return { browser, page };
}

const killed = (one: ChildProcess) =>
	new Promise((done) => {
		one.once('exit', done);
		one.kill('SIGKILL');
	});

async function signIn(page: Page, name: string): Promise<void> {
	await page.goto('/sign-in');
	await page.getByLabel('User name').fill(name);
	await page.getByLabel('Password').fill(PASSWORD);
	await page.getByRole('button', { name: 'Sign in' }).click();
	await expect(page.getByRole('heading', { level: 1 })).toContainText('case');
}

/** Pages that a tablet keeps, by their paths. */
const keptOn = (page: Page): Promise<string[]> =>
	page.evaluate(async () =>
		(await (await caches.open('jaldi:pages')).keys()).map(({ url }) => new URL(url).pathname)
	);

const waitsFor = (page: Page, count: string) =>
	expect(page.getByRole('status', { name: 'Without the server' })).toContainText(`${count} on this device`);

async function note(page: Page, text: string): Promise<void> {
	await page.getByLabel('Note for the thread').fill(text);
	await page.getByRole('button', { name: 'Save the note' }).click();
	await expect(page.getByLabel('Note for the thread')).toHaveValue('');
}

test('the server stops: two tablets go on recording, one browser is killed, one person is signed out and one is a technician no more; all of it arrives once, in its order', async () => {
	rmSync(DATA, { recursive: true, force: true });
	await makePeople(DATA, [
		['ana', 'Ana', 'technician'],
		['ben', 'Ben', 'technician'],
		['cyd', 'Cyd', 'technician']
	]);
	let { server } = await startServer({ data: DATA, port: OFF_PORT, logLevel: 'silent' });
	let one = await tablet('one');
	const two = await tablet('two');
	try {
		await signIn(one.page, 'ana');
		await one.page.goto('/');
		await openCase(one.page, 'yard bus', '');
		const at = new URL(one.page.url()).pathname.replace(/\/listen$/, '');
		await signIn(two.page, 'ben');
		await two.page.goto(`${at}/mend`);

		await test.step('what is of use in the yard is kept on both', async () => {
			for (const { page } of [one, two]) {
				const wanted = ['mend', 'measure', 'measure/look', 'read', 'prove'].map((path) => `${at}/${path}`);
				await expect
					.poll(
						async () => {
							const kept = new Set(await keptOn(page));
							return [...wanted, '/', '/decode', '/tyres', '/library', '/waiting'].filter(
								(p) => !kept.has(p)
							);
						},
						{ timeout: 90_000 }
					)
					.toEqual([]);
				expect((await keptOn(page)).some((path) => /sign-in|people|\/me$/.test(path))).toBe(false);
			}
		});

		await test.step('without the server every one of them opens, and says how old it is', async () => {
			await killed(server);
			for (const path of ['/', '/decode', '/library', '/tyres', `${at}/measure`, at]) {
				await one.page.goto(path);
				await expect(one.page.getByText('The server is out of reach.')).toBeVisible();
				await expect(one.page.getByText(/This page is as of/)).toBeVisible();
			}
			await one.page.getByRole('button', { name: 'Sign out' }).click();
			await expect(one.page.getByText('that can be done once it answers')).toBeVisible();
			await one.page.goto('/decode');
			await one.page.getByRole('combobox').fill('403514/2F');
			await expect(one.page.getByText('what the shipped sources say')).toBeVisible();
			await expect(one.page.getByText('C0035-14').first()).toBeVisible();
			await one.page.goto('/codes/C0035-14');
			await expect(one.page.getByRole('heading', { name: /not kept on this device/ })).toBeVisible();
			await one.page.getByRole('link', { name: /Mend/ }).first().click();
		});

		await test.step('notes, a look with its photo: all of it waits, also when the browser is killed', async () => {
			await note(one.page, 'first of Ana');
			// The page as it was kept comes again as it was, and what was saved from it stays what it is.
			await one.page.reload();
			await note(one.page, 'second of Ana');
			await waitsFor(one.page, '2 things wait');
			await one.page.goto(`${at}/measure/look`);
			const picture = await sharp({ create: { width: 400, height: 300, channels: 3, background: '#864' } })
				.jpeg()
				.toBuffer();
			await one.page
				.getByLabel('Add photos')
				.setInputFiles({ name: 'ring.jpg', mimeType: 'image/jpeg', buffer: picture });
			await expect(one.page.getByRole('img', { name: 'to be kept with this look' })).toBeVisible();
			await one.page.getByRole('button', { name: /Nothing wrong/ }).click();
			await waitsFor(one.page, '4 things wait');
			await note(two.page, 'first of Ben');
			await waitsFor(two.page, 'One thing waits');

			await killed(one.browser);
			one = await tablet('one');
			await one.page.goto('/waiting');
			await expect(one.page.getByRole('listitem')).toHaveText([
				/Note/,
				/Note/,
				/Photo ring.jpg/,
				/Inspection/
			]);
			await accessible(one.page);
			const [file] = await Promise.all([
				one.page.waitForEvent('download'),
				one.page.getByRole('button', { name: 'Take it out as a file' }).click()
			]);
			const files = unzipSync(readFileSync(await file.path()));
			const list = JSON.parse(strFromU8(files['waiting.json'] ?? new Uint8Array())) as { waiting: unknown[] };
			expect(list.waiting).toHaveLength(4);
		});

		// While they were away: one is signed out everywhere, the other no technician any more.
		const db = await openDatabase(`file:${DATA}/jaldi.db`);
		const people = await db.select().from(user);
		const ana = people.find(({ name }) => name === 'Ana');
		await db.delete(session).where(eq(session.userId, ana?.id ?? ''));
		await db.update(user).set({ role: 'viewer' }).where(eq(user.name, 'Ben'));
		db.$client.close();
		({ server } = await startServer({ data: DATA, port: OFF_PORT, logLevel: 'silent' }));

		await test.step('who may no longer is told, and keeps what was recorded', async () => {
			await two.page.goto('/waiting');
			await expect(two.page.getByRole('heading', { name: 'The server did not take this' })).toBeVisible({
				timeout: 60_000
			});
			await expect(two.page.getByRole('listitem')).toContainText('Note');
		});

		await test.step('who is signed out is asked to sign in; nobody else’s sign-in sends it', async () => {
			await one.page.goto('/');
			await expect(one.page).toHaveURL(/sign-in/);
			await expect(one.page.getByText('4 things wait here for Ana')).toBeVisible();
			await signIn(one.page, 'cyd');
			await one.page.goto('/waiting');
			await expect(one.page.getByText('4 more wait for somebody else')).toBeVisible();
			await one.page.getByText('Menu', { exact: true }).click();
			await one.page.getByRole('button', { name: 'Sign out' }).click();
			await signIn(one.page, 'ana');
			await one.page.goto('/waiting');
			await expect(one.page.getByRole('heading', { name: 'Nothing of yours waits' })).toBeVisible();
		});

		const after = await openDatabase(`file:${DATA}/jaldi.db`);
		const threads = new Threads(after);
		const caseId = at.split('/')[2] ?? '';
		expect(await threads.check(caseId)).toEqual({ intact: true });
		const told = (await threads.read(caseId)).filter(({ kind }) => kind === 'note' || kind === 'inspection');
		expect(told.map(({ kind, authorName }) => [kind, authorName])).toEqual([
			['note', 'Ana'],
			['note', 'Ana'],
			['inspection', 'Ana']
		]);
		const times = told.map(({ observedAt }) => observedAt);
		expect(times).toEqual([...times].sort());
		// They stand at the time of the yard, not of the network.
		for (const { observedAt, receivedAt } of told) expect(observedAt < receivedAt).toBe(true);
		after.$client.close();
	} finally {
		for (const process of [server, one.browser, two.browser]) process.kill('SIGKILL');
	}
});
