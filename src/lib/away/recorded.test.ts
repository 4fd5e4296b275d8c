import { strFromU8, unzipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { recordedAt, RECORDED_AGO_MS } from '../case/entries/recordedHeaders';
import { exportOf } from './export';
import { mayBeKept, PAGES_OF_CASE, PAGES_OF_SHOP, stationsOf } from './keptPages';
import { gistOf, readAnswer, type Waiting } from './recorded';

const read = (text: string) => JSON.parse(text) as unknown;
const answerOf = (response: Response) => readAnswer('a', response, read);
const form = (said: object, status = 200) => answerOf(Response.json(said, { status }));

describe('what the server makes of one that was sent', () => {
	it('is stored by the server’s own word alone', async () => {
		expect(await form({ id: 'a' })).toMatchObject({ state: 'arrived' });
		expect(await form({ id: 'b' })).toEqual({ state: 'later', away: true });
		expect(await form({ type: 'success', data: {} })).toMatchObject({ state: 'arrived' });
		expect(await form({ type: 'redirect', location: '/cases/x' })).toMatchObject({ state: 'arrived' });
		expect(await answerOf(new Response('<h1>Sign in to this network</h1>'))).toMatchObject({
			state: 'later'
		});
	});

	it('is refused with the sentence that a person can act on, wherever it stands', async () => {
		const why = async (said: object, status: number) => {
			const answer = await form(said, status);
			return answer.state === 'refused' ? answer.why : answer.state;
		};
		expect(await why({ message: 'not yours' }, 403)).toBe('not yours');
		expect(await why({ type: 'error', error: { message: 'too large' } }, 413)).toBe('too large');
		expect(await why({ type: 'failure', data: { form: { message: 'signed' } } }, 200)).toBe('signed');
		expect(
			await why({ type: 'failure', data: { form: { errors: { parts: [{ name: ['Name it.'] }] } } } }, 200)
		).toBe('Name it.');
		expect(await why({}, 500)).toBe('the server answered 500');
	});

	it('is refused where something before the server refuses it for good, and waits behind another’s page', async () => {
		const page = (status: number) => answerOf(new Response('<h1>No</h1>', { status }));
		expect(await page(413)).toMatchObject({
			state: 'refused',
			status: 413,
			text: '',
			why: 'the server answered 413'
		});
		for (const status of [200, 502, 511]) expect(await page(status)).toEqual({ state: 'later', away: true });
	});

	it('waits where the server has no time, and for whoever is to sign in', async () => {
		for (const [status, away] of [
			[408, false],
			[429, false],
			[502, true],
			[503, false],
			[504, true]
		] as const)
			expect(await form({}, status)).toEqual({ state: 'later', away });
		expect(await form({ message: 'Sign in first.' }, 401)).toEqual({ state: 'shut', why: 'Sign in first.' });
	});
});

describe('when something was recorded', () => {
	const now = new Date('2026-03-02T12:00:00Z');
	const at = (ago: string) => recordedAt(new Headers({ [RECORDED_AGO_MS]: ago }), now);
	it('is told by its age, and by the server’s clock where that makes no sense', () => {
		expect(at('3600000')).toBe('2026-03-02T11:00:00.000Z');
		expect(recordedAt(new Headers(), now)).toBe(now.toISOString());
		for (const wrong of ['-5', 'soon', '1e18', 'Infinity', '']) expect(at(wrong)).toBe(now.toISOString());
	});
});

describe('pages that a device may keep', () => {
	const ID = '01JNB3A0000000000000000000';
	it('are those of use without a server, and never those of people, of the server or of a sign-in', () => {
		for (const path of [
			...PAGES_OF_SHOP,
			...PAGES_OF_CASE.map((page) => `/cases/${ID}/${page}`),
			'/codes/C0035-14'
		])
			expect(mayBeKept(path), path).toBe(true);
		for (const path of [
			'/people',
			'/me',
			'/health',
			'/sign-in',
			'/locked',
			'/join',
			'/first-lead',
			'/figures'
		])
			expect(mayBeKept(path), path).toBe(false);
		for (const path of [
			'/library/shops',
			`/cases/${ID}/bundle.zip`,
			`/cases/${ID}/report.pdf`,
			`/cases/${ID}/work`
		])
			expect(mayBeKept(path), path).toBe(false);
	});

	it('a case’s own address leads to a station of it', () => {
		expect(stationsOf(`/cases/${ID}`)[0]).toBe(`/cases/${ID}/listen`);
		expect(stationsOf(`/cases/${ID}/read`)).toEqual([]);
	});
});

it('what waits is taken out as a file with its contents as they would have gone', async () => {
	const one = (seq: number): Waiting => ({
		seq,
		key: `k${seq}`,
		id: `i${seq}`,
		caseId: null,
		what: 'Note',
		path: '/e',
		type: 'application/json',
		bytes: 2,
		by: 'ana',
		byName: 'Ana',
		at: '2026-03-02T12:00:00Z'
	});
	const bodies = new Map<string, string | Uint8Array<ArrayBuffer>>([
		['k1', '{}'],
		['k2', new Uint8Array([1, 2])]
	]);
	const files = unzipSync(
		await exportOf([one(1), one(2), one(3)], ({ key }) => Promise.resolve(bodies.get(key) ?? null))
	);
	const list = JSON.parse(strFromU8(files['waiting.json'] ?? new Uint8Array())) as {
		format: string;
		waiting: { contents: string | null }[];
	};
	expect(list.format).toBe('jaldi-waiting');
	const contents = list.waiting.map(({ contents: name }) =>
		name === null ? null : [...(files[name] ?? [])]
	);
	expect(contents).toEqual([[123, 125], [1, 2], null]);
});

it('what waits is told from others of its kind by its longest text, and never by an id', () => {
	expect(gistOf({ entryId: '01JNB3A0000000000000000000', why: '', text: 'Feed 11.9 V' })).toBe('Feed 11.9 V');
	expect(
		gistOf({ photos: [{ sha256: 'a'.repeat(64) }], found: ['rubbed'], at: '2026-03-02T12:00:00Z' })
	).toBe('rubbed');
	expect(gistOf({ text: 'x'.repeat(500) }).length).toBeLessThan(100);
	expect(gistOf({ volts: 3 })).toBe('');
});
