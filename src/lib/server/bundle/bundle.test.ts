import { readFileSync } from 'node:fs';
import sharp from 'sharp';
import { strToU8, zipSync } from 'fflate';
import { ulid } from 'ulid';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { checkBundle, packBundle, unpackBundle } from '../../case/bundle';
import { caseSchemaText } from '../../case/caseSchema';
import type { EntryKind, PayloadOf } from '../../case/entry';
import { keptLog, readLog } from '../../case/frameLogReading';
import { captureHash, samplesHash } from '../../case/samplesHash';
import { LogKeeper } from '../../case/logKeeper';
import { projectCase } from '../../case/project';
import { caseReport } from '../../case/report';
import { ThreadMaker } from '../../case/threads.fixture';
import { encodeChunk } from '../../core/live/chunk';
import { framePieces } from '../../core/live/pieces';
import { encodeCapture } from '../../core/scope/captureChunk';
import { scopePayload } from '../jobs/scopeCapture';
import { unpackedLog } from '../cases/keptLog';
import { Captures } from '../db/captures';
import { Photos } from '../db/photos';
import { ShopFigures } from '../db/shopFigures';
import { TrackRecord } from '../db/trackRecord';
import { openTestShop, put as putEntry, type TestShop } from '../shop.fixture';
import { exportBundle } from './exportBundle';
import { importBundle } from './importBundle';

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
	const maker = new ThreadMaker().listen();
	for (const { kind, payload } of maker.thread) await put(kind, payload as never);
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
	await captures.finish(recording, samples);
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
				number: row.number,
				vehicleName: row.vehicleName,
				nickname,
				plate,
				url: 'http://127.0.0.1/cases/x',
				printedAt: new Date().toISOString()
			},
			report: caseReport(thread, projectCase(thread))
		},
		{ captures: new Captures(shop.db), photos: new Photos(shop.db) }
	);
}

describe('a case from one shop to another', () => {
	it('comes in with the same thread, projections, samples and photos', async () => {
		const { recording, photo } = await filled();
		const zip = await bundled();
		const taken = await importBundle(empty.db, empty.threads, zip, 'Another Shop');
		expect(taken).toMatchObject({ ok: true, value: { caseId: shop.caseId, known: false } });
		const [here, there] = [await shop.threads.read(shop.caseId), await empty.threads.read(shop.caseId)];
		expect(there).toEqual(here);
		expect(projectCase(there)).toEqual(projectCase(here));
		expect(await new Captures(empty.db).read(recording)).toEqual(await new Captures(shop.db).read(recording));
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
				'report.pdf'
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
			packed
		);
		await put('frame-log', { ...keptLog(analysis, 'bus.log', log.length), kept: told }, id);
		const zip = await bundled();
		const unpacked = unpackBundle(zip);
		if (!unpacked.ok) throw new Error(unpacked.error);
		expect(new TextDecoder().decode(unpacked.value.get(`logs/${id}.log`))).toBe(log);
		expect(new TextDecoder().decode(unpacked.value.get(`logs/${id}.txt`))).toContain('1902FF');
		expect(await importBundle(empty.db, empty.threads, zip, 'Another Shop')).toMatchObject({ ok: true });
		const [there] = await new Captures(empty.db).pieces(id);
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
			kept
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
			for (const [{ db, threads, cases }, name, counted] of [
				[empty, 'Another Shop', 0],
				[third, 'Tern Point Works', 1]
			] as const) {
				await importBundle(db, threads, zip, name);
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
		await importBundle(empty.db, empty.threads, zip, 'Another Shop');
		expect(await importBundle(empty.db, empty.threads, zip, 'Another Shop')).toMatchObject({
			ok: true,
			value: { known: true }
		});
		await put('note', { text: 'one more' });
		const later = await importBundle(empty.db, empty.threads, await bundled(), 'Another Shop');
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
		const taken = await importBundle(
			empty.db,
			empty.threads,
			zipSync(Object.fromEntries(all)),
			'Another Shop'
		);
		expect(taken).toMatchObject({
			ok: false,
			error: expect.stringMatching(/entry \d was changed after it was written \(inspection, by Ana\)/)
		});
		expect(await empty.cases.find(shop.caseId)).toBeNull();
	});

	it('another vehicle under the same id here is left alone, and an entry that is here already refuses the whole', async () => {
		await filled();
		const zip = await bundled();
		const [theirs] = await shop.cases.vehicles();
		const { createdAt: _, ...same } = theirs!;
		await empty.cases.addVehicle({ ...same, plate: 'OTHER 1', nickname: 'another van' });
		expect(await importBundle(empty.db, empty.threads, zip, 'Another Shop')).toMatchObject({ ok: true });
		await empty.cases.refresh(shop.caseId);
		expect(await empty.cases.find(shop.caseId)).toMatchObject({ vehicle: { nickname: 'school minibus' } });
		expect((await empty.cases.vehicles()).map(({ plate }) => plate)).toContain('OTHER 1');

		const third = await openTestShop();
		try {
			const [entry] = await shop.threads.read(shop.caseId);
			await putEntry(third, 'note', { text: 'under an id of theirs' }, { id: entry!.id });
			expect(await importBundle(third.db, third.threads, zip, 'Another Shop')).toMatchObject({
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
		expect(
			await importBundle(empty.db, empty.threads, zipSync(Object.fromEntries(all)), 'Another Shop')
		).toMatchObject({
			ok: false
		});
		expect(await empty.cases.find(shop.caseId)).toBeNull();
	});
});

it('the published schema is the one that entries are checked by', () => {
	expect(readFileSync('docs/formats/case.schema.json', 'utf8')).toBe(caseSchemaText());
});
