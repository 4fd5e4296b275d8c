import type { ModuleType } from '../../../../library';
import { PRESSURE_SOURCE_OHMS } from '../physics/internals';
import { nodeVolts, type Solution } from '../physics/network';
import { pinFor } from '../physics/wiring';
import { reading, type World } from '../world';
import type { Watch } from './module';
import type { NonVolatileMemory } from './nonVolatileMemory';
import type { Lamp, Sample } from './monitor';

/** What reaches the pins of brake control besides its wheels, in one electrical state. */
interface Lines {
	pressureFed: number;
	pressureRest: number;
	pressureGain: number;
	pedalVolts: number;
	pumpVolts: number;
}

/** The pressure sensor's line: 0.5 to 4.5 V for 0 to 200 bar. */
const PRESSURE_BAR = 200;
const LINE_LOW_V = 0.25;
const LINE_HIGH_V = 4.75;
const SWITCH_ON_V = 6;
const PUMP_FEED_V = 6;
const REST_BAR = 6;
/** Faster than this nobody's foot rests on the pedal. */
const REST_FROM_KMH = 60;
/** Slowing less than this is done by the air, not by a brake. */
const NOT_BRAKING_MPS2 = 0.3;

/** How the vehicle moves, as the module itself has it. */
export interface OwnMotion {
	referenceKmh: number;
	accelerationMps2: number;
}

/** Pedal switch, pressure sensor and pump feed of brake control, each by the volts at its pins. */
export class BrakeLines {
	private from: Solution | null = null;
	private now: Lines = { pressureFed: 0, pressureRest: 0, pressureGain: 0, pedalVolts: 0, pumpVolts: 0 };

	constructor(
		private readonly type: ModuleType,
		private readonly nonVolatile: NonVolatileMemory
	) {}

	/** What the wiring does to the lines, worked out once for each electrical state. */
	private lines({ solution }: World): Lines {
		if (this.from === solution) return this.now;
		const ground = `${this.type.role}~ground`;
		const between = (a: string | null, b: string | null) =>
			a && b ? nodeVolts(solution, a) - nodeVolts(solution, b) : 0;
		const signal = pinFor(this.type, 'pressure-signal');
		this.from = solution;
		this.now = {
			pressureFed: between('pressure.1', 'pressure.3'),
			pressureRest: between(signal, ground),
			pressureGain: signal
				? solution.signals.loopTransferOhms('pressure.3', 'pressure.2', signal, ground) / PRESSURE_SOURCE_OHMS
				: 0,
			pedalVolts: between(pinFor(this.type, 'brake-switch'), ground),
			pumpVolts: between(pinFor(this.type, 'pump-supply'), pinFor(this.type, 'pump-ground'))
		};
		return this.now;
	}

	pedal(world: World): boolean {
		return this.lines(world).pedalVolts > SWITCH_ON_V;
	}

	pumpFed(world: World): boolean {
		return this.lines(world).pumpVolts > PUMP_FEED_V;
	}

	/** Volts on the line of the pressure sensor, a source behind its own resistance. */
	private pressureVolts(world: World): number {
		const { pressureFed, pressureRest, pressureGain } = this.lines(world);
		const bar = reading(world.senses.pressure, world.motion.brakeBar);
		const share = Math.max(0.1, Math.min(0.9, 0.1 + (0.8 * bar) / PRESSURE_BAR));
		return pressureRest + pressureFed * pressureGain * share;
	}

	/** Whether the line of the pressure sensor is within what the sensor can give. */
	pressureReads(world: World): boolean {
		const volts = this.pressureVolts(world);
		return volts > LINE_LOW_V && volts < LINE_HIGH_V;
	}

	/** Pressure by the sensor's line, no zero taken off. */
	rawBar(world: World): number {
		return ((this.pressureVolts(world) / 5 - 0.1) / 0.8) * PRESSURE_BAR;
	}

	/** Pressure as the module has it. */
	bar(world: World): number {
		return this.rawBar(world) - (this.nonVolatile.number('D163') ?? 0);
	}

	pressureWatches(own: () => OwnMotion, lamps: Lamp[]): Watch[] {
		const line = (dtc: string, bad: (volts: number) => boolean): Watch => ({
			rule: { dtc, failS: 0.5, passS: 1, lamps },
			sample: (world): Sample => {
				if (bad(this.pressureVolts(world))) return 'fail';
				return this.pressureReads(world) ? 'pass' : 'none';
			}
		});
		return [
			line('413114', (volts) => volts <= LINE_LOW_V),
			line('413112', (volts) => volts >= LINE_HIGH_V),
			{
				rule: { dtc: '413154', failS: 0.5, passS: 0.5, lamps },
				sample: (): Sample => (this.nonVolatile.has('D163') ? 'pass' : 'fail')
			},
			{
				/** Pressure at rest although nobody brakes: the zero is wrong. */
				rule: { dtc: '413128', failS: 10, passS: 5, lamps },
				sample: (world): Sample => {
					const { referenceKmh, accelerationMps2 } = own();
					const rests = referenceKmh >= REST_FROM_KMH && Math.abs(accelerationMps2) <= NOT_BRAKING_MPS2;
					if (!rests || !this.pressureReads(world)) return 'none';
					return Math.abs(this.bar(world)) > REST_BAR ? 'fail' : 'pass';
				}
			}
		];
	}
}
