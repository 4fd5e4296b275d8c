// npm run fuzz-server [-- REQUESTS [SEED]]: anything at all, sent to every address of a running server by people who are signed in
// and by strangers. Ends with 1 where one was answered with 500, was never answered, or the memory did not come back.
import { readFileSync } from 'node:fs';
import { setTimeout as rest } from 'node:timers/promises';
import fc from 'fast-check';
import { anyRequest, type AnyRequest } from './anyRequest';
import { openCases, ownShop, signIn } from './ownShop';

const [requests = 20_000, seed = 19] = process.argv.slice(2).map(Number);
const PORT = 4840;
const AT_ONCE = 8;
const DRAWN_AT_ONCE = 400;
const LONGEST_MS = 30_000;
/** What a server that has seen everything may keep: its caches and its workers. */
const MOST_GROWTH_MB = 200;
const SETTLED_MS = 25_000;

const { origin, server, stop } = await ownShop('data/fuzz', PORT, 'error');
const cookies = [
	await signIn(origin, 'ana'),
	await signIn(origin, 'marit'),
	await signIn(origin, 'guest'),
	''
];
const cases = await openCases(origin, cookies[0] ?? '');
const objects: string[] = [];
for (const id of cases) {
	const thread = await (
		await fetch(`${origin}/cases/${id}/case.json`, { headers: { cookie: cookies[0] ?? '' } })
	).json();
	for (const { id: entry } of (thread as { entries: { id: string }[] }).entries) objects.push(entry);
}

const memoryMb = () =>
	Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.pid}/status`, 'utf8'))?.[1] ?? 0) / 1024;
const counts = new Map<number, number>();
const bad: string[] = [];
const shown = ({ method, path, body }: AnyRequest) =>
	`${method} ${path} ${body ? JSON.stringify(Buffer.from(body).toString('latin1').slice(0, 300)) : ''}`;

async function send(one: AnyRequest, at: number): Promise<void> {
	const cookie = cookies[at % 16 === 0 ? 3 : at % 3] ?? '';
	try {
		const answer = await fetch(origin + one.path, {
			method: one.method,
			headers: { ...one.headers, origin, ...(cookie ? { cookie } : {}) },
			body: one.body as BodyInit | null,
			redirect: 'manual',
			signal: AbortSignal.timeout(LONGEST_MS)
		});
		// A stream goes on for ever: what it begins with will do.
		if (answer.headers.get('content-type') === 'text/event-stream') await answer.body?.cancel();
		else await answer.arrayBuffer();
		counts.set(answer.status, (counts.get(answer.status) ?? 0) + 1);
		if (answer.status >= 500 && answer.status !== 503) bad.push(`${answer.status} ${shown(one)}`);
		// A form that fails inside answers 200 to whoever asked by script, and says so in words.
	} catch (error) {
		bad.push(`no answer (${(error as Error).message}) ${shown(one)}`);
	}
}

// Workers and caches that a server in use has anyway are there before it is weighed.
for (const id of cases)
	for (const page of ['reason/__data.json', 'report.pdf', 'bundle.zip'])
		await (
			await fetch(`${origin}/cases/${id}/${page}`, { headers: { cookie: cookies[0] ?? '' } })
		).arrayBuffer();
const beforeMb = memoryMb();
const began = performance.now();
let sent = 0;
let quarterMb = NaN;
for (let round = 0; sent < requests; round++) {
	const drawn = fc.sample(anyRequest(cases, objects), { numRuns: DRAWN_AT_ONCE, seed: seed * 1_000 + round });
	let next = 0;
	await Promise.all(
		Array.from({ length: AT_ONCE }, async () => {
			for (let at = next++; at < drawn.length && sent < requests; at = next++) {
				sent++;
				await send(drawn[at] as AnyRequest, at);
			}
		})
	);
	if (sent * 4 >= requests && Number.isNaN(quarterMb)) quarterMb = memoryMb();
	if (server.exitCode !== null) break;
}
const seconds = (performance.now() - began) / 1000;
const peakMb = memoryMb();
await rest(SETTLED_MS);
const afterMb = server.exitCode === null ? memoryMb() : NaN;
stop();
console.log(`${sent} requests in ${seconds.toFixed(0)} s, seed ${seed}`);
console.log(
	[...counts]
		.sort((a, b) => a[0] - b[0])
		.map(([status, n]) => `${status}: ${n}`)
		.join('  ')
);
console.log(
	`memory: ${beforeMb.toFixed(0)} MB before, ${quarterMb.toFixed(0)} MB after a quarter, ${peakMb.toFixed(0)} MB at the end, ${afterMb.toFixed(0)} MB when it had rested`
);
if (server.exitCode !== null) bad.push('the server has stopped');
if (afterMb - beforeMb > MOST_GROWTH_MB) bad.push(`it kept ${(afterMb - beforeMb).toFixed(0)} MB`);
for (const one of bad.slice(0, 40)) console.log(one);
console.log(bad.length === 0 ? 'good' : `FAILED: ${bad.length}`);
process.exit(bad.length === 0 ? 0 : 1);
