import fc from 'fast-check';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ulid } from 'ulid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { anyThread } from '$lib/case/thread/anyEntry.fixture';
import type { Entry } from '$lib/case/entries/entry';
import { entryHash, FIRST_PREVIOUS } from '$lib/case/thread/hashChain';
import type { RawEntry } from '$lib/case/thread/knownEntry';
import { addMember } from '$lib/server/accounts/auth';
import { startServices, type Services } from '$lib/server/services';
import { POSITIONS } from '$library/index';

/** Every page of a case loads, whatever stands on its thread. The database is real, and so are the loaders. */

const loaders = import.meta.glob<{ load?: (event: unknown) => unknown }>(
	'./cases/[[]id[]]/**/+{page,layout}.server.ts'
);
const folder = mkdtempSync(join(tmpdir(), 'jaldi-pages-'));
let services: Services;
let ana: { id: string; name: string };
let vehicleId: string;

beforeAll(async () => {
	services = await startServices({
		databaseUrl: `file:${join(folder, 'pages.db')}`,
		secret: 'x'.repeat(32),
		origin: 'http://127.0.0.1:1',
		logLevel: 'silent'
	});
	const id = await addMember(services.auth, {
		name: 'Ana',
		username: 'ana',
		password: 'tide-tables',
		role: 'lead'
	});
	ana = { id, name: 'Ana' };
	const vehicle = await services.vehicles.add({
		typeId: 'no-such-type',
		nickname: 'odd one',
		plate: '',
		vin: null,
		linkAddress: '127.0.0.1:1',
		standInAddress: '127.0.0.1:1'
	});
	vehicleId = vehicle.id;
});
afterAll(() => {
	services.db.$client.close();
	rmSync(folder, { recursive: true });
});

/** Lays a thread down as a case of its own, with ids of its own and hashes made anew. */
async function plant(drawn: readonly Entry[]): Promise<{ caseId: string; entries: RawEntry[] }> {
	const caseId = ulid();
	const ids = new Map(drawn.map(({ id }) => [id, ulid()]));
	let previousHash = FIRST_PREVIOUS;
	const entries = drawn.map((entry): RawEntry => {
		const id = ids.get(entry.id) ?? entry.id;
		const supersedes = entry.supersedes && {
			...entry.supersedes,
			entryId: ids.get(entry.supersedes.entryId) ?? entry.supersedes.entryId
		};
		const stamped = {
			...JSON.parse(JSON.stringify(entry)),
			id,
			caseId,
			authorId: ana.id,
			supersedes,
			previousHash
		};
		const whole = { ...stamped, hash: entryHash(stamped) } as RawEntry;
		previousHash = whole.hash;
		return whole;
	});
	await services.cases.open(caseId, vehicleId);
	await services.threads.takeIn(services.db, entries);
	return { caseId, entries };
}

/** What a thread may hold once: a second would be refused by the database. */
const oncePerThread = (thread: readonly Entry[]): Entry[] => {
	const signed = thread.findIndex(({ kind }) => kind === 'signature');
	return thread
		.slice(0, signed < 0 ? undefined : signed + 1)
		.filter((entry, i) => entry.kind !== 'case-opened' || i === 0)
		.map((entry, i) => ({ ...entry, seq: i + 1 }));
};

/** What a loader of a page of this entry is asked with. */
function eventFor(path: string, caseId: string, entries: readonly RawEntry[], at: string) {
	const idOf = (kind: string) => entries.find((entry) => entry.kind === kind)?.id ?? ulid();
	const url = new URL(`http://127.0.0.1:1/${path}?at=${at}&does=renew-sensor&place=${at}`);
	return {
		params: {
			id: caseId,
			recording: idOf('live-recording'),
			capture: idOf('scope-capture'),
			entry: idOf(path.includes('/log/') ? 'frame-log' : 'network-scan'),
			address: '1010'
		},
		url,
		depends: () => undefined,
		parent: () => Promise.resolve({ case: { next: null } }),
		locals: { services, member: { ...ana, username: 'ana', role: 'lead' }, requestId: ulid() },
		request: new Request(url),
		cookies: { get: () => undefined },
		setHeaders: () => undefined,
		fetch
	};
}

/** The pages that failed for a thread, each with why. A page may say that something is not there. */
async function failing(thread: readonly Entry[]): Promise<string[]> {
	const { caseId, entries } = await plant(oncePerThread(thread));
	const failed: string[] = [];
	for (const [path, page] of Object.entries(loaders)) {
		const { load } = await page();
		if (!load) continue;
		for (const at of path.includes('/measure') ? [POSITIONS[0], 'constructor'] : [POSITIONS[0]]) {
			try {
				const loaded = await load(eventFor(path, caseId, entries, at));
				// Also what follows a page.
				await Promise.all(Object.values(loaded ?? {}).map((one: { coming?: unknown } | null) => one?.coming));
			} catch (error) {
				const status = (error as { status?: number }).status ?? 500;
				if (status >= 500) failed.push(`${path}: ${(error as Error).stack ?? String(error)}`);
			}
		}
	}
	return failed;
}

describe('whatever stands on a thread', () => {
	it('there are pages to load', () => expect(Object.keys(loaders).length).toBeGreaterThan(20));

	it('every page of its case loads', { timeout: 120_000 }, async () => {
		await fc.assert(
			fc.asyncProperty(anyThread(24), async (thread) => {
				expect(await failing(thread)).toEqual([]);
			}),
			{ numRuns: 12, endOnFailure: true }
		);
	});

	it(
		'also where entries are of kinds, versions and shapes that this version does not know',
		{ timeout: 60_000 },
		async () => {
			const odd = (change: Partial<RawEntry>) => (entry: Entry, i: number) =>
				(i % 2 === 1 ? { ...entry, ...change } : entry) as Entry;
			const [drawn] = fc.sample(anyThread(24), { numRuns: 1, seed: 11 });
			for (const change of [
				{ kind: 'tide-table' },
				{ version: 9 },
				{ payload: null },
				{ payload: 'text' },
				{ payload: { modules: 7 } },
				{ observedAt: 'yesterday' },
				{ kind: 'constructor', payload: {} }
			])
				expect(await failing((drawn ?? []).map(odd(change)))).toEqual([]);
		}
	);
});
