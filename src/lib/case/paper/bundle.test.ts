import { strToU8, zipSync } from 'fflate';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { CASE_NAME, checkBundle, HASHES_NAME, packBundle, unpackBundle } from './bundle';
import { writeCaseFile } from '../thread/caseFile';
import { BRAKE, OPEN, ThreadMaker } from '../thread/threads.fixture';

const HEAD = {
	shop: 'Tern Point Works',
	number: 'TP-0001',
	wanted: 'today',
	createdAt: '2026-11-24T09:00:00.000Z',
	vehicle: { id: 'v', typeId: 'brindle-marlow-16', nickname: 'minibus', plate: 'TP 1' }
};
function thread() {
	const maker = new ThreadMaker().listen();
	maker.scan([[BRAKE, OPEN, 0x2f]]);
	maker.repair().clear().cycleKey().lamps();
	maker.scan([]);
	return maker.thread;
}
const files = (): Map<string, Uint8Array> =>
	new Map([
		[CASE_NAME, strToU8(writeCaseFile(thread(), HEAD))],
		['report.pdf', strToU8('%PDF-1.4 a report')],
		['captures/01JD0000000000000000000001.csv', strToU8('time_s,vehicle_kmh\n0,0\n')]
	]);
const checked = (zip: Uint8Array) => {
	const unpacked = unpackBundle(zip);
	if (!unpacked.ok) throw new Error(unpacked.error);
	const result = checkBundle(unpacked.value);
	if (!result.ok) throw new Error(result.error);
	return result.value;
};
/** Packs a bundle, then lets somebody change it without packing it anew. */
function tampered(change: (all: Map<string, Uint8Array>) => void): string[] {
	const unpacked = unpackBundle(packBundle(files()));
	if (!unpacked.ok) throw new Error(unpacked.error);
	const all = new Map(unpacked.value);
	change(all);
	return checked(zipSync(Object.fromEntries(all))).problems;
}
const edited = (all: Map<string, Uint8Array>, from: string, to: string) =>
	all.set(CASE_NAME, strToU8(new TextDecoder().decode(all.get(CASE_NAME)).replace(from, to)));

/** The same ZIP with another unpacked size in the directory at its end (PKZIP: at 24 of the entry, little-endian). */
function declared(zip: Uint8Array, bytes: number): Uint8Array {
	const copy = zip.slice();
	const entry = copy.findLastIndex(
		(byte, i) => byte === 0x50 && copy[i + 2] === 0x01 && copy[i + 3] === 0x02
	);
	new DataView(copy.buffer).setUint32(entry + 24, bytes, true);
	return copy;
}

describe('a bundle', () => {
	it('goes out and comes back with the same bytes, and says so', () => {
		const packed = files();
		const unpacked = unpackBundle(packBundle(packed));
		if (!unpacked.ok) throw new Error(unpacked.error);
		for (const [name, bytes] of packed) expect(unpacked.value.get(name)).toEqual(bytes);
		const result = checked(packBundle(packed));
		expect(result).toMatchObject({ problems: [], head: HEAD, files: 4 });
		expect(result.entries).toEqual(thread());
		expect(result.lastHash).toBe(thread().at(-1)?.hash);
	});

	it('lists hashes as the usual tools check them', () => {
		const unpacked = unpackBundle(packBundle(files()));
		const list = unpacked.ok ? new TextDecoder().decode(unpacked.value.get(HASHES_NAME)) : '';
		expect(list.split('\n').filter(Boolean)).toHaveLength(3);
		expect(list).toMatch(/^[0-9a-f]{64} {2}captures\/.+\n[0-9a-f]{64} {2}case\.json\n/);
	});

	it.each<[string, (all: Map<string, Uint8Array>) => void, RegExp]>([
		[
			'a paper was changed',
			(all) => all.set('report.pdf', strToU8('other')),
			/^report\.pdf was changed after it was packed$/
		],
		[
			'a capture is gone',
			(all) => all.delete('captures/01JD0000000000000000000001.csv'),
			/captures\/.+ is missing/
		],
		[
			'a file was added',
			(all) => all.set('report-customer.pdf', strToU8('x')),
			/report-customer\.pdf is not in hashes\.txt/
		],
		['the list is gone', (all) => all.delete(HASHES_NAME), /hashes\.txt is missing/],
		[
			'a word of an entry was changed',
			(all) => edited(all, 'Lamp on', 'Lamp off'),
			/entry 1 was changed after it was written \(complaint, by Ana\)/
		],
		[
			'the list says no hash',
			(all) => all.set(HASHES_NAME, strToU8('nonsense\n')),
			/hashes\.txt line 1: expected/
		]
	])('names the place where %s', (_what, change, problem) => {
		expect(tampered(change).some((one) => problem.test(one))).toBe(true);
	});

	it('an entry changed with its file hashed anew is still found, by the chain', () => {
		const all = files();
		edited(all, '"confirmedBy": "vehicle"', '"confirmedBy": "person"');
		const [problem, ...more] = checked(packBundle(all)).problems;
		expect(problem).toMatch(/case\.json: entry \d was changed after it was written \(key-cycled/);
		expect(more).toEqual([]);
	});

	it.each([
		['../case.json', /has no place/],
		['/etc/passwd', /has no place/],
		['photos/../../x.jpg', /has no place/],
		['captures/01JD0000000000000000000001.exe', /has no place/],
		['case.json/../../x', /has no place/]
	])('refuses a file called %s', (name, why) => {
		const result = unpackBundle(zipSync({ [name]: strToU8('x') }));
		expect(result.ok ? '' : result.error).toMatch(why);
	});

	it('refuses what unpacks to far more than may be, before it is unpacked', () => {
		const small = zipSync({ 'report.pdf': new Uint8Array(1024 * 1024) });
		const bomb = declared(small, 300 * 1024 * 1024);
		const result = unpackBundle(bomb);
		expect(result.ok ? '' : result.error).toBe('report.pdf would unpack to more than may be');
	});

	it('a file that unpacks to more than it says is never larger than it says', () => {
		const result = unpackBundle(declared(zipSync({ 'report.pdf': new Uint8Array(1024 * 1024) }), 1000));
		if (result.ok) expect(result.value.get('report.pdf')?.length).toBeLessThanOrEqual(1000);
		else expect(result.error).not.toBe('');
	});

	it('refuses what is no bundle with a reason, whatever the bytes', () => {
		fc.assert(
			fc.property(fc.uint8Array({ maxLength: 300 }), (bytes) => {
				const result = unpackBundle(bytes);
				if (result.ok) expect(checkBundle(result.value).ok).toBe(false);
				else expect(result.error).not.toBe('');
			})
		);
		const cut = packBundle(files()).slice(0, 400);
		expect(unpackBundle(cut).ok).toBe(false);
		expect(checkBundle(new Map([[CASE_NAME, strToU8('{"format":"other"}')]]))).toMatchObject({ ok: false });
	});
});
