// npm run load [-- SECONDS [PEOPLE [EVERY_S]]]: people at work in a shop of its own; ends with 1 where a bar is missed.
import { setTimeout as rest } from 'node:timers/promises';
import { ulid } from 'ulid';
import { openCases, ownShop, signIn } from './ownShop';

const [seconds = 60, people = 50, everyS = 2] = process.argv.slice(2).map(Number);
const PORT = 4870;
const APPEND_P95_MS = 60;
const STALL_MS = 200;
const PING_MS = 20;

const { origin, stop } = await ownShop('data/load', PORT);
const took: Record<'append' | 'case page' | 'floor' | 'alive', number[]> = {
	append: [],
	'case page': [],
	floor: [],
	alive: []
};
const failed: string[] = [];

async function timed(what: keyof typeof took, path: string, init: RequestInit): Promise<void> {
	const began = performance.now();
	const answer = await fetch(origin + path, init);
	await answer.arrayBuffer();
	took[what].push(performance.now() - began);
	if (answer.status >= 400) failed.push(`${answer.status} ${path}`);
}

const STATIONS = ['listen', 'read', 'watch', 'measure', 'reason', 'mend', 'prove', 'hand-over'];

/** One person: writes something down every other time, and looks at pages between. */
async function person(cookie: string, caseId: string, at: number, untilMs: number): Promise<void> {
	await rest((at / people) * everyS * 1000);
	for (let act = 0; performance.now() < untilMs; act++) {
		const nextMs = performance.now() + everyS * 1000;
		if (act % 2 === 0) {
			const body = JSON.stringify({
				id: ulid(),
				kind: 'note',
				version: 1,
				observedAt: new Date().toISOString(),
				payload: { text: `act ${act} of person ${at}` }
			});
			const headers = { cookie, origin, 'content-type': 'application/json' };
			await timed('append', `/cases/${caseId}/entries`, { method: 'POST', headers, body });
		} else if (act % 10 === 9) await timed('floor', '/__data.json', { headers: { cookie } });
		else
			await timed('case page', `/cases/${caseId}/${STATIONS[(act + at) % STATIONS.length]}/__data.json`, {
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
const cases = await openCases(origin, cookies[0] ?? '');
// The first looks fill what a server in use has at hand.
for (const id of cases)
	await fetch(`${origin}/cases/${id}/reason/__data.json`, { headers: { cookie: cookies[0] ?? '' } });
const untilMs = performance.now() + seconds * 1000;
await Promise.all([
	pulse(untilMs),
	...Array.from({ length: people }, (_, i) =>
		person(cookies[i % 2] ?? '', cases[i % cases.length] ?? '', i, untilMs)
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
