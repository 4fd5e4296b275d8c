import { describe, expect, it } from 'vitest';
import { TEMPLATES } from '../../../library/vehicle/given';
import { newDescription, type Answers } from '../../../library/vehicle/newDescription';
import { withPin } from '../../../library/vehicle/pins';
import { vehicleTypeOf, type VehicleType } from '../../../library/vehicle/vehicleType';
import { codesOf } from './bench.fixture';
import { libraryFault, benchFault } from './faults/benchFault';
import { WheelModule } from './modules/wheelModule';
import { BenchVehicle } from './vehicle';

/** Vehicles that nobody has built: their wiring is what is usual, and the bench runs them all the same. */

function typeFrom(answers: Answers): VehicleType {
	const made = newDescription(answers);
	if (!made.ok) throw new Error(made.error);
	return vehicleTypeOf(made.value);
}
function driven(type: VehicleType, ...faults: ReturnType<typeof benchFault>[]): BenchVehicle {
	const vehicle = new BenchVehicle({ type, vin: '11111111111111111', odometerKm: 1000, faults });
	vehicle.turnKey('on');
	vehicle.advance(4);
	vehicle.drive([
		{ toKmh: 40, overS: 6 },
		{ toKmh: 40, overS: 10 },
		{ toKmh: 0, overS: 6 }
	]);
	vehicle.advance(24);
	return vehicle;
}
const onLink = TEMPLATES.filter((template) => template !== 'lamp-only');
const MIXED: Answers = {
	template: 'car',
	sensors: [
		['front', 'passive'],
		['rear', 'three-wire']
	]
};

describe('a vehicle described by what is usual', () => {
	it.each([...onLink.map((template): Answers => ({ template })), MIXED])(
		'%j is sound: driven, it sets no code',
		(answers) => {
			expect(codesOf(driven(typeFrom(answers)))).toEqual({});
		}
	);

	it('works on when somebody has told which pin a wire goes to', () => {
		const made = newDescription({ template: 'car' });
		if (!made.ok) throw new Error(made.error);
		const told = withPin(made.value, 'brake', 'signal front-left', 'B7');
		if (!told.ok) throw new Error(told.error);
		const type = vehicleTypeOf(told.value);
		expect(codesOf(driven(type))).toEqual({});
		const codes = codesOf(driven(type, benchFault(libraryFault('lead-return-open').id, 'front-left')));
		expect(Object.values(codes).flat().length).toBeGreaterThan(0);
	});

	it('has its module know the ring and the tyre of each axle: other ones at the rear set no code', () => {
		const type = typeFrom({ template: 'car' });
		const wheels = type.wheels.map((wheel) => ({
			...wheel,
			ringTeeth: wheel.axle === 1 ? 44 : 31,
			circumferenceM: wheel.axle === 1 ? 1.92 : 2.04
		}));
		const vehicle = driven({ ...type, wheels });
		expect(codesOf(vehicle)).toEqual({});
		vehicle.drive([{ toKmh: 40, overS: 6 }]);
		vehicle.advance(8);
		const shown = [...vehicle.modules.values()]
			.flatMap((module) => (module instanceof WheelModule ? module.readers : []))
			.map(({ shownKmh }) => Math.round(shownKmh ?? NaN));
		expect(shown).toEqual([40, 40, 40, 40]);
	});

	it.each([...onLink.map((template): Answers => ({ template })), MIXED])(
		'%j tells of a lead that is open',
		(answers) => {
			const type = typeFrom(answers);
			for (const { position } of [...type.wheels.slice(0, 1), ...type.wheels.slice(-1)]) {
				const codes = codesOf(driven(type, benchFault(libraryFault('lead-return-open').id, position)));
				expect(Object.values(codes).flat().length, position).toBeGreaterThan(0);
			}
		}
	);
});
