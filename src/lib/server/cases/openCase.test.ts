import { ulid } from 'ulid';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { corrected } from '../../../../library/vehicle/correct';
import { inlineWork } from '../heavy/inline';
import type { Services } from '../services';
import { openTestShop, put, type TestShop } from '../shop.fixture';
import { loadCase } from './access';
import { describeVehicle, learnSensor } from './describeVehicle';
import { emptyCase, NewCase, openCase } from './openCase';

let shop: TestShop;
let services: Services;
beforeEach(async () => {
	shop = await openTestShop();
	services = { ...shop, heavy: inlineWork(shop) } as unknown as Services;
});
afterEach(() => shop.close());

const asked = (answers: Partial<NewCase>): NewCase => NewCase.parse({ ...emptyCase(), ...answers });
async function opened(answers: Partial<NewCase>): Promise<string> {
	const form = asked(answers);
	expect(await openCase(services, form, shop.ana)).toEqual({ ok: true, value: null });
	return form.caseId;
}
const typeAt = async (caseId: string) => {
	const { type } = await loadCase(shop, caseId);
	if (!type) throw new Error('not described');
	return type;
};

describe('a vehicle that nobody has described', () => {
	it('is opened by its kind and its words, once however often it is sent', async () => {
		const form = asked({ template: 'car', nickname: 'White saloon, 2011', plate: 'ZX 1', front: 'passive' });
		for (let i = 0; i < 2; i++) expect((await openCase(services, form, shop.ana)).ok).toBe(true);
		const { row, thread, type } = await loadCase(shop, form.caseId);
		expect(thread.map(({ kind }) => kind)).toEqual(['case-opened', 'vehicle-described']);
		expect(row).toMatchObject({ vehicleName: 'Car', vehicle: { nickname: 'White saloon, 2011' } });
		expect(type?.wheels.map(({ sensor }) => sensor)).toEqual(['passive', 'passive', 'unknown', 'unknown']);
		expect(await shop.vehicleDescriptions.list()).toMatchObject([{ name: 'White saloon, 2011', version: 1 }]);
	});

	it('each answer has its field, and what is missing is said', () => {
		const wrong = (answers: Partial<NewCase>) =>
			NewCase.safeParse({ ...emptyCase(), ...answers }).error?.issues.map(({ path }) => path.join('.')) ?? [];
		expect(wrong({})).toEqual(['template', 'nickname']);
		expect(wrong({ template: 'car', nickname: 'x', vin: 'short' })).toEqual(['vin']);
		expect(wrong({ template: 'car', nickname: 'x' })).toEqual([]);
	});

	it('an answer that makes no vehicle opens nothing', async () => {
		const form = asked({ typeId: 'no-such-type', nickname: 'ghost' });
		expect(await openCase(services, form, shop.ana)).toMatchObject({ ok: false });
		expect(await shop.cases.find(form.caseId)).toBeNull();
	});

	it('what is found out is there for the next case, and the case before keeps what it was worked with', async () => {
		const first = await opened({ template: 'van', nickname: 'Bread van' });
		const { vehicle } = (await shop.cases.find(first)) ?? {};
		const second = await opened({ vehicleId: vehicle?.id ?? '' });
		const known = await shop.vehicleDescriptions.newest(vehicle?.typeId ?? '');
		const next = known && corrected(known, [{ path: 'wheels.rear-left.ringTeeth', value: 44 }]);
		if (!next?.ok) throw new Error('not corrected');
		const entryId = ulid();
		for (let i = 0; i < 2; i++)
			await describeVehicle(services, { caseId: second, entryId, because: 'counted' }, next.value, shop.ana);
		const teeth = async (caseId: string) =>
			(await typeAt(caseId)).wheels.find(({ position }) => position === 'rear-left')?.ringTeeth;
		expect([await teeth(first), await teeth(second)]).toEqual([48, 44]);
		const third = await opened({ typeId: vehicle?.typeId ?? '', nickname: 'Another bread van' });
		expect(await teeth(third)).toBe(44);
		expect((await typeAt(third)).version).toBe(2);
		expect(await shop.vehicleDescriptions.list()).toMatchObject([{ version: 2 }]);
	});

	it('what a round told of a sensor is there for the next case, and what the shop knew stays', async () => {
		const first = await opened({ template: 'car', nickname: 'Taxi', rear: 'two-wire' });
		const told = async (family: 'passive' | 'three-wire') => {
			await put(
				shop,
				'sensor-identified',
				{ position: null, family, answers: {}, probability: 0.98 },
				{ caseId: first }
			);
			await learnSensor(services, await typeAt(first), shop.ana);
		};
		await told('passive');
		await told('three-wire');
		const { vehicle } = (await shop.cases.find(first)) ?? {};
		const next = await opened({ vehicleId: vehicle?.id ?? '' });
		expect((await typeAt(next)).wheels.map(({ sensor }) => sensor)).toEqual([
			'passive',
			'passive',
			'two-wire',
			'two-wire'
		]);
		expect((await typeAt(next)).version).toBe(2);
	});

	it('a type as it is shipped needs no description of the shop’s', async () => {
		const caseId = await opened({ typeId: 'ottaro-pip', nickname: 'shuttle' });
		expect((await loadCase(shop, caseId)).thread.map(({ kind }) => kind)).toEqual(['case-opened']);
		expect((await typeAt(caseId)).id).toBe('ottaro-pip');
	});
});
