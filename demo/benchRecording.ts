import { channelOf } from '../library/positions';
import { vehicleTypes } from '../library';
import type { BenchFault } from '../src/lib/bench/faults/benchFault';
import { WheelModule } from '../src/lib/bench/modules/wheelModule';
import type { DriveLeg } from '../src/lib/bench/motion';
import { BenchVehicle } from '../src/lib/bench/vehicle';
import type { Recording } from '../src/lib/core/live/recording';

/** What a tester would have recorded of a bench vehicle on a drive: shown values, 655.35 where there is none. */
export function benchRecording(
	id: string,
	faults: BenchFault[],
	legs: DriveLeg[],
	rateHz = 20,
	seed = 1
): Recording {
	const type = vehicleTypes.get(id);
	if (!type) throw new Error(`no ${id}`);
	const vehicle = new BenchVehicle({ type, vin: '11111111111111111', odometerKm: 5, faults, seed });
	vehicle.turnKey('on');
	vehicle.advance(4);
	const reader = vehicle.module('brake') ?? vehicle.module('trailer-brake');
	if (!(reader instanceof WheelModule)) throw new Error('nobody reads the wheels');
	vehicle.drive(legs);
	const rows: number[][] = [];
	const durationS = legs.reduce((sum, leg) => sum + leg.overS, 0);
	for (let t = 0; t < durationS; t += 1 / rateHz) {
		vehicle.advance(1 / rateHz);
		rows.push(reader.readers.map((one) => Math.round((one.shownKmh ?? 655.35) * 100) / 100));
	}
	return {
		timeS: Float64Array.from(rows, (_, i) => i / rateHz),
		channels: new Map(
			type.wheels.map(({ position }, k) => [
				channelOf(position),
				Float64Array.from(rows, (row) => row[k] ?? NaN)
			])
		),
		problems: []
	};
}
