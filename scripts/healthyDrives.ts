import { linkTypes } from '../library';
import { randomDrive } from '../src/lib/bench/randomDrive';
import { BenchVehicle } from '../src/lib/bench/vehicle';

/** Coarser than a module's cycle: over thousands of kilometres no single tooth matters. */
const STEP_S = 0.05;
const DAY_KM = 25;

/**
 * Drives sound vehicles of every type through random days until they have covered a distance together.
 *
 * @returns codes that were stored, which there should be none of, each with the vehicle and the day's number
 */
export function healthyDrives(km: number, seed: number): { drivenKm: number; codes: string[] } {
	const codes: string[] = [];
	let drivenKm = 0;
	for (const [i, type] of linkTypes.entries()) {
		const vehicle = new BenchVehicle({
			type,
			vin: '11111111111111111',
			odometerKm: 0,
			faults: [],
			seed: seed + i,
			stepS: STEP_S
		});
		for (let day = 1; vehicle.state.odometerKm < km / linkTypes.length; day++) {
			vehicle.turnKey('off');
			vehicle.advance(3);
			vehicle.turnKey('on');
			vehicle.advance(3);
			const { steeringRatio, wheelbaseM } = type.chassis;
			const legs = randomDrive(vehicle.world.random, DAY_KM, steeringRatio, wheelbaseM);
			vehicle.drive(legs);
			vehicle.advance(legs.reduce((sum, leg) => sum + leg.overS, 1));
			for (const module of vehicle.modules.values()) {
				for (const monitor of module.monitors) {
					if (monitor.occurrences > 0)
						codes.push(`${type.id}, day ${day}: ${monitor.rule.dtc} in ${module.role}`);
				}
			}
		}
		drivenKm += vehicle.state.odometerKm;
	}
	return { drivenKm, codes };
}
