import type { ModuleType, VehicleType } from '../../../../library';
import { codingOf } from '../../../../library/calibrations';
import { pinFor } from '../physics/wiring';
import type { Wheel, World } from '../world';
import { BrakeLines } from './brakeLines';
import { CORNER_CODES, WHEEL_SPEED_ID } from './corners';
import { rawValue } from './identity';
import { Module, type Watch } from './module';
import type { Lamp, Sample } from './monitor';
import { whileMoving } from './standingOnly';
import { together, WheelReader, type Believed, type Together } from './wheelReader';

const CYCLE_S = 0.01;
/** What a module works with that was never told. */
const UNTOLD: Believed = { teeth: 48, circumferenceM: 2 };
const SUPPLY_LOW_V = 9.5;
const SUPPLY_GOOD_V = 10.5;
const SUPPLY_HIGH_V = 17;
/** A wheel that falls behind like this under braking makes the module let go of its brake. */
const LOCKING_SHARE = 0.8;
const LOCKING_FROM_KMH = 3;
const MOST_ZERO_BAR = 25;

/** Part of brake control that a trailer has too: its corners, speed, configuration. */
export abstract class WheelModule extends Module {
	readonly readers: WheelReader[];
	protected now: Together = { referenceKmh: 0, othersKmh: 0 };
	accelerationMps2 = 0;
	private readonly speedCodes = new Set(['455004', '455055']);
	/** Whether the speed it tells can be trusted: no wheel circuit, no coding and no inside of its own at fault. */
	dataValid = true;
	interventions = 0;
	/** Whether it lets go of a wheel's brake at this moment. */
	letsGo = false;
	protected readonly lines: BrakeLines;
	/** Of each wheel. */
	private believed: Believed[] = [];
	private believedVersion = -1;

	/** Why the zero point of the pressure sensor cannot be learned now. */
	protected zeroRefused(world: World): number | null {
		return whileMoving(world);
	}

	constructor(
		type: ModuleType,
		vehicle: VehicleType,
		wheels: readonly Wheel[],
		software: string,
		lamps: Lamp[]
	) {
		super(type, CYCLE_S, software);
		this.lines = new BrakeLines(type, this.nonVolatile);
		this.readers = wheels.map((wheel) => new WheelReader(wheel, CORNER_CODES[wheel.position]));
		this.snapshotIds.push(...wheels.map(({ position }) => WHEEL_SPEED_ID[position]));
		for (const [id, value] of Object.entries(codingOf(vehicle))) this.keep(id, value, true);
		this.keep('D163', 0, false);
		for (const reader of this.readers) {
			const watches = reader.watches(() => this.now, lamps);
			for (const { rule } of watches) this.speedCodes.add(rule.dtc);
			this.watch(...watches);
		}
		this.watch(
			...this.internalWatches(lamps),
			...this.codingWatches(vehicle, lamps),
			...(pinFor(type, 'pressure-signal') ? this.lines.pressureWatches(() => this, lamps) : []),
			...this.supplyWatches(lamps)
		);
		if (pinFor(type, 'pressure-signal'))
			this.routines.set('0203', {
				refuses: (world) => this.zeroRefused(world),
				takesS: 1,
				done: (world) => {
					const raw = this.lines.rawBar(world);
					return Math.abs(raw) < MOST_ZERO_BAR && this.nonVolatile.write('D163', rawValue('D163', raw));
				}
			});
	}

	private internalWatches(lamps: Lamp[]): Watch[] {
		return [
			{
				rule: { dtc: '455004', failS: 0.5, passS: 1, lamps },
				sample: (world): Sample => (world.internalFaults.has(this.role) ? 'fail' : 'pass')
			}
		];
	}

	private codingWatches(vehicle: VehicleType, lamps: Lamp[]): Watch[] {
		const variant = rawValue('D152', codingOf(vehicle).D152 ?? null);
		return [
			{
				rule: { dtc: '455055', failS: 0.5, passS: 0.5, lamps },
				sample: (): Sample =>
					this.nonVolatile.has('D150') && this.nonVolatile.has('D151') && this.nonVolatile.has('D152')
						? 'pass'
						: 'fail'
			},
			{
				rule: { dtc: '455056', failS: 0.5, passS: 0.5, lamps },
				sample: (): Sample => {
					if (!this.nonVolatile.has('D152')) return 'none';
					return this.nonVolatile.read('D152') === variant ? 'pass' : 'fail';
				}
			}
		];
	}

	private supplyWatches(lamps: Lamp[]): Watch[] {
		return [
			{
				rule: { dtc: '489916', failS: 1, passS: 1, lamps },
				sample: (world): Sample => {
					const volts = this.volts(world);
					if (volts < SUPPLY_LOW_V) return 'fail';
					return volts > SUPPLY_GOOD_V ? 'pass' : 'none';
				}
			},
			{
				rule: { dtc: '490017', failS: 1, passS: 1, lamps },
				sample: (world): Sample => (this.volts(world) > SUPPLY_HIGH_V ? 'fail' : 'pass')
			}
		];
	}

	get referenceKmh(): number {
		return this.now.referenceKmh;
	}

	protected override run(world: World, dtS: number): void {
		if (this.believedVersion !== this.nonVolatile.version) {
			this.believedVersion = this.nonVolatile.version;
			const told = this.nonVolatile.has('D150') && this.nonVolatile.has('D151');
			const circumferenceM = (this.nonVolatile.number('D150') ?? 2000) / 1000;
			const teeth = this.nonVolatile.number('D151') ?? 48;
			const isTold = told && circumferenceM > 0 && teeth > 0;
			this.believed = this.readers.map(({ wheel }) =>
				isTold ? this.coded(wheel, teeth, circumferenceM) : UNTOLD
			);
		}
		const before = this.now.referenceKmh;
		for (const [i, reader] of this.readers.entries()) reader.read(world, this.believed[i] ?? UNTOLD, dtS);
		this.now = together(this.readers);
		const slope = (this.now.referenceKmh - before) / 3.6 / dtS;
		this.accelerationMps2 += (slope - this.accelerationMps2) * Math.min(1, dtS / 0.3);
		this.guardLocking(world);
	}

	/** It is coded with the teeth and the tyre of its first wheel; how the other axles differ from that belongs to its variant. */
	private coded(wheel: Wheel, teeth: number, circumferenceM: number): Believed {
		const first = this.readers[0]?.wheel.type ?? wheel.type;
		return {
			teeth: teeth * (wheel.type.ringTeeth / first.ringTeeth),
			circumferenceM: circumferenceM * (wheel.type.circumferenceM / first.circumferenceM)
		};
	}

	/** Whether it takes the brake to be applied. */
	protected abstract braking(world: World): boolean;

	/** Anti-lock: lets go of the brake of a wheel that falls behind while the pedal is pressed. */
	private guardLocking(world: World): void {
		const fastest = Math.max(...this.readers.map((reader) => reader.estimateKmh));
		const locking =
			// With a wheel it cannot trust it leaves the brakes alone.
			this.dataValid &&
			this.braking(world) &&
			fastest > LOCKING_FROM_KMH &&
			this.readers.some((reader) => reader.estimateKmh < LOCKING_SHARE * this.now.referenceKmh);
		if (locking && !this.letsGo) this.interventions += 1;
		this.letsGo = locking;
	}

	protected override judge(_world: World): void {
		this.dataValid = !this.monitors.some(
			(monitor) => monitor.failing && this.speedCodes.has(monitor.rule.dtc)
		);
	}

	protected tell(id: string, world: World): string | null {
		const reader = this.readers.find(({ wheel }) => WHEEL_SPEED_ID[wheel.position] === id);
		if (reader) return rawValue(id, reader.shownKmh);
		switch (id) {
			case 'D113':
				return rawValue(id, this.lines.bar(world));
			case 'D130':
				return rawValue(id, this.interventions);
			default:
				return null;
		}
	}

	override newCycle(hadPower: boolean): void {
		super.newCycle(hadPower);
		for (const reader of this.readers) reader.newCycle();
	}

	override restart(): void {
		super.restart();
		for (const reader of this.readers) reader.restart();
		this.now = { referenceKmh: 0, othersKmh: 0 };
	}

	override clear(dtc: string | null): boolean {
		for (const reader of this.readers) reader.cleared();
		return super.clear(dtc);
	}
}
