import { ulid } from 'ulid';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { repairs } from '../../../../library/repairs';
import type { EntryKind, PayloadOf } from '../../case/entries/entry';
import { BRAKE, OPEN, ThreadMaker } from '../../case/thread/threads.fixture';
import { openTestShop, put as putEntry, type TestShop } from '../shop.fixture';
import type { Member } from '../accounts/members';
import { figuresAsked, spanWords, withinAsked } from '../cases/figuresAsked';
import { EVER, ShopFigures, type Within } from './shopFigures';

let shop: TestShop;
beforeEach(async () => {
	shop = await openTestShop();
});
afterEach(() => shop.close());

const put = <K extends EntryKind>(caseId: string, kind: K, payload: PayloadOf<K>) =>
	putEntry(shop, kind, payload, { caseId });

/** A signed case with a wheel code, mended by this kind of repair. */
async function signed(
	kind: string,
	verdict: string,
	comebackOf?: string,
	asked?: PayloadOf<'estimate'>['lines']
): Promise<string> {
	const [first] = await shop.vehicles.newest();
	const caseId = await shop.cases.open(ulid(), first?.id ?? '');
	await put(caseId, 'case-opened', {
		vehicleId: first?.id ?? '',
		typeId: 'brindle-marlow-16',
		name: 'minibus',
		plate: '',
		...(comebackOf ? { comebackOf: { caseId: comebackOf, number: 'TP-1', lastHash: '0'.repeat(64) } } : {})
	});
	const scan = new ThreadMaker().scan([[BRAKE, OPEN, 0x2f]]);
	await put(caseId, 'network-scan', scan.payload as PayloadOf<'network-scan'>);
	await put(caseId, 'test-step', {
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
	await put(caseId, 'repair', {
		title: kind,
		position: 'rear-left',
		parts: [],
		temporary: false,
		note: '',
		does: { kind, place: 'rear-left' }
	});
	if (asked)
		await put(caseId, 'estimate', {
			currency: 'EUR',
			ratePerHour: 8400,
			taxBasisPoints: 0,
			lines: asked,
			note: ''
		});
	await put(caseId, 'signature', { statement: 'Released', verdict });
	await shop.cases.refresh(caseId);
	return caseId;
}
const figures = async () =>
	Object.fromEntries(
		(await new ShopFigures(shop.db).figures()).map(({ id, value, of }) => [id, `${value} of ${of}`])
	);

it('counts what was proven, released and came back, and what the code alone would have replaced', async () => {
	expect(await figures()).toEqual({
		proven: '0 of 0',
		released: '0 of 0',
		unproven: '0 of 0',
		comebacks: '0 of 0',
		avoided: '0 of 0'
	});
	const lead = await signed('renew-lead', 'Proven clear');
	await signed('renew-sensor', 'Proven clear');
	await signed('clean-encoder', 'Released by a lead, not all of it proven');
	expect(await figures()).toEqual({
		proven: '2 of 3',
		released: '1 of 3',
		unproven: '0 of 3',
		comebacks: '0 of 3',
		avoided: '2 of 3'
	});
	// What came back was no good part saved.
	await signed('renew-hub', 'Proven clear', lead);
	expect(await figures()).toMatchObject({ comebacks: '1 of 4', avoided: '2 of 4' });
	const comebacks = (await new ShopFigures(shop.db).figures()).find(({ id }) => id === 'comebacks');
	expect(comebacks?.cases).toMatchObject([{ id: lead, nickname: 'school minibus' }]);
});

it('sums minutes by station and counts codes by type, each with its cases', async () => {
	const one = await signed('renew-lead', 'Proven clear');
	const two = await signed('renew-lead', 'Proven clear');
	const all = new ShopFigures(shop.db);
	expect(await all.minutesByStation()).toMatchObject([{ name: 'measure', value: 8 }]);
	const [code] = await all.codesByType();
	expect(code).toMatchObject({ name: 'C0045 Brindle Marlow 16', value: 2 });
	expect(code?.cases.map(({ id }) => id).sort()).toEqual([one, two].sort());
});

describe('of a time and of a person', () => {
	const day = (at: string) => ({
		...EVER,
		...(at === 'before today' ? { before: '2020-01-01T00:00:00.000Z' } : {})
	});

	it('counts what was signed then, and by whoever did the last repair', async () => {
		await signed('renew-lead', 'Proven clear');
		const all = new ShopFigures(shop.db);
		const count = async (within: Within) => (await all.figures(within))[0]?.of;
		expect(await count(EVER)).toBe(1);
		expect(await count(day('before today'))).toBe(0);
		expect(
			await count({ ...EVER, from: '2020-01-01T00:00:00.000Z', before: '2100-01-01T00:00:00.000Z' })
		).toBe(1);
		expect(await count({ ...EVER, by: shop.ana.id })).toBe(1);
		expect(await count({ ...EVER, by: 'somebody' })).toBe(0);
		expect(await all.minutesByStation({ ...EVER, by: 'somebody' })).toEqual([]);
		expect(await all.minutesByStation(day('before today'))).toEqual([]);
		expect(await all.codesByType(day('before today'))).toEqual([]);
	});

	it('says of what came back whether the same was done once more', async () => {
		const first = await signed('renew-lead', 'Proven clear');
		const second = await signed('clean-plug', 'Proven clear');
		await signed('renew-lead', 'Proven clear', first);
		await signed('renew-sensor', 'Proven clear', second);
		const { cameBack } = await new ShopFigures(shop.db).all();
		expect(cameBack.map(({ before, after, again }) => [before, after, again])).toEqual([
			['clean-plug', 'renew-sensor', false],
			['renew-lead', 'renew-lead', true]
		]);
	});

	it('holds the minutes that were told against those that were used, where there are both', async () => {
		await signed('renew-lead', 'Proven clear');
		const told = await signed('renew-lead', 'Proven clear', undefined, [
			{ what: 'the lead', minutes: 30 },
			{ what: 'a lead', amount: 3000 },
			{ what: 'a drive', minutes: 15 }
		]);
		expect(told).not.toBe('');
		const { estimated, saved } = await new ShopFigures(shop.db).all();
		expect(estimated).toEqual({ estimated: 45, used: 4, cases: 1 });
		expect(saved).toBe(2 * (repairs.get('renew-sensor')?.price ?? NaN));
	});
});

describe('what is asked for by the address', () => {
	const ana: Member = { id: 'a', name: 'Ana', username: 'ana', role: 'technician' };
	const now = new Date('2026-12-02T10:00:00');
	const at = (query: string) => figuresAsked(new URL(`http://127.0.0.1/figures?${query}`));

	it('is whole days of the shop’s clock, the last one with all of it', () => {
		const within = withinAsked(at('span=days&from=2026-11-01&to=2026-11-30'), ana, now);
		expect(new Date(within.from ?? '')).toEqual(new Date('2026-11-01T00:00'));
		expect(new Date(within.before ?? '')).toEqual(new Date('2026-12-01T00:00'));
		expect(new Date(withinAsked(at('span=month'), ana, now).from ?? '')).toEqual(
			new Date('2026-12-01T00:00')
		);
		expect(spanWords(at('span=days&from=2026-11-01'), now)).toBe('from 1 November 2026');
	});

	it.each(['span=days', 'span=constructor', 'span=days&from=2026-13-45&to=yesterday', ''])(
		'is all of it where it is nonsense: %s',
		(query) => expect(withinAsked(at(query), ana, now)).toEqual(EVER)
	);

	it('is of one person for them and for leads alone', () => {
		expect(withinAsked(at('by=a'), ana, now).by).toBe('a');
		expect(withinAsked(at('by=t'), { ...ana, role: 'lead' }, now).by).toBe('t');
		expect(() => withinAsked(at('by=t'), ana, now)).toThrow();
		expect(() => withinAsked(at('by=t'), null, now)).toThrow();
	});
});
