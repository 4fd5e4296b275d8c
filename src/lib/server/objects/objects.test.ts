import sharp from 'sharp';
import { ulid } from 'ulid';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { Captures, wholePieces } from '../db/captures';
import { troubleOf } from '../db/health';
import { Photos } from '../db/photos';
import { openTestShop, type TestShop } from '../shop.fixture';
import { bucketPlace } from '../../objects/objectStore';
import { s3Store } from '../../objects/s3Store';
import { startS3StandIn, type S3StandIn } from '../../objects/s3StandIn.fixture';
import { Shelf } from './shelf';

let store: S3StandIn;
let objects: Map<string, Buffer>;
let shop: TestShop;
let shelf: Shelf;

const bucket = (url: string) => bucketPlace(url, store.endpoint, 'The store');
beforeEach(async () => {
	store = await startS3StandIn();
	({ objects } = store);
	shelf = new Shelf(s3Store(bucket('s3://evidence/tern-point')));
	shop = await openTestShop();
});
afterEach(() => {
	shop.close();
	store.close();
});

const samples = {
	timeS: Float64Array.from({ length: 7_000 }, (_, i) => i / 20),
	channels: new Map([['vehicle', Float64Array.from({ length: 7_000 }, (_, i) => i % 90)]])
};
const own = () => ({ id: ulid(), caseId: shop.caseId });
const whole = (one: { id: string; caseId: string }) => ({
	...one,
	authorId: shop.ana.id,
	name: 'a drive',
	startedAt: new Date().toISOString()
});

describe('an object store', () => {
	it('is named by its bucket, and by nothing else', () => {
		expect(bucket('s3://evidence')).toMatchObject({ bucket: 'evidence', prefix: '' });
		expect(bucket('s3://evidence/a/b')).toMatchObject({ prefix: 'a/b/' });
		for (const wrong of ['', 'evidence', 's3://', 's3://A', 'http://evidence', 's3://evidence/../x y'])
			expect(() => bucket(wrong)).toThrow('s3://bucket');
	});

	it('has the samples of a recording, and the database only their names', async () => {
		const captures = new Captures(shop.db, shelf);
		const one = own();
		const pieces = wholePieces(samples);
		expect((await captures.keep(whole(one), pieces)).ok).toBe(true);
		expect([...objects.keys()].every((name) => /^\/evidence\/tern-point\/\w\w\/\w{64}$/.test(name))).toBe(
			true
		);
		expect(objects.size).toBe(pieces.length);
		expect(await captures.pieces(one)).toEqual(pieces.map((piece) => new Uint8Array(piece)));
		expect((await captures.read(one))?.timeS).toHaveLength(7_000);
		// Whoever has the database alone has no samples, and is told so.
		expect(await new Captures(shop.db).pieces(one).catch(troubleOf)).toBe('no-store');
	});

	it('takes a recording over when it is whole, and has what lies in rows from before read as it was', async () => {
		const before = new Captures(shop.db);
		const [old, grown] = [own(), own()];
		await before.keep(whole(old), wholePieces(samples));
		const captures = new Captures(shop.db, shelf);
		await captures.begin(whole(grown));
		await captures.add(grown, 0, samples);
		expect(objects.size).toBe(0);
		await captures.finish(grown, wholePieces(samples));
		expect(objects.size).toBe(2);
		expect(await captures.read(grown)).toEqual(await captures.read(old));
	});

	it('has photos, and one that was changed or is gone is no evidence', async () => {
		const photos = new Photos(shop.db, shelf);
		const one = own();
		const picture = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#888' } })
			.png()
			.toBuffer();
		expect((await photos.keep({ ...one, authorId: shop.ana.id }, picture)).ok).toBe(true);
		const kept = await photos.read(one.caseId, one.id);
		expect(kept?.length).toBeGreaterThan(100);
		const [[name = '', bytes = Buffer.alloc(0)] = []] = objects;
		objects.set(name, Buffer.concat([bytes, Buffer.from('x')]));
		await expect(photos.read(one.caseId, one.id)).rejects.toThrow('was changed');
		objects.delete(name);
		await expect(photos.read(one.caseId, one.id)).rejects.toThrow('has nothing under');
	});

	it('that is out of reach keeps nothing by halves: no row speaks of what is not there', async () => {
		const captures = new Captures(shop.db, shelf);
		const one = own();
		store.close();
		expect(await captures.keep(whole(one), wholePieces(samples)).catch(troubleOf)).toBe('no-store');
		expect(await captures.stateOf(one)).toBe('free');
	});
});
