import { vehicleTypes } from '../library';
import { benchFault } from '../src/lib/bench/faults/benchFault';
import { BenchScope } from '../src/lib/bench/instruments/scope';
import { STRAIGHT_DRIVE } from '../src/lib/bench/motion';
import { BenchVehicle } from '../src/lib/bench/vehicle';

/** One line of the report: name, ours, what it is held against, the ratio. */
type Row = (name: string, ours: string, reference: string, ratio: string) => void;

const DRIVE_S = STRAIGHT_DRIVE.reduce((sum, leg) => sum + leg.overS, 0);
const TRIALS = 100;
const RATE_HZ = 1_000_000;
const CAPTURE_S = 2;

function make(id: string, ...faults: ReturnType<typeof benchFault>[]): BenchVehicle {
	const type = vehicleTypes.get(id);
	if (!type) throw new Error(`no ${id}`);
	const vehicle = new BenchVehicle({ type, vin: '11111111111111111', odometerKm: 5, faults });
	vehicle.turnKey('on');
	return vehicle;
}

const secondsOf = (work: () => void): number => {
	const began = performance.now();
	work();
	return (performance.now() - began) / 1000;
};

/** How fast the simulated vehicle is: against real time, against a thousand trials a minute, against plain sine samples. */
export function benchVehicles(row: Row): void {
	for (const id of ['brindle-marlow-16', 'velmora-skiff']) {
		const sound = make(id);
		const broken = make(
			id,
			benchFault('sensor-plug-loose', 'rear-left'),
			benchFault('ring-tooth-missing', 'front-left')
		);
		for (const [name, vehicle] of [
			['sound', sound],
			['two faults', broken]
		] as const) {
			const drive = () => {
				vehicle.drive(STRAIGHT_DRIVE);
				vehicle.advance(DRIVE_S);
			};
			drive();
			const seconds = secondsOf(drive);
			row(
				`${id}, ${name}, all modules`,
				`${seconds.toFixed(2)} s`,
				`${DRIVE_S} s of driving`,
				`${(DRIVE_S / seconds).toFixed(0)} ×`
			);
		}
	}
	const trials = secondsOf(() => {
		for (let i = 0; i < TRIALS; i++)
			make('brindle-marlow-16', benchFault('lead-open', 'rear-left')).advance(5);
	});
	const perMinute = (TRIALS / trials) * 60;
	row(
		'vehicles made, key on, 5 s',
		`${perMinute.toFixed(0)} a minute`,
		'1000 a minute',
		`${(perMinute / 1000).toFixed(1)} ×`
	);

	const vehicle = make('brindle-marlow-16');
	vehicle.advance(4);
	vehicle.spin('rear-left', 20);
	vehicle.advance(2);
	const scope = new BenchScope(vehicle);
	const taken = () =>
		scope.capture({
			probes: [{ tip: 'brake.16' }, { tip: 'rear-left.2' }],
			rateHz: RATE_HZ,
			durationS: CAPTURE_S
		});
	taken();
	const ours = secondsOf(taken);
	const plain = secondsOf(() => {
		for (let channel = 0; channel < 2; channel++) {
			const samples = new Float32Array(RATE_HZ * CAPTURE_S);
			for (let i = 0; i < samples.length; i++) samples[i] = Math.sin(i * 1e-4);
		}
	});
	row(
		'capture, 2 s, 2 channels, 1 MS/s',
		`${ours.toFixed(2)} s`,
		`${plain.toFixed(2)} s plain sines`,
		`${(ours / plain).toFixed(1)} ×`
	);
}
