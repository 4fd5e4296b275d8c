// npm run load [-- SECONDS [PEOPLE [EVERY_S]]]: people at work in a shop of its own; ends with 1 where a bar is missed.
import { setTimeout as rest } from 'node:timers/promises';
import { ulid } from 'ulid';
import { POSITIONS } from '../library/positions';
import { openCases, ownShop, signIn } from './ownShop';

const [seconds = 60, people = 50, everyS = 2] = process.argv.slice(2).map(Number);
const PORT = 4870;
const APPEND_P95_MS = 60;
const STALL_MS = 200;
const PING_MS = 20;

const { origin, stop } = await ownShop('data/load', PORT);
const took: Record<'append' | 'case page' | 'all of it' | 'floor' | 'alive', number[]> = {
	append: [],
	'case page': [],
	'all of it': [],
	floor: [],
	alive: []
};
const failed: string[] = [];

async function timed(what: keyof typeof took, path: string, init: RequestInit): Promise<void> {
	const began = performance.now();
	const answer = await fetch(origin + path, init);
	const contents = answer.body?.getReader();
	// A page is there with the first that comes of it; what is still being worked out follows.
	await contents?.read();
	took[what].push(performance.now() - began);
	while (contents && !(await contents.read()).done);
	if (what === 'case page') took['all of it'].push(performance.now() - began);
	if (answer.status >= 400) failed.push(`${answer.status} ${path}`);
}

const STATIONS = ['listen', 'read', 'watch', 'measure', 'reason', 'mend', 'prove', 'hand-over'];

/** What somebody writes down: a note, and every third time something that bears on what is wrong. */
const written = (act: number, at: number, wheel: string | undefined) =>
	act % 3 === 0 && wheel ? looked(wheel, act % 2 === 0) : note(`act ${act} of person ${at}`);

const note = (text: string) => ({ kind: 'note', payload: { text } });
const looked = (position: string, good: boolean) => ({
	kind: 'inspection',
	payload: {
		inspection: 'seating',
		name: 'How the sensor sits',
		position,
		result: good ? 'good' : 'unsure',
		found: [],
		gapMm: null,
		note: '',
		photos: [],
		proves: [],
		implicates: [],
		says: 'looked at'
	}
});

const append = (cookie: string, caseId: string, entry: object): [string, RequestInit] => [
	`/cases/${caseId}/entries`,
	{
		method: 'POST',
		headers: { cookie, origin, 'content-type': 'application/json' },
		body: JSON.stringify({ id: ulid(), version: 1, observedAt: new Date().toISOString(), ...entry })
	}
];

/** A wheel of the case's vehicle that can be looked at: the first that the server takes. */
async function wheelOf(cookie: string, caseId: string): Promise<string | undefined> {
	for (const position of POSITIONS) {
		const [path, init] = append(cookie, caseId, looked(position, true));
		if ((await fetch(origin + path, init)).ok) return position;
	}
	return undefined;
}

/** One person: writes something down every other time, and looks at pages between. */
async function person(
	cookie: string,
	{ id, wheel }: { id: string; wheel: string | undefined },
	at: number,
	untilMs: number
): Promise<void> {
	await rest((at / people) * everyS * 1000);
	for (let act = 0; performance.now() < untilMs; act++) {
		const nextMs = performance.now() + everyS * 1000;
		if (act % 2 === 0) {
			await timed('append', ...append(cookie, id, written(act / 2, at, wheel)));
		} else if (act % 10 === 9) await timed('floor', '/__data.json', { headers: { cookie } });
		else
			await timed('case page', `/cases/${id}/${STATIONS[(act + at) % STATIONS.length]}/__data.json`, {
				headers: { cookie }
			});
		await rest(Math.max(0, nextMs - performance.now()));
	}
}

/** Something that asks for next to nothing all the time: how long it waits is how long nobody was served. */
async function pulse(untilMs: number): Promise<void> {
	while (performance.now() < untilMs) {
		await timed('alive', '/healthz', {});
		await rest(PING_MS);
	}
}

const quantile = (values: number[], q: number) =>
	[...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(q * values.length))] ?? NaN;

const cookies = [await signIn(origin, 'ana'), await signIn(origin, 'teo')];
const cases: { id: string; wheel: string | undefined }[] = [];
// The first looks fill what a server in use has at hand.
for (const id of await openCases(origin, cookies[0] ?? '')) {
	cases.push({ id, wheel: await wheelOf(cookies[0] ?? '', id) });
	const page = await fetch(`${origin}/cases/${id}/reason/__data.json`, {
		headers: { cookie: cookies[0] ?? '' }
	});
	await page.text();
}
const untilMs = performance.now() + seconds * 1000;
await Promise.all([
	pulse(untilMs),
	...Array.from({ length: people }, (_, i) =>
		person(cookies[i % 2] ?? '', cases[i % cases.length] ?? { id: '', wheel: undefined }, i, untilMs)
	)
]);
stop();
console.log(`${people} people, one act each ${everyS} s, ${seconds} s, ${cases.length} cases`);
for (const [what, values] of Object.entries(took))
	console.log(
		`${what.padEnd(10)} ${String(values.length).padStart(6)}  p50 ${quantile(values, 0.5).toFixed(0)} ms  p95 ${quantile(values, 0.95).toFixed(0)} ms  most ${Math.max(...values).toFixed(0)} ms`
	);
const missed = [
	...(failed.length > 0 ? [`${failed.length} failed, such as ${failed[0]}`] : []),
	...(quantile(took.append, 0.95) >= APPEND_P95_MS ? [`append p95 is not below ${APPEND_P95_MS} ms`] : []),
	...(Math.max(...took.alive) > STALL_MS ? [`nobody was served for more than ${STALL_MS} ms`] : [])
];
console.log(missed.length === 0 ? 'good' : `MISSED: ${missed.join('; ')}`);
process.exit(missed.length === 0 ? 0 : 1);
