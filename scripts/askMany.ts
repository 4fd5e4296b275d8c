// npm run ask-many -- [FOLDER]: how long a server with a great many cases takes to start, to answer, and stands still meanwhile.
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as rest } from 'node:timers/promises';
import Sqlite from 'libsql';
import { ulid } from 'ulid';
import { buildWhenStale } from './build.mjs';
import { openCases, signIn } from './ownShop';
import { startServer } from './shop.mjs';

const [folder = 'data/many'] = process.argv.slice(2);
const PORT = 5_690;
const TIMES = 40;
const PING_MS = 10;
const file = join(folder, 'jaldi.db');
if (!existsSync(file)) throw new Error(`${file} is not there: npm run many-cases makes it.`);

const quantile = (values: number[], q: number) =>
	[...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(q * values.length))] ?? NaN;
const line = (what: string, values: number[]) =>
	console.log(
		`${what.padEnd(34)} p50 ${quantile(values, 0.5).toFixed(1).padStart(7)} ms   p95 ${quantile(values, 0.95).toFixed(1).padStart(7)} ms`
	);

// What the same disk and the same library do alone.
const db = new Sqlite(file);
const [{ n: cases }] = db.prepare('SELECT COUNT(*) AS n FROM case_record').all() as [{ n: number }];
const some = db
	.prepare('SELECT id FROM case_record WHERE signed = 1 AND number % ? = 0 LIMIT ?')
	.all(Math.max(1, Math.floor(cases / (TIMES * 2))), TIMES) as { id: string }[];
const thread = db.prepare('SELECT * FROM entry WHERE case_id = ? ORDER BY seq');
const plain: number[] = [];
for (const { id } of some) {
	const began = performance.now();
	thread.all(id);
	plain.push(performance.now() - began);
}
db.exec('PRAGMA synchronous = FULL; CREATE TEMP TABLE asked (x)');
const written: number[] = [];
const write = db.prepare('UPDATE session SET updated_at = updated_at WHERE id = ?');
for (let i = 0; i < TIMES; i++) {
	const began = performance.now();
	write.run(String(i));
	written.push(performance.now() - began);
}
db.close();

buildWhenStale();
process.env.JALDI_REQUESTS_PER_MINUTE ??= '1000000';
const startedMs = performance.now();
const { origin, server } = await startServer({ data: folder, port: PORT, logLevel: 'error' });
console.log(`${cases} cases; ready after ${((performance.now() - startedMs) / 1000).toFixed(1)} s`);
let stop = false;
const stalls: number[] = [];
const watching = (async () => {
	while (!stop) {
		const began = performance.now();
		await (await fetch(`${origin}/healthz`)).text();
		stalls.push(performance.now() - began);
		await rest(PING_MS);
	}
})();
const longest = () => Math.max(0, ...stalls.splice(0));
let failed = 0;

async function asked(what: string, paths: readonly string[], cookie: string): Promise<void> {
	const took: number[] = [];
	longest();
	for (const path of paths) {
		const began = performance.now();
		const answer = await fetch(origin + path, { headers: { cookie } });
		await answer.text();
		if (!answer.ok) failed++;
		took.push(performance.now() - began);
	}
	line(what, took);
	console.log(`${''.padEnd(34)} nobody served for ${longest().toFixed(0)} ms`);
}
const again = (path: string) => Array.from({ length: TIMES }, () => path);

line('one thread, plainly', plain);
line('one write, plainly', written);
const cookie = await signIn(origin, 'marit');
const open = await openCases(origin, cookie);
await asked('floor, first', ['/__data.json'], cookie);
await asked('floor', again('/__data.json'), cookie);
await asked('closed, first page', again('/closed/__data.json'), cookie);
await asked('closed, last page', again('/closed/__data.json?page=999999'), cookie);
await asked(
	'signed case, not seen before',
	some.map(({ id }) => `/cases/${id}/hand-over/__data.json`),
	cookie
);
await asked('open case', again(`/cases/${open[0]}/read/__data.json`), cookie);
await asked('search, a common word', again('/decoder?q=gravel'), cookie);
await asked('search, several words', again('/decoder?q=cold%20ferry%20pedal'), cookie);
await asked('code, with its cases', again('/codes/C0045/__data.json'), cookie);
await asked('new case', again('/cases/new/__data.json'), cookie);
await asked('vehicle by its plate', again('/api/cases?plate=TP%20500'), cookie);
await asked('figures', ['/figures/__data.json', '/figures/__data.json'], cookie);
const appended: number[] = [];
longest();
for (let i = 0; i < TIMES; i++) {
	const began = performance.now();
	const entry = {
		id: ulid(),
		kind: 'note',
		version: 1,
		observedAt: new Date().toISOString(),
		payload: { text: 'one more' }
	};
	const answer = await fetch(`${origin}/cases/${open[0]}/entries`, {
		method: 'POST',
		headers: { cookie, origin, 'content-type': 'application/json' },
		body: JSON.stringify(entry)
	});
	await answer.text();
	if (!answer.ok) failed++;
	appended.push(performance.now() - began);
}
line('an entry', appended);
const metrics = await (await fetch(`${origin}/metrics`, { headers: { cookie } })).text();
const memory = /^jaldi_process_resident_memory_bytes (\S+)/m.exec(metrics)?.[1];
console.log(`memory ${(Number(memory) / 1e6).toFixed(0)} MB; ${failed} failed`);
stop = true;
await watching;
server.kill('SIGTERM');
await new Promise((resolve) => server.once('exit', resolve));
process.exit(failed > 0 ? 1 : 0);
