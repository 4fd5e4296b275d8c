import { POSITIONS, type Position } from '../../../../library';
import { loopCurrentA, ringSeen, toothFrequencyHz, type WheelCircuit } from '../physics/wheelSensor';
import { commonValue, rawValue } from './identity';
import { Module, type Watch, type World } from './module';
import type { Sample } from './monitor';

/** The two code bytes of each corner's wheel speed circuit (C0035, C0040, C0045, C0050). */
const CORNER_CODE: Record<Position, string> = {
	'front-left': '4035',
	'front-right': '4040',
	'rear-left': '4045',
	'rear-right': '4050'
};
const WHEEL_SPEED_ID: Record<Position, string> = {
	'front-left': 'D101',
	'front-right': 'D102',
	'rear-left': 'D103',
	'rear-right': 'D104'
};

/** Below this loop current no sensor of the two-wire kind is alive at the end of the lead. */
const OPEN_BELOW_A = 0.003;
/** Speed estimate follows the pulses with this time constant. */
const ESTIMATE_S = 0.03;
const ROLLING_KMH = 5;
const PLAUSIBLE_FROM_KMH = 20;
const DROPOUT_SHARE = 0.5;
const AGREE_SHARE = 0.85;

/**
 * Brake and stability control: reads four wheel circuits, estimates speeds, judges them against each other, and tells the
 * vehicle speed to everybody on the bus.
 */
export class BrakeControl extends Module {
	private readonly estimateKmh = new Map<Position, number>(POSITIONS.map((p) => [p, 0]));
	private readonly currentA = new Map<Position, number>();
	/** What the wheels together say: the mean of the middle two, so that one liar cannot move it. */
	private referenceKmh = 0;
	protected override readonly snapshotIds = ['F40D', 'F442', 'F4A6', ...Object.values(WHEEL_SPEED_ID)];

	constructor(address: number) {
		super(address);
		for (const position of POSITIONS) this.watch(this.circuitOpen(position), this.signalErratic(position));
	}

	identify(id: string, world: World): string | null {
		const corner = POSITIONS.find((position) => WHEEL_SPEED_ID[position] === id);
		if (corner) return rawValue(id, this.isOpen(corner) ? null : (this.estimateKmh.get(corner) ?? 0));
		return commonValue(id, world, 'BC-2.114');
	}

	protected override run(world: World, dtS: number): void {
		for (const position of POSITIONS) {
			const circuit = world.wheels.get(position);
			if (circuit) this.readCorner(position, circuit, world, dtS);
		}
		const sorted = [...this.estimateKmh.values()].sort((a, b) => a - b);
		this.referenceKmh = ((sorted[1] ?? 0) + (sorted[2] ?? 0)) / 2;
		world.brakeMessage = {
			vehicleKmh: this.referenceKmh,
			valid: !this.monitors.some((monitor) => monitor.failing),
			sentAtS: world.timeS
		};
	}

	private readCorner(position: Position, circuit: WheelCircuit, world: World, dtS: number): void {
		const mps = world.motion.wheelMps(position);
		const current = loopCurrentA(circuit, world.supplyVolts, false);
		this.currentA.set(position, current);
		const alive = current >= OPEN_BELOW_A && ringSeen(circuit, mps, world.timeS);
		const hertz = alive ? toothFrequencyHz(circuit, mps) : 0;
		const measuredKmh = ((hertz * circuit.circumferenceM) / circuit.ringTeeth) * 3.6;
		const before = this.estimateKmh.get(position) ?? 0;
		this.estimateKmh.set(position, before + (measuredKmh - before) * Math.min(1, dtS / ESTIMATE_S));
	}

	private isOpen(position: Position): boolean {
		return (this.currentA.get(position) ?? 0) < OPEN_BELOW_A;
	}

	/** No current: seen standing still, within a fifth of a second. Taken as good only once that wheel has turned. */
	private circuitOpen(position: Position): Watch {
		return {
			rule: { dtc: `${CORNER_CODE[position]}13`, failS: 0.2, passS: 1, lamps: ['anti-lock', 'stability'] },
			sample: (): Sample => {
				if (this.isOpen(position)) return 'fail';
				return (this.estimateKmh.get(position) ?? 0) >= ROLLING_KMH ? 'pass' : 'none';
			}
		};
	}

	/** One wheel collapses while the others roll on. Good after ten seconds of agreement at speed. */
	private signalErratic(position: Position): Watch {
		return {
			rule: { dtc: `${CORNER_CODE[position]}2F`, failS: 0.06, passS: 10, lamps: ['anti-lock', 'stability'] },
			sample: (): Sample => {
				const reference = this.referenceKmh;
				if (this.isOpen(position) || reference < PLAUSIBLE_FROM_KMH) return 'none';
				const share = (this.estimateKmh.get(position) ?? 0) / reference;
				if (share < DROPOUT_SHARE) return 'fail';
				return share >= AGREE_SHARE ? 'pass' : 'none';
			}
		};
	}
}
