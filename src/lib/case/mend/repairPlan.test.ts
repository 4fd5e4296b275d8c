import { describe, expect, it } from 'vitest';
import { shippedBook } from '../../../../library/codes';
import { reasonModel } from '../../../../library/reason/model';
import { vehicleTypes } from '../../../../library';
import { PROVE_FIRST } from '../../core/path/policy';
import { caseCodes } from '../codes/caseCodes';
import { reasonAbout } from '../reason/reasoning';
import { neededFor, waysToMend } from './repairPlan';
import { BRAKE, OPEN, ThreadMaker } from '../thread/threads.fixture';
import { standing } from '../thread/thread';

const found = vehicleTypes.get('brindle-marlow-16');
if (!found) throw new Error('no minibus');
const minibus = found;
const model = reasonModel(minibus);
const repairAt = (kind: string, place: string) => {
	const repair = model.repairs.find((one) => one.kind === kind && one.place === place);
	if (!repair) throw new Error(`no ${kind} at ${place}`);
	return repair;
};
const needs = (kind: string, place: string) =>
	neededFor(repairAt(kind, place), minibus)
		.map(({ function: id, before }) => `${id}${before ? '!' : ''}`)
		.sort();

const EVERYTHING = new Set([
	'routines',
	'coding',
	'charger',
	'press',
	'closed-area',
	'pump-bleed',
	'alignment'
]);

describe('what a repair needs of a shop', () => {
	it('is its own need and that of every calibration that it calls for', () => {
		expect(needs('renew-module', 'brake')).toEqual(['charger!', 'closed-area', 'coding!', 'routines']);
		expect(needs('renew-hub', 'rear-left')).toEqual(['press!']);
		expect(needs('renew-sensor', 'rear-left')).toEqual([]);
		expect(needs('renew-module', 'power-steering')).toEqual(['charger!', 'routines']);
	});
});

describe('the ways to mend', () => {
	const crept = () => {
		const maker = new ThreadMaker();
		maker.add('case-opened', { vehicleId: 'v', typeId: minibus.id, name: 'Marlow', plate: 'TP 16' });
		maker.listen().scan([[BRAKE, OPEN, 0x2f]]);
		const entries = standing(maker.thread);
		return reasonAbout(entries, model, {
			book: shippedBook,
			codes: caseCodes(maker.thread, shippedBook),
			policy: PROVE_FIRST
		});
	};
	const dry = { odometerKm: 0, harsh: false };

	it('are all that cure the fault, the least expected minutes first, each with what is missing', () => {
		const ways = waysToMend(crept(), { kind: 'renew-lead', place: 'rear-left' }, dry, new Set()) ?? [];
		const kinds = ways.map(({ repair }) => repair.kind);
		expect(kinds).toContain('renew-lead');
		const minutes = ways.map(({ expectedMinutes }) => expectedMinutes);
		expect([...minutes].sort((a, b) => a - b)).toEqual(minutes);
		for (const { minutesNow, expectedMinutes, cures } of ways) {
			expect(expectedMinutes).toBeGreaterThan(minutesNow);
			expect(cures).toBeGreaterThan(0);
		}
	});

	it('a new brake module may not be begun without coding, and only partly without a closed area', () => {
		const answer = (owned: ReadonlySet<string>) =>
			waysToMend(crept(), { kind: 'renew-module', place: 'brake' }, dry, owned)?.find(
				({ repair }) => repair.kind === 'renew-module'
			)?.finish.answer;
		const without = (id: string) => new Set([...EVERYTHING].filter((one) => one !== id));
		expect(answer(EVERYTHING)).toBe('yes');
		expect(answer(without('closed-area'))).toBe('partly');
		expect(answer(without('coding'))).toBe('sublet');
	});

	it('say nothing of a repair that the vehicle does not have', () => {
		expect(waysToMend(crept(), { kind: 'renew-hub', place: 'axle3-left' }, dry, EVERYTHING)).toBeNull();
	});
});
