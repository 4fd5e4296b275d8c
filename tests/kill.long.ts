import { expect, request, test, type APIRequestContext } from '@playwright/test';
import { spawn, type ChildProcess } from 'node:child_process';
import { rmSync } from 'node:fs';
import sharp from 'sharp';
import { ulid } from 'ulid';
import { startServer, prepareShop } from '../scripts/shop.mjs';
import { PASSWORD } from '../demo/shop';
import { framePieces } from '../src/lib/core/live/pieces';
import { encodeCapture } from '../src/lib/core/scope/captureChunk';
import { encodeChunk } from '../src/lib/core/live/chunk';
import { Captures } from '../src/lib/server/db/captures';
import { openDatabase } from '../src/lib/server/db/open';
import { Photos } from '../src/lib/server/db/photos';
import { Threads } from '../src/lib/server/db/threads';
import { PORT } from './where';

/** A hundred with `npm run kill`; each one costs a start of the server, so that the usual run takes fewer. */
const KILLS = Number(process.env.JALDI_KILLS ?? 10);
const DATA = 'data/test-kill';
const KILL_PORT = PORT + 60;
const AT_ONCE = 4;
/** The kill falls right after this many answers, with everything else at every stage of being written. */
const killAfter = (round: number) => 1 + (round % (AT_ONCE + 3));

const bytesOf = (value: unknown) => new TextEncoder().encode(JSON.stringify(value));
const timeS = Float64Array.from({ length: 4_000 }, (_, i) => i / 50);
const drive = encodeChunk({ timeS, channels: new Map([['vehicle', timeS.map((t) => 30 + Math.sin(t))]]) });
const scope = encodeCapture({
	rateHz: 10_000,
	startS: 0,
	channels: [
		{ name: 'rear_left', volts: Float32Array.from({ length: 20_000 }, (_, i) => (i % 50 < 25 ? 0.8 : 1.6)) }
	]
});

/** What the server has said that it has. */
interface Kept {
	entries: Set<string>;
	photos: Set<string>;
	captures: Set<string>;
}

/** Everything that can be under way at once, each with what its answer promises. */
function works(client: APIRequestContext, caseId: string, round: number, picture: Buffer, kept: Kept) {
	const send = (path: string, data: Uint8Array | Buffer) =>
		client.post(`/cases/${caseId}/${path}`, {
			data: Buffer.from(data),
			headers: { 'content-type': 'application/octet-stream' }
		});
	const note = (i: number) => async () => {
		const id = ulid();
		const answer = await client.post(`/cases/${caseId}/entries`, {
			data: {
				id,
				kind: 'note',
				version: 1,
				observedAt: new Date().toISOString(),
				payload: { text: `round ${round}, entry ${i}` }
			}
		});
		if (answer.ok()) kept.entries.add(id);
		return answer.ok();
	};
	const about = (id: string) => ({ id, name: '', fileName: 'a.csv', bytes: 9 });
	return [
		...Array.from({ length: AT_ONCE }, (_, i) => note(i)),
		async () => {
			const id = ulid();
			const ok = (await send(`measure/photo?id=${id}`, picture)).ok();
			if (ok) kept.photos.add(id);
			return ok;
		},
		async () => {
			const id = ulid();
			const head = bytesOf({ ...about(id), remember: null });
			const ok = (await send('watch/import', framePieces([head, drive]))).ok();
			if (ok) kept.captures.add(id);
			return ok;
		},
		async () => {
			const id = ulid();
			const head = bytesOf({
				...about(id),
				at: 'module',
				teeth: null,
				positions: ['rear-left'],
				knownGood: false
			});
			const ok = (await send('measure/scope/import', framePieces([head, scope]))).ok();
			if (ok) kept.captures.add(id);
			return ok;
		},
		// Work on the vehicle: what it comes to may be lost, the server that starts again may not.
		async () => (await client.post(`/cases/${caseId}/work`, { data: { do: 'scan', entryId: ulid() } })).ok()
	];
}

/** Takes a signed case of the shop out as one file. */
async function bundleOf(client: APIRequestContext, caseId: string): Promise<Buffer> {
	const answer = await client.get(`/cases/${caseId}/bundle.zip`);
	expect(answer.ok()).toBe(true);
	return answer.body();
}

test('a server killed again and again with everything under way loses nothing it acknowledged, and starts each time', async () => {
	test.setTimeout(900_000);
	rmSync(DATA, { recursive: true, force: true });
	prepareShop({ data: DATA, firstPort: KILL_PORT + 1 });
	const bench: ChildProcess = spawn(
		process.execPath,
		[
			'--import',
			'./scripts/dieWithParent.mjs',
			'--import',
			'tsx',
			'demo/bench.ts',
			'--data',
			DATA,
			'--first-port',
			String(KILL_PORT + 1)
		],
		{ stdio: ['ignore', 'ignore', 'inherit', 'ipc'] }
	);
	await new Promise((resolve) => bench.once('message', resolve));
	const origin = `http://127.0.0.1:${KILL_PORT}`;
	const kept: Kept = { entries: new Set(), photos: new Set(), captures: new Set() };
	const picture = await sharp({ create: { width: 900, height: 700, channels: 3, background: '#4a6' } })
		.jpeg()
		.toBuffer();
	let storageState: Awaited<ReturnType<APIRequestContext['storageState']>> | undefined;
	let caseId = '';

	for (let round = 0; round < KILLS; round++) {
		const { server } = await startServer({ data: DATA, port: KILL_PORT, logLevel: 'error' });
		const client = await request.newContext({ baseURL: origin, storageState, extraHTTPHeaders: { origin } });
		if (!storageState) {
			await client.post('/sign-in?/in', { form: { username: 'marit', password: PASSWORD } });
			storageState = await client.storageState();
			const floor = await (await client.get('/', { headers: { accept: 'text/html' } })).text();
			caseId = /\/cases\/([0-9A-Z]{26})/.exec(floor)?.[1] ?? '';
			expect(caseId).not.toBe('');
		}
		const gone = new Promise((resolve) => server.once('exit', resolve));
		let answered = 0;
		const all = works(client, caseId, round, picture, kept).map(async (work) => {
			const ok = await work().catch(() => false);
			if (ok && ++answered === killAfter(round)) server.kill('SIGKILL');
		});
		// A bundle is on its way out of the one thread while all of it is written.
		const leaving = bundleOf(client, caseId).then(
			() => undefined,
			() => undefined
		);
		await Promise.all(all);
		server.kill('SIGKILL');
		await Promise.all([gone, leaving]);
		await client.dispose();
	}

	// It starts once more, and is told to stop with a stream open: that ends well and soon.
	const { server } = await startServer({ data: DATA, port: KILL_PORT, logLevel: 'error' });
	const client = await request.newContext({ baseURL: origin, storageState, extraHTTPHeaders: { origin } });
	const cookie = (storageState?.cookies ?? []).map(({ name, value }) => `${name}=${value}`).join('; ');
	const stream = await fetch(`${origin}/stream?case=${caseId}`, { headers: { cookie } });
	expect(stream.status).toBe(200);
	const began = Date.now();
	const stopped = new Promise((resolve) => server.once('exit', resolve));
	server.kill('SIGTERM');
	await stopped;
	expect(Date.now() - began).toBeLessThan(5_000);
	await client.dispose();
	bench.kill('SIGTERM');

	const db = await openDatabase(`file:${DATA}/jaldi.db`);
	const threads = new Threads(db);
	expect(await threads.check(caseId)).toEqual({ intact: true });
	const entries = new Set((await threads.read(caseId)).map((entry) => entry.id));
	const captures = new Captures(db);
	const photos = new Photos(db);
	const lost = {
		entries: [...kept.entries, ...kept.captures].filter((id) => !entries.has(id)),
		captures: [] as string[],
		photos: [] as string[]
	};
	for (const id of kept.captures)
		if ((await captures.pieces({ caseId, id })).length === 0) lost.captures.push(id);
	for (const id of kept.photos) if ((await photos.read(caseId, id)) === null) lost.photos.push(id);
	db.$client.close();
	expect(lost).toEqual({ entries: [], captures: [], photos: [] });
	// The kills must have fallen among the work, or nothing was tried.
	expect(kept.entries.size).toBeGreaterThan(KILLS / 2);
	expect(kept.entries.size).toBeLessThan(KILLS * AT_ONCE);
});
