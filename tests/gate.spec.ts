import { rmSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { ulid } from 'ulid';
import { PASSWORD } from '../demo/shop';
import { signIn } from '../scripts/ownShop';
import { startServer } from '../scripts/shop.mjs';
import { askedOf, refusal } from '../src/lib/server/gate/gate';
import { openCase, patient } from './bay';
import { everything, send, type Ask } from './everyRoute';
import { makePeople } from './ownPeople';
import { PORT } from './where';

const DATA = 'data/test-gate';
const GATE_PORT = PORT + 92;
const ORIGIN = `http://127.0.0.1:${GATE_PORT}`;
const ROLES = ['viewer', 'technician', 'lead'] as const;
type Who = (typeof ROLES)[number] | 'nobody';

test.use({ baseURL: ORIGIN, storageState: { cookies: [], origins: [] } });
test.describe.configure({ mode: 'default' });

let server: Awaited<ReturnType<typeof startServer>>['server'];
const cookies: Record<Who, string> = { nobody: '', viewer: '', technician: '', lead: '' };
let caseId = '';
/** Somebody else's, whose screen is locked. */
let lockable = '';

test.beforeAll(async ({ browser }) => {
	rmSync(DATA, { recursive: true, force: true });
	await makePeople(DATA, [
		...ROLES.map((role) => [role, `A ${role}`, role] as const),
		['left', 'A left screen', 'technician']
	]);
	({ server } = await startServer({ data: DATA, port: GATE_PORT, logLevel: 'silent' }));
	for (const role of ROLES) cookies[role] = await signIn(ORIGIN, role);
	lockable = await signIn(ORIGIN, 'left');
	const context = await browser.newContext({ baseURL: ORIGIN });
	const [name = '', value = ''] = cookies.lead.split(/=(.*)/s);
	await context.addCookies([{ name, value, url: ORIGIN }]);
	const page = patient(await context.newPage());
	await openCase(page, 'gate bus', '');
	caseId = /cases\/(\w{26})/.exec(page.url())?.[1] ?? '';
	await context.close();
});
test.afterAll(() => void server.kill('SIGTERM'));

// Before the walk, which uses up the tries of this address.
test('a locked screen shows nothing until it is opened, and then goes on', async () => {
	const cookie = lockable;
	const ask = (path: string, form = false, method = form ? 'POST' : 'GET'): Ask => ({
		route: '',
		method,
		path,
		form,
		known: true
	});
	expect((await send(ORIGIN, ask('/locked?/lock', true), { cookie })).status).toBe(303);
	for (const path of ['/', `/cases/${caseId}`, `/cases/${caseId}/case.json`, '/me', '/stream'])
		expect((await send(ORIGIN, ask(path), { cookie })).to, path).toContain('/locked');
	expect((await send(ORIGIN, ask(`/cases/${caseId}/entries`, false, 'POST'), { cookie })).status).toBe(401);
	const open = (secret: string) =>
		fetch(`${ORIGIN}/locked?/open`, {
			method: 'POST',
			redirect: 'manual',
			headers: { origin: ORIGIN, cookie, 'content-type': 'application/x-www-form-urlencoded' },
			body: new URLSearchParams({ secret })
		});
	await open('not the password');
	expect((await send(ORIGIN, ask('/'), { cookie })).to).toContain('/locked');
	await open(PASSWORD);
	expect((await send(ORIGIN, ask(`/cases/${caseId}/case.json`), { cookie })).status).toBe(200);
});

/** Ends the very session that it is tried with: tried on its own below. */
const ENDS_ITSELF = new Set(['/sign-in?/out', '/locked?/lock']);

for (const who of ['nobody', ...ROLES] as const)
	test(`every route, as ${who}: what the table says, and never more`, async () => {
		const wrong: string[] = [];
		const asks = everything(caseId).filter(({ path }) => !ENDS_ITSELF.has(path));
		expect(asks.length).toBeGreaterThan(200);
		for (const ask of asks) {
			const { status, to, body } = await send(ORIGIN, ask, { cookie: cookies[who] });
			const asked = askedOf(ask.route, ask.method, new URL(ask.path, ORIGIN));
			const say = () => wrong.push(`${ask.method} ${ask.path}: ${status} ${to} ${body.slice(0, 120)}`);
			if (!asked || status >= 500) say();
			else if (who === 'nobody' && asked.permission !== 'anybody') {
				if (!(status === 401 || (status === 303 && to.startsWith('/sign-in')))) say();
			} else if (who !== 'nobody' && refusal(asked.permission, who) !== null) {
				if (status !== 403) say();
			} else if (status === 401 || status === 403 || to.startsWith('/sign-in')) {
				if (asked.permission !== 'anybody') say();
			} else if (!ask.known && ask.method === 'GET' && ask.route.startsWith('/cases/[id]') && status !== 404)
				// What there is not, or is another shop's, is not there: nothing of it is shown.
				say();
		}
		expect(wrong).toEqual([]);
	});

test('a token opens what it is for, and nothing else', async () => {
	const made = async (scopes: string[]) => {
		const answer = await fetch(`${ORIGIN}/people/programs?/make`, {
			method: 'POST',
			headers: {
				origin: ORIGIN,
				cookie: cookies.lead,
				accept: 'application/json',
				'content-type': 'application/x-www-form-urlencoded'
			},
			body: new URLSearchParams([['name', `for ${scopes.join()}`], ...scopes.map((one) => ['scopes', one])])
		});
		return /jaldi_[\w-]{43}/.exec(await answer.text())?.[0] ?? '';
	};
	const tokens = { read: await made(['read']), add: await made(['add']) };
	const note = () =>
		JSON.stringify({
			id: ulid(),
			kind: 'note',
			version: 1,
			observedAt: new Date().toISOString(),
			payload: { text: 'by a program' }
		});
	const add = (token: string) =>
		fetch(`${ORIGIN}/cases/${caseId}/entries`, {
			method: 'POST',
			headers: { authorization: `Bearer ${token}`, 'content-type': 'application/json' },
			body: note()
		});
	const wrong: string[] = [];
	for (const ask of everything(caseId).filter(({ known }) => known))
		for (const [scope, token] of Object.entries(tokens)) {
			const { status, body } = await send(ORIGIN, ask, { authorization: `Bearer ${token}` });
			const opens = askedOf(ask.route, ask.method, new URL(ask.path, ORIGIN))?.scope === scope;
			if (opens ? status === 401 || status === 403 || status >= 500 : status !== 403)
				wrong.push(`${scope}: ${ask.method} ${ask.path}: ${status} ${body.slice(0, 120)}`);
		}
	expect(wrong).toEqual([]);
	expect((await add(tokens.read)).status).toBe(403);
	expect((await add(tokens.add)).status).toBe(200);
	expect((await add('jaldi_unknown')).status).toBe(401);
	// Where a program begins: the case of a vehicle, by its plate.
	const cases = async (query: string) =>
		(
			await fetch(`${ORIGIN}/api/cases${query}`, { headers: { authorization: `Bearer ${tokens.read}` } })
		).json();
	expect((await cases('')).cases).toMatchObject([{ id: caseId, signed: false }]);
	expect(await cases('?plate=no%20such')).toMatchObject({ cases: [], total: 0 });
	expect((await cases('?state=signed')).cases).toEqual([]);
	const thread = await (
		await fetch(`${ORIGIN}/cases/${caseId}/case.json`, {
			headers: { authorization: `Bearer ${tokens.read}` }
		})
	).json();
	expect(thread.entries.at(-1)).toMatchObject({ kind: 'note', authorName: 'for add' });
});
