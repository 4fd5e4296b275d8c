import { expect, request, test } from '@playwright/test';
import { rmSync } from 'node:fs';
import { ulid } from 'ulid';
import { startServer, prepareShop } from '../scripts/shop.mjs';
import { PASSWORD } from '../demo/shop';
import { checkChain } from '../src/lib/case/hashChain';
import { openDatabase } from '../src/lib/server/db/open';
import { Threads } from '../src/lib/server/db/threads';
import { PORT } from './where';

/** A hundred with `npm run kill`; each one costs a start of the server, so that the usual run takes fewer. */
const KILLS = Number(process.env.JALDI_KILLS ?? 12);
const DATA = 'data/test-kill';
const KILL_PORT = PORT + 60;
const AT_ONCE = 6;
/** The kill falls right after this many answers, with the other appends at every stage of being written. */
const killAfter = (round: number) => 1 + (round % (AT_ONCE - 2));

test('a server killed again and again in the middle of appends loses nothing it acknowledged', async () => {
	test.setTimeout(480_000);
	rmSync(DATA, { recursive: true, force: true });
	prepareShop({ data: DATA, firstPort: KILL_PORT + 1 });
	const origin = `http://127.0.0.1:${KILL_PORT}`;
	const acknowledged = new Set<string>();
	let storageState:
		Awaited<ReturnType<Awaited<ReturnType<typeof request.newContext>>['storageState']>> | undefined;
	let caseId = '';

	for (let round = 0; round < KILLS; round++) {
		const { server } = await startServer({ data: DATA, port: KILL_PORT, logLevel: 'silent' });
		const client = await request.newContext({ baseURL: origin, storageState, extraHTTPHeaders: { origin } });
		if (!storageState) {
			await client.post('/sign-in?/in', { form: { username: 'ana', password: PASSWORD } });
			storageState = await client.storageState();
			const floor = await (await client.get('/', { headers: { accept: 'text/html' } })).text();
			caseId = /\/cases\/([0-9A-Z]{26})/.exec(floor)?.[1] ?? '';
			expect(caseId).not.toBe('');
		}
		let answered = 0;
		const appends = Array.from({ length: AT_ONCE }, async (_, i) => {
			const id = ulid();
			const data = {
				id,
				kind: 'note',
				version: 1,
				observedAt: new Date().toISOString(),
				payload: { text: `round ${round}, entry ${i}` }
			};
			const answer = await client.post(`/cases/${caseId}/entries`, { data }).catch(() => null);
			if (!answer?.ok()) return;
			acknowledged.add(id);
			if (++answered === killAfter(round)) server.kill('SIGKILL');
		});
		const gone = new Promise((resolve) => server.once('exit', resolve));
		await Promise.all([...appends, gone]);
		await client.dispose();
	}

	const db = await openDatabase(`file:${DATA}/jaldi.db`);
	const thread = await new Threads(db).read(caseId);
	db.$client.close();
	expect(checkChain(thread)).toEqual({ intact: true });
	const kept = new Set(thread.map((entry) => entry.id));
	expect([...acknowledged].filter((id) => !kept.has(id))).toEqual([]);
	// The kills must have fallen among the appends, or nothing was tried.
	expect(acknowledged.size).toBeGreaterThan(KILLS);
	expect(acknowledged.size).toBeLessThan(KILLS * AT_ONCE);
});
