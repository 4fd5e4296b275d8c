import type { VehicleType } from '../../../../library';
import type { BenchFault } from '../faults/benchFault';
import type { Scatter } from '../physics/scatter';
import { BenchVehicle } from '../vehicle';

/** A vehicle that nobody knows, with faults in it. Same seed, same vehicle. */
export const trialVehicle = (
	type: VehicleType,
	faults: BenchFault[],
	seed: number,
	scatter?: Scatter
): BenchVehicle =>
	new BenchVehicle({
		type,
		vin: '11111111111111111',
		odometerKm: 84_000,
		faults,
		seed,
		...(scatter ? { scatter } : {})
	});
