import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { request } from 'node:http';
import { join } from 'node:path';
import { expect, test, type Browser } from '@playwright/test';
import { ulid } from 'ulid';
import { signIn } from '../scripts/ownShop';
import { startServer } from '../scripts/shop.mjs';
import { askedOf } from '../src/lib/server/gate/gate';
import { openCase, patient } from './bay';
import { everything, send, type Ask } from './everyRoute';
import { makePeople } from './ownPeople';
import { PORT } from './where';

const DATA = 'data/test-chain';
const CHAIN_PORT = PORT + 88;
/** Three shops of one server. The address of the third is only ever asked by its name in the request. */
const NORTH = `http://127.0.0.1:${CHAIN_PORT}`;
const SOUTH = `http://localhost:${CHAIN_PORT}`;
const BROKEN = `broken.example.test:${CHAIN_PORT}`;

test.describe.configure({ mode: 'serial' });

let server: Awaited<ReturnType<typeof startServer>>['server'];
const cookies = { north: '', south: '' };
const cases = { north: '', south: '' };

async function caseAt(browser: Browser, origin: string, cookie: string, nickname: string): Promise<string> {
	const context = await browser.newContext({ baseURL: origin, storageState: { cookies: [], origins: [] } });
	const [name = '', value = ''] = cookie.split(/=(.*)/s);
	await context.addCookies([{ name, value, url: origin }]);
	const page = patient(await context.newPage());
	await openCase(page, nickname, '');
	const id = /cases\/(\w{26})/.exec(page.url())?.[1] ?? '';
	await context.close();
	return id;
}

test.beforeAll(async ({ browser }) => {
	rmSync(DATA, { recursive: true, force: true });
	await makePeople(join(DATA, 'north'), [['nan', 'Nan North', 'lead']]);
	await makePeople(join(DATA, 'south'), [['sal', 'Sal South', 'lead']]);
	mkdirSync(join(DATA, 'broken'));
	writeFileSync(join(DATA, 'broken', 'jaldi.db'), 'this is no database, and never was one');
	const shops = join(DATA, 'shops.json');
	writeFileSync(
		shops,
		JSON.stringify({
			shops: [
				{ name: 'broken', origin: `http://${BROKEN}` },
				{ name: 'north', origin: NORTH },
				{ name: 'south', origin: SOUTH }
			]
		})
	);
	({ server } = await startServer({ data: DATA, port: CHAIN_PORT, logLevel: 'silent', shops }));
	cookies.north = await signIn(NORTH, 'nan');
	cookies.south = await signIn(SOUTH, 'sal');
	cases.north = await caseAt(browser, NORTH, cookies.north, 'northern bus');
	cases.south = await caseAt(browser, SOUTH, cookies.south, 'southern bus');
});
test.afterAll(() => void server.kill('SIGTERM'));

const get = (path: string): Ask => ({ route: '', method: 'GET', path, form: false, known: true });

/** What is said to a request that gives another name than the one it came by. */
const askAs = (host: string, path: string) =>
	new Promise<{ status: number; body: string }>((resolve, reject) => {
		const sent = request({ host: '127.0.0.1', port: CHAIN_PORT, path, headers: { host } }, (answer) => {
			let body = '';
			answer.on('data', (part) => (body += part));
			answer.on('end', () => resolve({ status: answer.statusCode ?? 0, body }));
		});
		sent.on('error', reject);
		sent.end();
	});

test('each shop has its own people and cases; one that cannot be opened, and an address that is none, say so', async () => {
	for (const [origin, shop, other] of [
		[NORTH, 'north', 'south'],
		[SOUTH, 'south', 'north']
	] as const) {
		const floor = await send(origin, get('/'), { cookie: cookies[shop] });
		expect(floor.body).toContain(`${shop}ern bus`);
		expect(floor.body).not.toContain(`${other}ern bus`);
		// What is worked out on the threads that all shops share.
		const reason = await send(origin, get(`/cases/${cases[shop]}/reason/__data.json`), {
			cookie: cookies[shop]
		});
		expect(reason.status).toBe(200);
		expect(reason.body).toContain(`${shop}ern bus`);
	}
	await expect(signIn(SOUTH, 'nan')).rejects.toThrow('could not sign in');
	expect(await askAs(BROKEN, '/sign-in')).toMatchObject({
		status: 503,
		body: expect.stringContaining('cannot be opened')
	});
	expect(await askAs('elsewhere.example.test', '/sign-in')).toMatchObject({
		status: 421,
		body: 'No shop is at this address.\n'
	});
	expect((await askAs('elsewhere.example.test', '/healthz')).status).toBe(200);
	await expect
		.poll(async () => JSON.parse((await askAs('elsewhere.example.test', '/readyz')).body))
		.toEqual({ status: 'not all', shops: 3, ready: 2 });
});

test('whoever is signed in at one is nobody at the other', async () => {
	const wrong: string[] = [];
	for (const ask of everything(cases.south).filter(({ known }) => known)) {
		const asked = askedOf(ask.route, ask.method, new URL(ask.path, SOUTH));
		if (asked?.permission === 'anybody') continue;
		const { status, to } = await send(SOUTH, ask, { cookie: cookies.north });
		if (!(status === 401 || (status === 303 && to.startsWith('/sign-in'))))
			wrong.push(`${ask.method} ${ask.path}: ${status} ${to}`);
	}
	expect(wrong).toEqual([]);
});

/** Ends the very session that it is tried with. */
const ENDS_ITSELF = new Set(['/sign-in?/out', '/locked?/lock']);

test('nothing of one is shown or changed at the other, whatever is asked for there with its ids', async () => {
	const thread = () => send(NORTH, get(`/cases/${cases.north}/case.json`), { cookie: cookies.north });
	const before = await thread();
	expect(before.body).toContain('northern bus');
	const wrong: string[] = [];
	for (const ask of everything(cases.north).filter(({ known, path }) => known && !ENDS_ITSELF.has(path))) {
		const { status, body } = await send(SOUTH, ask, { cookie: cookies.south });
		const isCase = ask.route.startsWith('/cases/[id]') && ask.method === 'GET';
		if (/northern|Nan North/.test(body) || status >= 500 || (isCase && status !== 404))
			wrong.push(`${ask.method} ${ask.path}: ${status}`);
	}
	expect(wrong).toEqual([]);
	expect((await thread()).body).toBe(before.body);
});

test('an entry at one is heard at that one alone', async () => {
	const heard = { north: '', south: '' };
	const over = new AbortController();
	const listen = async (origin: string, shop: 'north' | 'south') => {
		const asked = `?case=${cases.north}&case=${cases.south}`;
		const answer = await fetch(`${origin}/stream${asked}`, {
			headers: { cookie: cookies[shop] },
			signal: over.signal
		});
		const reader = answer.body?.pipeThrough(new TextDecoderStream()).getReader();
		for (;;) {
			const part = await reader?.read().catch(() => null);
			if (!part || part.done) return;
			heard[shop] += part.value;
		}
	};
	const listening = [listen(NORTH, 'north'), listen(SOUTH, 'south')];
	await expect
		.poll(() => [heard.north, heard.south])
		.toEqual([/event: head/, /event: head/].map(expect.stringMatching));
	const note = {
		id: ulid(),
		kind: 'note',
		version: 1,
		observedAt: new Date().toISOString(),
		payload: { text: 'heard in the north' }
	};
	const add = (origin: string, cookie: string) =>
		fetch(`${origin}/cases/${cases.north}/entries`, {
			method: 'POST',
			headers: { origin, cookie, 'content-type': 'application/json' },
			body: JSON.stringify(note)
		});
	const before = heard.south;
	expect((await add(SOUTH, cookies.south)).status).toBe(404);
	const said = heard.north.length;
	expect((await add(NORTH, cookies.north)).status).toBe(200);
	await expect.poll(() => heard.north.slice(said)).toContain('event: head');
	expect(heard.south).toBe(before);
	expect(heard.south).not.toContain(cases.north);
	over.abort();
	await Promise.all(listening);
});
