import { SI } from '../../core/units/units';
import { readFileSync } from 'node:fs';
import sharp from 'sharp';
import { strToU8, zipSync } from 'fflate';
import { ulid } from 'ulid';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { checkBundle, packBundle, unpackBundle } from '../../case/paper/bundle';
import { signBundle } from '../../case/paper/bundleSignature';
import { writeCaseFile } from '../../case/thread/caseFile';
import { describeEntry } from '../../case/thread/describe';
import { entryHash, FIRST_PREVIOUS } from '../../case/thread/hashChain';
import type { RawEntry } from '../../case/thread/knownEntry';
import { caseSchemaText } from '../../case/thread/caseSchema';
import { withKinds } from '../../case/entries/kindsTable';
import type { EntryKind, PayloadOf } from '../../case/entries/entry';
import { keptLog, readLog } from '../../case/codes/frameLogReading';
import { captureHash, samplesHash } from '../../case/thread/samplesHash';
import { LogKeeper } from '../../case/codes/logKeeper';
import { projectCase } from '../../case/progress/project';
import { caseReport } from '../../case/paper/report';
import { ThreadMaker } from '../../case/thread/threads.fixture';
import { encodeChunk } from '../../core/live/chunk';
import { framePieces } from '../../core/live/pieces';
import { encodeCapture } from '../../core/scope/captureChunk';
import { scopePayload } from '../jobs/scopeCapture';
import { unpackedLog } from '../cases/keptLog';
import { Captures, wholePieces } from '../db/captures';
import { Photos } from '../db/photos';
import { caseRecord, shopKey } from '../db/schema';
import { ShopFigures } from '../db/shopFigures';
import { TrackRecord } from '../db/trackRecord';
import { openTestShop, put as putEntry, type TestShop } from '../shop.fixture';
import { exportBundle } from './exportBundle';
import { ShopKeys } from '../db/shopKeys';
import { examineBundle, takeAwayHalves, takeInBundle } from './importBundle';

let [one, other]: TestShop[] = [];
let [shop, empty] = [one, other] as unknown as [TestShop, TestShop];
beforeEach(async () => {
	[shop, empty] = [await openTestShop(), await openTestShop()];
	[one, other] = [shop, empty];
});
afterEach(() => {
	one?.close();
	other?.close();
});

const put = <K extends EntryKind>(kind: K, payload: PayloadOf<K>, id?: string) =>
	putEntry(shop, kind, payload, id === undefined ? {} : { id });

/** A case with a scan, a recording and a photo. */
async function filled(): Promise<{ recording: string; photo: string }> {
	await put('case-opened', {
		vehicleId: 'v',
		typeId: 'brindle-marlow-16',
		name: 'minibus',
		plate: 'TP 16'
	});
	const maker = new ThreadMaker().listen();
	for (const { kind, payload } of maker.thread) await put(kind as 'note', payload as never);
	const photo = ulid();
	const kept = await new Photos(shop.db).keep(
		{ id: photo, caseId: shop.caseId, authorId: shop.ana.id },
		await sharp({ create: { width: 40, height: 30, channels: 3, background: '#a53' } })
			.png()
			.toBuffer()
	);
	if (!kept.ok) throw new Error(kept.error);
	await put('inspection', {
		position: 'rear-left',
		inspection: 'gap',
		name: 'Air gap',
		result: 'bad',
		found: ['rust under the sensor'],
		gapMm: 2.1,
		note: '',
		photos: [{ id: photo, sha256: kept.value.sha256 }],
		proves: [],
		implicates: ['gap'],
		says: 'The gap is too wide.'
	} as never);
	const recording = ulid();
	const captures = new Captures(shop.db);
	await captures.begin({
		id: recording,
		caseId: shop.caseId,
		authorId: shop.ana.id,
		name: 'road',
		startedAt: new Date().toISOString()
	});
	const timeS = Float64Array.from({ length: 500 }, (_, i) => i / 10);
	const samples = { timeS, channels: new Map([['vehicle', timeS.map((t) => 30 + Math.sin(t) / 3)]]) };
	await captures.finish({ caseId: shop.caseId, id: recording }, wholePieces(samples));
	await put(
		'live-recording',
		{
			name: 'road',
			source: { kind: 'vehicle' },
			durationS: 49.9,
			rows: 500,
			rateHz: 10,
			channels: ['vehicle'],
			marks: [],
			endedBecause: null,
			findings: [],
			common: [],
			notes: [],
			verdict: 'clean',
			shortestVisibleS: 0.1,
			samplesSha256: samplesHash(samples)
		},
		recording
	);
	return { recording, photo };
}

async function bundled(): Promise<Uint8Array> {
	const thread = await shop.threads.read(shop.caseId);
	const row = await shop.cases.find(shop.caseId);
	if (!row) throw new Error('no case');
	const { id, typeId, nickname, plate } = row.vehicle;
	return exportBundle(
		shop.caseId,
		thread,
		{
			shop: 'Tern Point Works',
			number: row.number,
			wanted: row.wanted,
			createdAt: thread[0]?.receivedAt ?? '',
			vehicle: { id, typeId, nickname, plate }
		},
		{
			head: {
				shopName: 'Tern Point Works',
				units: SI,
				shopAddress: '',
				footer: '',
				logo: '',
				number: row.number,
				vehicleName: row.vehicleName,
				nickname,
				plate,
				url: 'http://127.0.0.1/cases/x',
				printedAt: new Date().toISOString()
			},
			report: caseReport(thread, projectCase(thread))
		},
		{ captures: new Captures(shop.db), photos: new Photos(shop.db) },
		await new ShopKeys(shop.db).own()
	);
}

/** As the page takes a bundle in. */
async function bringIn({ db, threads }: TestShop, zip: Uint8Array) {
	const examined = await examineBundle(zip);
	return examined.ok ? takeInBundle(db, threads, examined.value) : examined;
}

describe('a case from one shop to another', () => {
	it('comes in with the same thread, projections, samples and photos', async () => {
		const { recording, photo } = await filled();
		const zip = await bundled();
		const taken = await bringIn(empty, zip);
		expect(taken).toMatchObject({ ok: true, value: { caseId: shop.caseId, known: false } });
		const [here, there] = [await shop.threads.read(shop.caseId), await empty.threads.read(shop.caseId)];
		expect(there).toEqual(here);
		expect(projectCase(there)).toEqual(projectCase(here));
		const own = { caseId: shop.caseId, id: recording };
		expect(await new Captures(empty.db).read(own)).toEqual(await new Captures(shop.db).read(own));
		expect(await new Photos(empty.db).read(shop.caseId, photo)).toEqual(
			await new Photos(shop.db).read(shop.caseId, photo)
		);
		await empty.cases.refresh(shop.caseId);
		expect(await empty.cases.find(shop.caseId)).toMatchObject({ vehicle: { nickname: 'school minibus' } });
	});

	it('holds its papers, its schema and its captures as CSV', async () => {
		const { recording, photo } = await filled();
		const unpacked = unpackBundle(await bundled());
		if (!unpacked.ok) throw new Error(unpacked.error);
		expect([...unpacked.value.keys()].sort()).toEqual(
			[
				'case.json',
				'case.schema.json',
				`captures/${recording}.bin`,
				`captures/${recording}.csv`,
				'hashes.txt',
				`photos/${photo}.jpg`,
				'report-customer.pdf',
				'report.pdf',
				'signature.json'
			].sort()
		);
		const start = (name: string, bytes: number) =>
			new TextDecoder().decode(unpacked.value.get(name)?.slice(0, bytes));
		expect(start('report.pdf', 5)).toBe('%PDF-');
		expect(start(`captures/${recording}.csv`, 30)).toMatch(/^time_s,vehicle/);
	});

	it('a frame log goes with its case, byte for byte; another in its place is named', async () => {
		await filled();
		const log = '(1.000000) bus0 7E0#031902FF00000000\n(1.010000) bus0 7E8#0459020000000000\n';
		const id = ulid();
		const keeper = new LogKeeper();
		const analysis = await readLog(
			keeper.through(
				(async function* () {
					yield strToU8(log);
				})()
			)
		);
		const kept = keeper.end();
		if (!kept) throw new Error('not kept');
		const { packed, ...told } = kept;
		await new Captures(shop.db).keep(
			{ id, caseId: shop.caseId, authorId: shop.ana.id, name: 'log', startedAt: new Date().toISOString() },
			[packed]
		);
		await put('frame-log', { ...keptLog(analysis, 'bus.log', log.length), kept: told }, id);
		const zip = await bundled();
		const unpacked = unpackBundle(zip);
		if (!unpacked.ok) throw new Error(unpacked.error);
		expect(new TextDecoder().decode(unpacked.value.get(`logs/${id}.log`))).toBe(log);
		expect(new TextDecoder().decode(unpacked.value.get(`logs/${id}.txt`))).toContain('1902FF');
		expect(await bringIn(empty, zip)).toMatchObject({ ok: true });
		const [there] = await new Captures(empty.db).pieces({ caseId: shop.caseId, id });
		expect(new TextDecoder().decode((await unpackedLog(there ?? new Uint8Array())) ?? undefined)).toBe(log);

		const swapped = new Map(unpacked.value);
		swapped.set(`logs/${id}.log`, strToU8(log.replace('7E8', '7E9')));
		swapped.delete('hashes.txt');
		const again = unpackBundle(packBundle(swapped));
		const checked = again.ok ? checkBundle(again.value) : again;
		expect(checked).toMatchObject({
			ok: true,
			value: { problems: [expect.stringMatching(/is not the log that entry \d+ was read from/)] }
		});
	});

	it('samples that somebody changed are found out by their entry, though every hash was made anew', async () => {
		const { recording } = await filled();
		const capture = {
			rateHz: 1000,
			startS: 0,
			channels: [
				{ name: 'rear_left', volts: Float32Array.from({ length: 400 }, (_, i) => (i % 20 < 10 ? 0.8 : 1.6)) }
			]
		};
		const kept = encodeCapture(capture);
		const scope = ulid();
		await new Captures(shop.db).keep(
			{
				id: scope,
				caseId: shop.caseId,
				authorId: shop.ana.id,
				name: 'ring',
				startedAt: new Date().toISOString()
			},
			[kept]
		);
		const about = {
			name: 'ring',
			typeId: 'brindle-marlow-16',
			source: { kind: 'instrument' as const },
			teeth: null,
			knownGood: false,
			samplesSha256: captureHash(kept)
		};
		await put('scope-capture', scopePayload(capture, [], about), scope);
		const unpacked = unpackBundle(await bundled());
		if (!unpacked.ok) throw new Error(unpacked.error);
		const problemsOf = (change: (all: Map<string, Uint8Array>) => void): string[] => {
			const all = new Map(unpacked.value);
			change(all);
			all.delete('hashes.txt');
			const packed = unpackBundle(packBundle(all));
			const checked = packed.ok ? checkBundle(packed.value) : packed;
			if (!checked.ok) throw new Error(checked.error);
			return checked.value.problems;
		};
		const csvOf = (id: string, all: Map<string, Uint8Array>) =>
			new TextDecoder().decode(all.get(`captures/${id}.csv`));
		expect(problemsOf(() => undefined)).toEqual([]);
		const flat = encodeChunk({
			timeS: Float64Array.of(0, 1),
			channels: new Map([['vehicle', Float64Array.of(30, 30)]])
		});
		expect(problemsOf((all) => all.set(`captures/${recording}.bin`, framePieces([flat])))).toEqual([
			expect.stringMatching(/\.bin is not what entry \d recorded$/)
		]);
		expect(
			problemsOf((all) =>
				all.set(`captures/${recording}.csv`, strToU8(csvOf(recording, all).replace('\n0.1,', '\n0.1,9')))
			)
		).toEqual([expect.stringMatching(/\.csv does not say what entry \d recorded$/)]);
		const quiet = encodeCapture({
			...capture,
			channels: [{ name: 'rear_left', volts: new Float32Array(400) }]
		});
		expect(problemsOf((all) => all.set(`captures/${scope}.bin`, framePieces([quiet])))).toEqual([
			expect.stringMatching(/\.bin is not what entry \d captured$/)
		]);
		expect(problemsOf((all) => all.delete(`captures/${scope}.csv`))).toEqual([
			expect.stringMatching(/\.csv is missing: entry \d speaks of it$/)
		]);
	});

	it('another shop’s case does not count as work of this one; its own, taken in on a new server, does', async () => {
		await filled();
		await put('test-step', {
			test: 'fuse',
			place: 'F14',
			name: 'Look at the fuse',
			station: 'measure',
			from: 'suggested',
			how: 'done',
			seen: {},
			because: '',
			minutes: 4
		});
		await put('repair', {
			title: 'Ring refitted',
			position: 'rear-left',
			parts: [],
			temporary: false,
			note: '',
			does: { kind: 'refit-ring', place: 'rear-left' }
		});
		await put('signature', { statement: 'Released', verdict: 'Proven clear' });
		const zip = await bundled();
		const third = await openTestShop();
		try {
			// A shop that comes back on a new server brings its key along.
			await third.db.insert(shopKey).values({ id: 1, ...(await new ShopKeys(shop.db).own()), madeAt: '' });
			for (const [there, counted] of [
				[empty, 0],
				[third, 1]
			] as const) {
				const { db, cases } = there;
				await bringIn(there, zip);
				await cases.refresh(shop.caseId);
				const figures = await new ShopFigures(db).figures();
				expect(figures.find(({ id }) => id === 'proven')?.of).toBe(counted);
				expect(await new ShopFigures(db).minutesByStation()).toHaveLength(counted);
				expect(await new TrackRecord(db).proven()).toHaveLength(counted);
				expect(Object.keys(await new TrackRecord(db).minutes())).toHaveLength(counted);
			}
		} finally {
			third.close();
		}
	});

	it('brought in twice it is there once; with another thread of the same case it is refused', async () => {
		await filled();
		const zip = await bundled();
		await bringIn(empty, zip);
		expect(await bringIn(empty, zip)).toMatchObject({
			ok: true,
			value: { known: true }
		});
		await put('note', { text: 'one more' });
		const later = await bringIn(empty, await bundled());
		expect(later).toMatchObject({ ok: false, error: expect.stringContaining('another thread') });
		expect((await empty.threads.read(shop.caseId)).length).toBe(
			(await shop.threads.read(shop.caseId)).length - 1
		);
	});

	it('one that was changed is refused, names the entry, and leaves nothing behind', async () => {
		await filled();
		const unpacked = unpackBundle(await bundled());
		if (!unpacked.ok) throw new Error(unpacked.error);
		const all = new Map(unpacked.value);
		const text = new TextDecoder().decode(all.get('case.json'));
		all.set('case.json', strToU8(text.replace('rust under the sensor', 'nothing')));
		const taken = await bringIn(empty, zipSync(Object.fromEntries(all)));
		expect(taken).toMatchObject({
			ok: false,
			error: expect.stringMatching(/entry \d was changed after it was written \(inspection, by Ana\)/)
		});
		expect(await empty.cases.find(shop.caseId)).toBeNull();
	});

	it('another vehicle under the same id here is left alone, and an entry that is here already refuses the whole', async () => {
		await filled();
		const zip = await bundled();
		const [theirs] = await shop.vehicles.newest();
		const { createdAt: _, ...same } = theirs!;
		await empty.vehicles.add({ ...same, plate: 'OTHER 1', nickname: 'another van' });
		expect(await bringIn(empty, zip)).toMatchObject({ ok: true });
		await empty.cases.refresh(shop.caseId);
		expect(await empty.cases.find(shop.caseId)).toMatchObject({ vehicle: { nickname: 'school minibus' } });
		expect((await empty.vehicles.newest()).map(({ plate }) => plate)).toContain('OTHER 1');

		const third = await openTestShop();
		try {
			const [entry] = await shop.threads.read(shop.caseId);
			await putEntry(third, 'note', { text: 'under an id of theirs' }, { id: entry!.id });
			expect(await bringIn(third, zip)).toMatchObject({
				ok: false,
				error: expect.stringContaining('here already')
			});
			expect(await third.cases.find(shop.caseId)).toBeNull();
		} finally {
			third.close();
		}
	});

	it('a photo that is no photo is refused before anything is written', async () => {
		const { photo } = await filled();
		const unpacked = unpackBundle(await bundled());
		if (!unpacked.ok) throw new Error(unpacked.error);
		const all = new Map(unpacked.value);
		all.set(`photos/${photo}.jpg`, strToU8('<svg/>'));
		expect(await bringIn(empty, zipSync(Object.fromEntries(all)))).toMatchObject({
			ok: false
		});
		expect(await empty.cases.find(shop.caseId)).toBeNull();
	});
});

/** A thread as a forger writes it: every hash made anew. */
function forged(change: (entries: RawEntry[]) => RawEntry[]) {
	return async (): Promise<Map<string, Uint8Array>> => {
		const head = {
			shop: 'Tern Point Works',
			number: 'TP-0401',
			wanted: '',
			createdAt: '2026-11-24T09:00:00.000Z'
		};
		const vehicle = { id: 'v', typeId: 'brindle-marlow-16', nickname: 'minibus', plate: 'TP 16' };
		let previousHash = FIRST_PREVIOUS;
		const entries = change(structuredClone(await shop.threads.read(shop.caseId)) as RawEntry[]).map(
			(entry, i) => {
				const stamped = { ...entry, seq: i + 1, previousHash };
				const whole = { ...stamped, hash: entryHash(stamped) };
				previousHash = whole.hash;
				return whole;
			}
		);
		return new Map([['case.json', strToU8(writeCaseFile(entries as never, { ...head, vehicle }))]]);
	};
}

describe('a bundle that was forged whole', () => {
	const opened = async () => {
		await put('case-opened', {
			vehicleId: 'v',
			typeId: 'brindle-marlow-16',
			name: 'minibus',
			plate: 'TP 16'
		});
		await put('note', { text: 'as it was' });
		await put('signature', { statement: 'Released', verdict: 'Proven clear' });
	};
	const again = (entry: RawEntry, change: Partial<RawEntry>): RawEntry => ({
		...entry,
		id: ulid(),
		...change
	});

	it.each<[string, (entries: RawEntry[]) => RawEntry[], RegExp]>([
		['two signatures', (all) => [...all, again(all[2]!, {})], /entry 4 comes after the signature/],
		['an entry after it', (all) => [...all, again(all[1]!, {})], /comes after the signature/],
		['no beginning', (all) => all.slice(1), /does not begin with the opening/],
		[
			'two beginnings',
			(all) => [all[0]!, again(all[0]!, {}), ...all.slice(1)],
			/entry 2 opens the case again/
		],
		['dates in words', (all) => all.map((one) => ({ ...one, observedAt: 'yesterday' })), /observedAt/],
		[
			'a time to come',
			(all) => all.map((one) => ({ ...one, receivedAt: '2126-01-01T00:00:00.000Z' })),
			/not come yet/
		],
		['one id twice', (all) => [all[0]!, all[1]!, { ...all[1]! }, all[2]!], /has the id of another/],
		[
			'a name without end',
			(all) => all.map((one) => ({ ...one, authorName: 'x'.repeat(100_000) })),
			/authorName/
		],
		[
			'a payload that is none',
			(all) => [all[0]!, { ...all[1]!, payload: { text: 7 } }, all[2]!],
			/is no note/
		]
	])('is refused for %s, and leaves nothing behind', async (_, change, words) => {
		await opened();
		const taken = await bringIn(empty, packBundle(await forged(change)()));
		expect(taken).toMatchObject({ ok: false, error: expect.stringMatching(words) });
		expect(await empty.db.select({ id: caseRecord.id }).from(caseRecord)).toHaveLength(1);
	});

	it('is another shop’s, unsigned, whatever shop it names; its people are theirs', async () => {
		await opened();
		const taken = await bringIn(empty, packBundle(await forged((all) => all)()));
		expect(taken.ok).toBe(true);
		await empty.cases.refresh(shop.caseId);
		expect(await empty.cases.find(shop.caseId)).toMatchObject({
			fromShop: 'Tern Point Works',
			fromKey: null
		});
	});

	it('with the signature of something else is refused; with a key that a lead trusts it is that shop’s', async () => {
		await opened();
		const files = await forged((all) => all)();
		const key = await new ShopKeys(shop.db).own();
		const stolen = packBundle(
			files,
			await signBundle(strToU8('another list') as Uint8Array<ArrayBuffer>, key)
		);
		expect(await bringIn(empty, stolen)).toMatchObject({
			ok: false,
			error: expect.stringMatching(/signature/)
		});
		await new ShopKeys(empty.db).trust(key.publicKey, 'Works at Tern Point', { id: 'marit', name: 'Marit' });
		expect((await bringIn(empty, await bundled())).ok).toBe(true);
		await empty.cases.refresh(shop.caseId);
		expect(await empty.cases.find(shop.caseId)).toMatchObject({
			fromShop: 'Works at Tern Point',
			fromKey: key.publicKey
		});
	});

	it('a kind of a later version comes in as it is, and is shown as not known here', async () => {
		await opened();
		const later = (all: RawEntry[]) => [all[0]!, { ...all[1]!, kind: 'tide-table', version: 3 }, all[2]!];
		expect((await bringIn(empty, packBundle(await forged(later)()))).ok).toBe(true);
		const thread = await empty.threads.read(shop.caseId);
		expect(thread[1]).toMatchObject({ kind: 'unknown', payload: { kind: 'tide-table' } });
		expect(await empty.threads.check(shop.caseId)).toEqual({ intact: true });
		expect(describeEntry(thread[1]!).title).toBe('Not known to this version');
	});

	it('what a stopped server had only begun to bring in is taken away at its start', async () => {
		await filled();
		const examined = await examineBundle(await bundled());
		if (!examined.ok) throw new Error(examined.error);
		const { db } = empty;
		// The disk gives out at the thread itself.
		const failing = {
			...empty.threads,
			takeIn: () => Promise.reject(new Error('disk full')),
			read: async () => []
		};
		await expect(takeInBundle(db, failing as never, examined.value)).rejects.toThrow('disk full');
		expect(await empty.cases.find(shop.caseId)).toBeNull();
		const [vehicle] = await empty.vehicles.newest();
		await db.insert(caseRecord).values({
			id: ulid(),
			number: 9,
			vehicleId: vehicle!.id,
			createdAt: '',
			comingIn: true
		});
		expect(await takeAwayHalves(db)).toBe(1);
		expect(await db.select({ id: caseRecord.id }).from(caseRecord)).toHaveLength(1);
	});
});

it('the published schema is the one that entries are checked by', () => {
	expect(readFileSync('docs/formats/case.schema.json', 'utf8')).toBe(caseSchemaText());
	const page = readFileSync('docs/formats.md', 'utf8');
	expect(withKinds(page), 'npm run formats').toBe(page);
});
