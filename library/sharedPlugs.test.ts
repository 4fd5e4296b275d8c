import { describe, expect, it } from 'vitest';
import { placesFor } from './faultPlaces';
import { faults, isOfAxle } from './faults';
import { reasonModel } from './reason/model';
import { relationOf } from './reason/relations';
import { sharedByWheels } from './reason/sharedByWheels';
import { testsFor } from './reason/tests';
import { sharedPlugsOf } from './sharedPlugs';
import { vehicleTypes } from './vehicles';

const typeOf = (id: string) => {
	const type = vehicleTypes.get(id);
	if (!type) throw new Error(id);
	return type;
};
const minibus = typeOf('brindle-marlow-16');
const trailer = typeOf('hexley-drover');

describe('plugs that wheels share', () => {
	it('are those that the leads of two wheels or more go through, by the diagram', () => {
		expect(sharedPlugsOf(minibus).map(({ name, wheels }) => [name, wheels])).toEqual([
			['X3', ['rear-left', 'rear-right']],
			['X20', ['rear-left', 'rear-right']]
		]);
		expect(sharedPlugsOf(trailer).map(({ name, wheels }) => [name, wheels])).toEqual([
			['X31', ['axle1-left', 'axle1-right']],
			['X32', ['axle2-left', 'axle2-right']]
		]);
	});

	it('carry faults of their own, which the wheels behind them show and no other', () => {
		const fault = faults.get('shared-plug-corroded');
		if (!fault) throw new Error('no such fault');
		expect(placesFor(fault, minibus)).toEqual(['X3', 'X20']);
		const seen = (place: string) =>
			relationOf({ kind: 'plug', place: 'X20' }, { kind: 'corner', place }, minibus);
		expect(['rear-left', 'front-left'].map(seen)).toEqual(['hangs', 'other']);
		expect(relationOf({ kind: 'plug', place: 'X20' }, { kind: 'module', place: 'brake' }, minibus)).toBe(
			'reader'
		);
		const table = reasonModel(minibus).sign('wheel-code@rear-left');
		const model = reasonModel(minibus);
		const p = (id: string) => {
			const row = model.rows.length + model.faults.findIndex((one) => one.id === id);
			const at = table?.outcomes.indexOf('open') ?? -1;
			return table?.chance[row * table.outcomes.length + at] ?? 0;
		};
		expect(p('shared-plug-corroded@X20')).toBeGreaterThan(0.5);
		expect(p('shared-plug-corroded@X20')).toBeGreaterThan(20 * p('lead-open@front-left'));
	});

	it('have their like in the module’s plug: both wheels of an axle show it, and either side mends it', () => {
		const fault = faults.get('wheel-cavities-corroded');
		if (!fault) throw new Error('no such fault');
		expect(isOfAxle(fault)).toBe(true);
		const model = reasonModel(minibus);
		const table = model.sign('wheel-code@rear-right');
		const at = table?.outcomes.indexOf('open') ?? -1;
		const row = model.rows.length + model.faults.findIndex((one) => one.id === `${fault.id}@rear-left`);
		expect(table?.chance[row * table.outcomes.length + at]).toBeGreaterThan(0.5);
		const places = model.faults
			.find((one) => one.id === `${fault.id}@rear-left`)
			?.curedBy.map((index) => model.repairs[index]?.place);
		expect(new Set(places)).toEqual(new Set(['rear-left', 'rear-right']));
	});

	it('are got to once, and looked at', () => {
		const look = testsFor(minibus).find(({ id }) => id === 'shared-plug@X20');
		expect(look?.access).toEqual([
			{ id: 'plug:X20', minutes: minibus.harness.plugs.find(({ name }) => name === 'X20')?.accessMin }
		]);
	});
});

describe('what wheels share', () => {
	it('is nothing for one wheel, the module alone for two that no plug joins, and a plug first where it is the cheapest', () => {
		expect(sharedByWheels(minibus, ['rear-left'])).toEqual([]);
		const across = sharedByWheels(minibus, ['front-left', 'rear-right']);
		expect(new Set(across.map(({ kind }) => kind))).toEqual(new Set(['module-plug', 'supply', 'ground']));
		const rear = sharedByWheels(minibus, ['rear-left', 'rear-right']);
		expect(
			rear
				.filter(({ kind }) => kind === 'plug')
				.map(({ place }) => place)
				.sort()
		).toEqual(['X20', 'X3']);
		const minutes = rear.map((one) => one.minutes);
		expect(minutes).toEqual([...minutes].sort((a, b) => a - b));
	});
});
