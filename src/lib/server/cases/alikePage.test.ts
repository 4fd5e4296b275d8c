import { ulid } from 'ulid';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { EntryKind, PayloadOf } from '../../case/entries/entry';
import { BRAKE, OPEN, ThreadMaker } from '../../case/thread/threads.fixture';
import { openTestShop, put, type TestShop } from '../shop.fixture';
import { alikePage } from './alikePage';

let shop: TestShop;
beforeEach(async () => {
	shop = await openTestShop();
});
afterEach(() => shop.close());

/** A case with codes of the brake module, and what is felt. */
async function bring(nickname: string, codes: string[], felt: string[], typeId = 'brindle-marlow-16') {
	const vehicle = await shop.vehicles.add({
		typeId,
		nickname,
		plate: nickname,
		vin: null,
		linkAddress: null,
		standInAddress: null
	});
	const caseId = await shop.cases.open(ulid(), vehicle.id);
	const write = <K extends EntryKind>(kind: K, payload: PayloadOf<K>) => put(shop, kind, payload, { caseId });
	await write('case-opened', { vehicleId: vehicle.id, typeId, name: nickname, plate: nickname });
	await write('complaint', { words: `${nickname} complains`, symptoms: [], conditions: [], felt, when: [] });
	if (codes.length > 0) {
		const scan = new ThreadMaker().scan(codes.map((dtc) => [BRAKE, dtc, 0xaf]));
		await write('network-scan', scan.payload as PayloadOf<'network-scan'>);
	}
	await shop.cases.refresh(caseId);
	return { caseId, write };
}
const mended = (title: string, kind: string): PayloadOf<'repair'> => ({
	title,
	position: 'rear-left',
	parts: [],
	temporary: false,
	note: '',
	does: { kind, place: 'rear-left' }
});
async function sign({ caseId, write }: Awaited<ReturnType<typeof bring>>): Promise<void> {
	await write('signature', { statement: 'Good', verdict: 'Proven clear', outcome: 'proven' });
	await shop.cases.refresh(caseId);
}
const alikeTo = async (caseId: string) => (await alikePage(shop, { caseId })).cases;

describe('cases like this one', () => {
	it('the very failure on the same type comes before the code alone, and that before the type alone', async () => {
		const here = await bring('here', [OPEN], []);
		await bring('only the type', ['403511'], []);
		await bring('another failure of the code', ['404511'], [], 'norvane-lichen');
		await bring('the very failure', [OPEN], []);
		await bring('nothing of it', ['456100'], [], 'norvane-lichen');
		const found = await alikeTo(here.caseId);
		expect(found.map(({ vehicle }) => vehicle)).toEqual([
			'the very failure',
			'another failure of the code',
			'only the type'
		]);
		expect(found[0]?.same).toEqual(['C0045-13', 'the same type']);
		expect(found[0]?.share).toBeCloseTo(1);
	});

	it('says what mended it, how that was proven, and that what is open counts for nothing', async () => {
		const here = await bring('here', [OPEN], []);
		const there = await bring('there', [OPEN], []);
		await there.write('repair', mended('Sensor renewed', 'renew-sensor'));
		await there.write('proving-drive', {
			distanceKm: 12.4,
			topSpeedKmh: 60,
			stops: 2,
			road: 'dry',
			driver: 'Ana',
			note: ''
		});
		expect(await alikeTo(here.caseId)).toMatchObject([
			{ repairs: ['Sensor renewed'], ended: 'open', weight: null, provenBy: { cleared: false, km: 12.4 } }
		]);
		await sign(there);
		const [counted] = await alikeTo(here.caseId);
		expect(counted).toMatchObject({ ended: 'proven' });
		// Of the very kind, but for the odometer, which nobody read on either.
		expect(counted?.weight).toBeCloseTo(0.75);
	});

	it('what came back says so, and counts no more', async () => {
		const here = await bring('here', [OPEN], []);
		const there = await bring('there', [OPEN], []);
		await there.write('repair', mended('Plug cleaned', 'clean-plug'));
		await sign(there);
		const again = await shop.cases.open(ulid(), (await shop.cases.find(there.caseId))?.vehicle.id ?? '');
		await put(
			shop,
			'case-opened',
			{
				vehicleId: 'v',
				typeId: 'brindle-marlow-16',
				name: 'there',
				plate: '',
				comebackOf: { caseId: there.caseId, number: 'TP-0403', lastHash: '0'.repeat(64) }
			},
			{ caseId: again }
		);
		await shop.cases.refresh(again);
		const cameBack = (await alikeTo(here.caseId)).find(
			({ vehicle, ended }) => vehicle === 'there' && ended !== 'open'
		);
		expect(cameBack).toMatchObject({ ended: 'came-back', weight: null });
		expect(cameBack?.cameBackAs).toMatch(/^TP-/);
	});

	it('by what is felt alone, where no module has a code', async () => {
		const here = await bring('lorry', [], ['dead-dial'], 'unknown-type');
		// Found by the words of the complaint.
		await bring('another lorry', [], ['dead-dial'], 'another-unknown');
		const [found] = await alikeTo(here.caseId);
		expect(found).toMatchObject({ vehicle: 'another lorry', same: ['dead speedometer'] });
	});

	it('nothing is like a case of which nothing is known', async () => {
		const page = await alikePage(shop, { caseId: shop.caseId });
		expect(page).toMatchObject({ known: 0, cases: [] });
	});
});
