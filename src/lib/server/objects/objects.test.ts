import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { buffer } from 'node:stream/consumers';
import sharp from 'sharp';
import { ulid } from 'ulid';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { Captures, wholePieces } from '../db/captures';
import { troubleOf } from '../db/health';
import { Photos } from '../db/photos';
import { openTestShop, type TestShop } from '../shop.fixture';
import { bucketPlace } from './objectStore';
import { s3Store } from './s3Store';
import { Shelf } from './shelf';

/** Stands in for a store that speaks the S3 protocol: it keeps what it is given by whoever signs with the key that it knows. */
const objects = new Map<string, Buffer>();
let store: Server;
let endpoint: string;
let shop: TestShop;
let shelf: Shelf;

beforeEach(async () => {
	objects.clear();
	store = createServer((request, response) => {
		const { method = '', url = '', headers } = request;
		const name = decodeURIComponent(url.split('?')[0] ?? '');
		const signed = /^AWS4-HMAC-SHA256 Credential=known\//.test(headers.authorization ?? '');
		void buffer(request).then((body) => {
			if (!signed) response.writeHead(403).end();
			else if (method === 'PUT') {
				objects.set(name, body);
				response.writeHead(200, { etag: '"1"' }).end();
			} else if (objects.has(name)) response.writeHead(200).end(objects.get(name));
			else response.writeHead(404).end('<Error><Code>NoSuchKey</Code><Message>none</Message></Error>');
		});
	});
	await new Promise<void>((resolve) => store.listen(0, '127.0.0.1', resolve));
	endpoint = `http://127.0.0.1:${(store.address() as AddressInfo).port}`;
	process.env.AWS_ACCESS_KEY_ID = 'known';
	process.env.AWS_SECRET_ACCESS_KEY = 'secret';
	shelf = new Shelf(s3Store(bucketPlace('s3://evidence/tern-point', endpoint)));
	shop = await openTestShop();
});
afterEach(() => {
	shop.close();
	store.closeAllConnections();
	store.close();
	delete process.env.AWS_ACCESS_KEY_ID;
	delete process.env.AWS_SECRET_ACCESS_KEY;
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
		expect(bucketPlace('s3://evidence')).toMatchObject({ bucket: 'evidence', prefix: '' });
		expect(bucketPlace('s3://evidence/a/b')).toMatchObject({ prefix: 'a/b/' });
		for (const wrong of ['', 'evidence', 's3://', 's3://A', 'http://evidence', 's3://evidence/../x y'])
			expect(() => bucketPlace(wrong)).toThrow('s3://bucket');
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
		store.closeAllConnections();
		await new Promise((resolve) => store.close(resolve));
		expect(await captures.keep(whole(one), wholePieces(samples)).catch(troubleOf)).toBe('no-store');
		expect(await captures.stateOf(one)).toBe('free');
	});
});
