import { ulid } from 'ulid';
import { afterEach, beforeEach, expect, it } from 'vitest';
import type { EntryKind, PayloadOf } from '../../case/entries/entry';
import { BRAKE, OPEN, ThreadMaker } from '../../case/thread/threads.fixture';
import { openTestShop, put as putEntry, type TestShop } from '../shop.fixture';
import { ShopFigures } from './shopFigures';

let shop: TestShop;
beforeEach(async () => {
	shop = await openTestShop();
});
afterEach(() => shop.close());

const put = <K extends EntryKind>(caseId: string, kind: K, payload: PayloadOf<K>) =>
	putEntry(shop, kind, payload, { caseId });

/** A signed case with a wheel code, mended by this kind of repair. */
async function signed(kind: string, verdict: string, comebackOf?: string): Promise<string> {
	const [first] = await shop.vehicles.list();
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
