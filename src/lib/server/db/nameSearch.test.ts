import { ulid } from 'ulid';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { EntryKind, PayloadOf } from '../../case/entries/entry';
import { answer } from '../../case/codes/answerText';
import { openTestShop, put, type TestShop } from '../shop.fixture';
import { CodeLibrary } from './codeLibrary';

let shop: TestShop;
const ids = new Map<string, string>();

async function write<K extends EntryKind>(caseId: string, kind: K, payload: PayloadOf<K>): Promise<void> {
	await put(shop, kind, payload, { caseId });
	await shop.cases.refresh(caseId);
}

async function bring(nickname: string, plate: string): Promise<void> {
	const typeId = 'brindle-marlow-16';
	const vehicle = await shop.vehicles.add({
		typeId,
		nickname,
		plate,
		vin: null,
		linkAddress: null,
		standInAddress: null
	});
	const caseId = await shop.cases.open(ulid(), vehicle.id);
	ids.set(caseId, nickname);
	const name = `Brindle Marlow 16, ${nickname}`;
	await write(caseId, 'case-opened', { vehicleId: vehicle.id, typeId, name, plate });
}
const find = async (text: string) =>
	(await shop.cases.named(text, 5)).map(({ id, number }) => ids.get(id) ?? number);

beforeEach(async () => {
	shop = await openTestShop();
	await bring('school minibus', 'TPI 16');
	await bring('harbour mower', 'KÜ-LM 204');
	await bring('island vet', 'VET 1');
});
afterEach(() => shop.close());

describe('cases by what they are called', () => {
	it.each([
		['tp-0402', ['school minibus']],
		['402', ['school minibus']],
		['tpi16', ['school minibus']],
		['TPI 16', ['school minibus']],
		['kulm204', ['harbour mower']],
		['KÜ-LM 204', ['harbour mower']],
		['arlo', ['island vet', 'harbour mower', 'school minibus']],
		['brindle vet', ['island vet']],
		['harb mow', ['harbour mower']]
	])('“%s” is found by any part of its names', async (text, expected) => {
		expect(await find(text)).toEqual(expected);
	});

	it.each([
		['harbuor', ['harbour mower']],
		['shcool', ['school minibus']],
		['minibas', ['school minibus']],
		['island vett', []],
		['iland', ['island vet']]
	])('“%s” is found with a slip in a longer word, never in a short one', async (text, expected) => {
		expect(await find(text)).toEqual(expected);
	});

	it('a plate of two words is that plate, whatever others begin alike', async () => {
		for (const n of [61, 40, 3, 12, 55, 160]) await bring(`van ${n}`, `TPI ${n}`);
		expect(await find('TPI 16')).toEqual(['van 160', 'school minibus']);
		expect(await find('bus 99')).toEqual([]);
		expect(await find('minibus 16')).toEqual(['school minibus']);
	});

	it('by a long number: all of it, by its end, and with a slip', async () => {
		await bring('pilot boat', 'HP 1');
		const [caseId] = [...ids].at(-1) ?? [''];
		await write(caseId, 'vehicle-checked', {
			vin: 'BRM16SCH0P0004183',
			checkDigitFits: true,
			odometerKm: 84_210
		});
		for (const text of ['brm16sch0p0004183', 'BRM16SCH0P0004138', '0004183'])
			expect(await find(text), text).toEqual(['pilot boat']);
		for (const text of ['XXM16SCH0P0XX4183', 'WWWWWSCH0P0004183']) expect(await find(text), text).toEqual([]);
	});

	it.each(['', '-', '"', '* OR x', 'NEAR(', 'xq', 'capstan', '((((', '99999999'])(
		'“%s” finds nothing and breaks nothing',
		async (text) => expect(await find(text)).toEqual([])
	);

	it('stand before the codes whose words they have, each once, and say whether they are open', async () => {
		const library = new CodeLibrary(shop.db);
		await library.prepare();
		const { found, trouble } = await answer(library, shop.cases, 'TP-0403', null);
		expect(trouble).toBeNull();
		expect(found).toMatchObject([
			{ group: 'case', text: 'TP-0403', title: 'harbour mower, KÜ-LM 204', from: 'open' },
			{ group: 'vehicle', text: 'KÜ-LM 204', title: 'harbour mower' }
		]);
	});
});
