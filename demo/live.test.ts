import { describe, expect, it } from 'vitest';
import { vehicleTypes } from '../library';
import { benchFault, type BenchFault } from '../src/lib/bench/faults/benchFault';
import type { DriveLeg } from '../src/lib/bench/motion';
import { WheelModule } from '../src/lib/bench/modules/wheelModule';
import { randomDrive } from '../src/lib/bench/randomDrive';
import { BenchVehicle } from '../src/lib/bench/vehicle';
import { analyseLive } from '../src/lib/core/live/analyse';
import type { Recording } from '../src/lib/core/live/recording';

const channelOf = (position: string) => position.replace('-', '_');

/** What a tester would have recorded of a bench vehicle on a drive: shown values, 655.35 where there is none. */
function record(id: string, faults: BenchFault[], legs: DriveLeg[], rateHz = 20, seed = 1): Recording {
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

const ROUND: DriveLeg[] = [
	{ toKmh: 0, overS: 2 },
	{ toKmh: 30, overS: 9 },
	{ toKmh: 30, overS: 8, steeringDeg: 120 },
	{ toKmh: 70, overS: 12 },
	{ toKmh: 70, overS: 25 },
	{ toKmh: 40, overS: 8 },
	{ toKmh: 40, overS: 6, steeringDeg: -90 },
	{ toKmh: 0, overS: 11 },
	{ toKmh: 0, overS: 2 }
];
const found = (recording: Recording) =>
	analyseLive(recording).findings.map(({ type, channel }) => `${type} ${channel}`);

describe('live data of bench vehicles', () => {
	it.each([
		['brindle-marlow-16', benchFault('lead-open', 'rear-left'), 'stuck-invalid rear_left'],
		['brindle-marlow-16', benchFault('sensor-stuck-low', 'front-right'), 'stuck-zero front_right'],
		['brindle-marlow-16', benchFault('encoder-reversed', 'rear-right'), 'stuck-zero rear_right'],
		['brindle-marlow-16', benchFault('ring-loose', 'front-left', 0.46), 'dropout front_left'],
		['velmora-skiff', benchFault('gap-rust', 'front-left', 0.3), 'late-pickup front_left'],
		['velmora-skiff', benchFault('gap-rust', 'front-left', 0.3), 'early-loss front_left'],
		['brindle-marlow-16', benchFault('tyre-temporary-spare', 'rear-right', 0.2), 'ratio-offset rear_right'],
		['norvane-lichen', benchFault('tyre-soft', 'front-left', 1), 'ratio-offset front_left'],
		['ottaro-pip', benchFault('tyres-odd-axle', 'rear-left', 0.2), 'ratio-offset rear'],
		['brindle-marlow-16', benchFault('ring-wrong-count', 'front-right'), 'ratio-offset front_right'],
		['hexley-drover', benchFault('lead-open', 'axle2-left'), 'stuck-invalid axle2_left']
	])('%s with %o: %s', (id, fault, expected) => {
		expect(found(record(id, [fault], ROUND))).toContain(expected);
	});

	it('names the ratio of a spare, and the speed at which a weak sensor begins', () => {
		const spare = analyseLive(
			record('brindle-marlow-16', [benchFault('tyre-temporary-spare', 'rear-right', 0)], ROUND)
		);
		expect(spare.findings.find(({ type }) => type === 'ratio-offset')?.value).toBeCloseTo(1 / 0.9, 2);
		const weak = analyseLive(record('velmora-skiff', [benchFault('gap-rust', 'front-left', 0.3)], ROUND));
		const pickup = weak.findings.find(({ type }) => type === 'late-pickup')?.value ?? 0;
		expect(pickup).toBeGreaterThan(8);
		expect(pickup).toBeLessThan(30);
	});

	it.each([...vehicleTypes.values()].map((type) => [type.id, type] as const))(
		'%s without faults: nothing on six random drives with bends, braking and slip',
		(id, type) => {
			let seed = id.length;
			const random = () => {
				seed = (Math.imul(seed, 1_664_525) + 1_013_904_223) >>> 0;
				return seed / 2 ** 32;
			};
			for (let i = 0; i < 6; i++) {
				const legs = randomDrive(random, 1.5, type.chassis.steeringRatio, type.chassis.wheelbaseM);
				const findings = analyseLive(record(id, [], legs, [5, 20, 50][i % 3])).findings;
				expect(
					findings.map(({ text }) => text),
					`drive ${i}`
				).toEqual([]);
			}
		}
	);
});
