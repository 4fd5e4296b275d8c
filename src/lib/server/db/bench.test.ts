import sharp from 'sharp';
import { ulid } from 'ulid';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { PayloadOf } from '../../case/entries/entry';
import { decodeCapture, encodeCapture } from '../../core/scope/captureChunk';
import { captureOf, makeSignal } from '../../core/scope/signals.fixture';
import { scopePayload } from '../jobs/scopeCapture';
import { openTestShop, put as putEntry, type TestShop } from '../shop.fixture';
import { Captures } from './captures';
import { GoodReadings } from './goodReadings';
import { Photos } from './photos';

let shop: TestShop;
beforeEach(async () => {
	shop = await openTestShop();
});
afterEach(() => shop.close());

const TYPE = 'brindle-marlow-16';
const put = <K extends 'meter-reading' | 'scope-capture'>(
	kind: K,
	payload: PayloadOf<K>,
	supersedes: { entryId: string; why: string } | null = null
) => putEntry(shop, kind, payload, { supersedes });
const reading = (over: Partial<PayloadOf<'meter-reading'>>): PayloadOf<'meter-reading'> => ({
	position: 'rear-left',
	typeId: TYPE,
	measurement: 'feed-loaded',
	name: 'Feed',
	red: 'a',
	black: 'b',
	quantity: 'V',
	value: 12,
	judgedValue: 12,
	temperatureC: null,
	accuracy: 0.1,
	window: { low: 10, high: 13, source: 'library', because: 'usual' },
	judged: 'in',
	by: 'hand',
	opened: [],
	hiddenOhms: null,
	knownGood: true,
	says: 'Good.',
	proves: [],
	implicates: [],
	...over
});

describe('what the shop has kept as good', () => {
	it('is collected by measurement, of the type alone, without what was corrected or not kept', async () => {
		const good = new GoodReadings(shop.db);
		await put('meter-reading', reading({ judgedValue: 12.1 }));
		await put('meter-reading', reading({ judgedValue: 1100, measurement: 'coil-ohms' }));
		await put('meter-reading', reading({ judgedValue: 9, knownGood: false }));
		await put('meter-reading', reading({ judgedValue: 5, typeId: 'another-type' }));
		const wrong = await put('meter-reading', reading({ judgedValue: 3 }));
		await put('meter-reading', reading({ judgedValue: 11.9 }), { entryId: wrong, why: 'misread' });
		const kept = await good.ofType(TYPE);
		expect(kept['feed-loaded']?.sort()).toEqual([11.9, 12.1]);
		expect(kept['coil-ohms']).toEqual([1100]);
	});
});

describe('a capture', () => {
	const capture = captureOf(20_000, {
		rear_left: makeSignal({
			kind: 'active',
			rateHz: 20_000,
			durationS: 1,
			teeth: 46,
			hz: 160,
			missing: [7],
			snrDb: 30
		}),
		rear_right: makeSignal({
			kind: 'active',
			rateHz: 20_000,
			durationS: 1,
			teeth: 46,
			hz: 160,
			snrDb: 30,
			seed: 2
		})
	});
	const payload = () =>
		scopePayload(
			capture,
			(['rear-left', 'rear-right'] as const).map((position) => ({
				position,
				probe: position,
				at: 'module' as const
			})),
			{ name: 'good axle', typeId: TYPE, source: { kind: 'instrument' }, teeth: 46, knownGood: true }
		);

	it('says on the thread what it found and what that proves, wheel by wheel', () => {
		const { channels, verdict, samples } = payload();
		expect([verdict, samples]).toEqual(['rear left: a gap in the ring.', 20_000]);
		expect(channels[0]).toMatchObject({ position: 'rear-left', implicates: ['ring'] });
		expect(channels[0]?.proves).toContain('harness');
		expect(channels[1]?.proves).toContain('ring');
	});

	it('is kept once under its entry’s id, read back, and offered as a reference of its type', async () => {
		const captures = new Captures(shop.db);
		const id = await put('scope-capture', payload());
		const about = {
			id,
			caseId: shop.caseId,
			authorId: shop.ana.id,
			name: '',
			startedAt: new Date().toISOString()
		};
		expect((await captures.keep(about, [encodeCapture(capture)])).ok).toBe(true);
		expect((await captures.keep(about, [encodeCapture({ ...capture, startS: 99 })])).ok).toBe(false);
		const [bytes] = await captures.pieces(about);
		const back = decodeCapture(bytes ?? new Uint8Array());
		expect(back.ok && [back.value.startS, back.value.channels.map(({ name }) => name)]).toEqual([
			0,
			['rear_left', 'rear_right']
		]);
		expect(await captures.left(new Date(Date.now() + 1000).toISOString())).toEqual([]);
		expect(await new GoodReadings(shop.db).capturesOfType(TYPE)).toEqual([
			{ id, caseId: shop.caseId, name: 'good axle' }
		]);
	});
});

describe('a photo', () => {
	const about = () => ({ id: ulid(), caseId: shop.caseId, authorId: shop.ana.id });
	const camera = (width: number, height: number) =>
		sharp({ create: { width, height, channels: 3, background: '#456' } }).withExif({
			IFD0: { Artist: 'camera' }
		});

	it('is drawn anew: smaller, upright, without what the camera wrote into it', async () => {
		const photos = new Photos(shop.db);
		const turned = await camera(2400, 1200).withMetadata({ orientation: 6 }).jpeg().toBuffer();
		const one = about();
		const kept = await photos.keep(one, turned);
		expect(kept.ok && [kept.value.width, kept.value.height]).toEqual([800, 1600]);
		const told = await sharp((await photos.read(shop.caseId, one.id)) ?? new Uint8Array()).metadata();
		expect([told.format, told.exif, told.orientation]).toEqual(['jpeg', undefined, undefined]);
	});

	it('sent again under its id is the one that is kept; of another case it is not shown', async () => {
		const photos = new Photos(shop.db);
		const one = about();
		const first = await photos.keep(one, await camera(40, 30).png().toBuffer());
		const again = await photos.keep(one, await camera(90, 90).png().toBuffer());
		expect(again.ok && first.ok && again.value.sha256 === first.value.sha256).toBe(true);
		expect(await photos.read('another case', one.id)).toBeNull();
	});

	it('that is none, or is cut off, is refused with a sentence', async () => {
		const photos = new Photos(shop.db);
		const whole = await camera(400, 300).jpeg().toBuffer();
		for (const bytes of [Buffer.from('no picture'), Buffer.alloc(0), whole.subarray(0, whole.length >> 1)]) {
			const kept = await photos.keep(about(), bytes);
			expect(kept.ok ? '' : kept.error).toContain('no photo that can be read');
		}
	});
});
