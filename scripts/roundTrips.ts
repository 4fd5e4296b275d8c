import { mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { startLibsqlStandIn } from '../src/lib/server/db/libsqlStandIn.fixture';
import { buildWhenStale } from './build.mjs';
import { openCases, signIn } from './ownShop';
import { prepareShop, startServer } from './shop.mjs';

/** How often each page goes over the line to a database elsewhere, and how long it takes with so much time on the way. */
const LATENCY_MS = 20;
const TIMES = 5;
const DATA = 'data/round-trips';
const PORT = 5950;

buildWhenStale();
rmSync(DATA, { recursive: true, force: true });
mkdirSync(DATA, { recursive: true });
prepareShop({ data: DATA, firstPort: PORT + 10 });
const remote = await startLibsqlStandIn(join(DATA, 'jaldi.db'), { latencyMs: LATENCY_MS });
const { origin, server } = await startServer({
	data: DATA,
	port: PORT,
	logLevel: 'silent',
	database: remote.url
});
try {
	const cookie = await signIn(origin, 'ana');
	const [id = ''] = await openCases(origin, cookie);
	const headers = { cookie, accept: 'text/html' };
	const stations = ['listen', 'read', 'watch', 'measure', 'reason', 'mend', 'prove', 'hand-over'];
	console.log(`${LATENCY_MS} ms on the way; fewest round trips and middle time of ${TIMES}`);
	for (const path of [
		'/',
		'/closed',
		...stations.map((one) => `/cases/${id}/${one}`),
		'/codes/C0045-13',
		'/library'
	]) {
		const seen: { trips: number; ms: number }[] = [];
		for (let i = 0; i < TIMES; i++) {
			const before = remote.requests();
			const began = performance.now();
			await (await fetch(origin + path, { headers })).text();
			seen.push({ trips: remote.requests() - before, ms: performance.now() - began });
		}
		const trips = Math.min(...seen.map((one) => one.trips));
		const middle = seen.map(({ ms }) => ms).sort((a, b) => a - b)[TIMES >> 1] ?? 0;
		console.log(
			`${path.replace(id, 'ID').padEnd(24)} ${String(trips).padStart(2)} trips ${middle.toFixed(0).padStart(5)} ms`
		);
	}
} finally {
	server.kill('SIGTERM');
	await new Promise((resolve) => server.once('exit', resolve));
	await remote.close();
}
process.exit(0);
