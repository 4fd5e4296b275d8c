import { describe, expect, it } from 'vitest';
import { linkTypes } from '../../../../library';
import { placesFor } from '../../../../library/faultPlaces';
import { faults } from '../../../../library/faults';
import { repairs } from '../../../../library/repairs';
import { GENERAL_METHOD } from '../../../../library/reason/notDescribed';
import { uniform } from '../vehicle';
import { SimulatedTechnician } from '../technician/simulatedTechnician';
import { trialVehicle } from '../technician/trialVehicle';
import { undescribed } from './undescribed';

describe('faults that the library does not describe', () => {
	it('are not in it: neither by name, nor by what they do and when', () => {
		const known = new Set([...faults.values()].map((one) => JSON.stringify([one.effects, one.when])));
		for (const one of undescribed.values()) {
			expect(faults.has(one.id), one.id).toBe(false);
			expect(known.has(JSON.stringify([one.effects, one.when])), one.id).toBe(false);
			for (const id of one.curedBy) expect(repairs.has(id), id).toBe(true);
		}
	});

	it.each([...undescribed.keys()])('%s shows its owner something on some vehicle', (id) => {
		const fault = undescribed.get(id);
		if (!fault) throw new Error(id);
		const shown = linkTypes.some((type) =>
			placesFor(fault, type)
				.slice(0, 2)
				.some((at) => {
					const vehicle = trialVehicle(type, [{ id, at, severity: 0.9, everyKm: null }], 12);
					const technician = new SimulatedTechnician(vehicle, uniform(3));
					technician.arrives();
					return technician.shown;
				})
		);
		expect(shown).toBe(true);
	});

	it('are found by the general method at their place or on the whole vehicle, and nowhere else', () => {
		const id = 'undescribed-sensor-fails-fast';
		const [type] = linkTypes;
		if (!type) throw new Error('no vehicle');
		const [at, other] = type.wheels.map(({ position }) => position);
		if (!at || !other) throw new Error('no wheels');
		const left = (place: string) => {
			const vehicle = trialVehicle(type, [{ id, at, severity: 0.5, everyKm: null }], 1);
			vehicle.mend(place, GENERAL_METHOD);
			return vehicle.faults.length;
		};
		expect([left(at), left('vehicle'), left(other)]).toEqual([0, 0, 1]);
	});
});
