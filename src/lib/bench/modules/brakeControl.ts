import type { ModuleType, Position, VehicleType } from '../../../../library';
import { PRESSURE_SOURCE_OHMS } from '../physics/internals';
import { nodeVolts, type Solution } from '../physics/network';
import { pinFor } from '../physics/wiring';
import { reading, type Wheel, type World } from '../world';
import { rawValue } from './identity';
import { Module, type Watch } from './module';
import type { Lamp, Sample } from './monitor';
import { oddOneOut, steeringYaw } from './plausibility';
import { together, WheelReader, type Believed, type CornerCodes, type Together } from './wheelReader';

/** C0035 … C0050 and C0030 … C0039 of a car; C1C11 … and C1C31 … of the trailer maker. */
export const CORNER_CODES: Record<Position, CornerCodes> = {
	'front-left': { circuit: '4035', ring: '4030' },
	'front-right': { circuit: '4040', ring: '4033' },
	'rear-left': { circuit: '4045', ring: '4036' },
	'rear-right': { circuit: '4050', ring: '4039' },
	'axle1-left': { circuit: '5C11', ring: '5C31' },
	'axle1-right': { circuit: '5C12', ring: '5C32' },
	'axle2-left': { circuit: '5C13', ring: '5C33' },
	'axle2-right': { circuit: '5C14', ring: '5C34' },
	'axle3-left': { circuit: '5C15', ring: '5C35' },
	'axle3-right': { circuit: '5C16', ring: '5C36' }
};
export const WHEEL_SPEED_ID: Record<Position, string> = {
	'front-left': 'D101',
	'front-right': 'D102',
	'rear-left': 'D103',
	'rear-right': 'D104',
	'axle1-left': 'D121',
	'axle1-right': 'D122',
	'axle2-left': 'D123',
	'axle2-right': 'D124',
	'axle3-left': 'D125',
	'axle3-right': 'D126'
};

const CYCLE_S = 0.01;
const LAMPS: Lamp[] = ['anti-lock', 'stability'];
/** What a module works with that was never told. */
const UNTOLD: Believed = { teeth: 48, circumferenceM: 2 };

const SWITCH_ON_V = 6;
const SUPPLY_LOW_V = 9.5;
const SUPPLY_GOOD_V = 10.5;
const SUPPLY_HIGH_V = 17;
const PUMP_FEED_V = 6;
/** The pressure sensor's line: 0.5 to 4.5 V for 0 to 200 bar. */
const PRESSURE_BAR = 200;
const LINE_LOW_V = 0.25;
const LINE_HIGH_V = 4.75;
const PEDAL_BAR = 8;
const PRESSURE_REST_BAR = 6;
/** Faster than this without a pedal for long. */
const NO_PEDAL_KMH = 60;

const TYRE_SHARE = 0.04;
const TYRE_DIFFERENCE_KMH = 6;
const CALM_MPS2 = 0.8;
/** Slowing less than this is done by the air, not by a brake. */
const NOT_BRAKING_MPS2 = 0.3;
const JUDGE_FROM_KMH = 30;
const LATERAL_G = 0.12;
const GRAVITY = 9.81;
/** A tyre differs evenly: its share of the reference stays within this for so long. */
const STEADY_SHARE = 0.015;
const STEADY_S = 2;
const SHARE_S = 1;

/** A wheel that falls behind like this under braking makes the module let go of its brake. */
const LOCKING_SHARE = 0.8;
const LOCKING_FROM_KMH = 3;
const SPINNING_SHARE = 1.09;

/** What reaches its pins, in one electrical state. */
interface Lines {
	pressureFed: number;
	pressureRest: number;
	pressureGain: number;
	pedalVolts: number;
	pumpVolts: number;
}

/** Part of brake control that a trailer has too: its corners, speed, configuration. */
export abstract class WheelModule extends Module {
	readonly readers: WheelReader[];
	protected now: Together = { referenceKmh: 0, othersKmh: 0 };
	protected accelerationMps2 = 0;
	private readonly speedCodes = new Set(['455004', '455055']);
	interventions = 0;
	/** Whether it lets go of a wheel's brake at this moment. */
	letsGo = false;
	private linesFrom: Solution | null = null;
	private linesNow: Lines = { pressureFed: 0, pressureRest: 0, pressureGain: 0, pedalVolts: 0, pumpVolts: 0 };
	private believed = UNTOLD;
	private believedVersion = -1;

	constructor(
		type: ModuleType,
		vehicle: VehicleType,
		wheels: readonly Wheel[],
		software: string,
		lamps: Lamp[]
	) {
		super(type, CYCLE_S, software);
		this.readers = wheels.map((wheel) => new WheelReader(wheel, CORNER_CODES[wheel.position]));
		this.snapshotIds.push(...wheels.map(({ position }) => WHEEL_SPEED_ID[position]));
		const first = vehicle.wheels[0];
		this.keep('D150', (first?.circumferenceM ?? 2) * 1000, true);
		this.keep('D151', first?.ringTeeth ?? 48, true);
		this.keep('D152', vehicle.id.slice(-8), true);
		this.keep('D163', 0, false);
		for (const reader of this.readers) {
			const watches = reader.watches(() => this.now, lamps);
			for (const { rule } of watches) this.speedCodes.add(rule.dtc);
			this.watch(...watches);
		}
		this.watch(
			...this.internalWatches(lamps),
			...this.codingWatches(vehicle, lamps),
			...this.pressureWatches(lamps),
			...this.supplyWatches(lamps)
		);
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
		const variant = rawValue('D152', vehicle.id.slice(-8));
		return [
			{
				rule: { dtc: '455055', failS: 0.5, passS: 0.5, lamps },
				sample: (): Sample =>
					this.keeping.has('D150') && this.keeping.has('D151') && this.keeping.has('D152') ? 'pass' : 'fail'
			},
			{
				rule: { dtc: '455056', failS: 0.5, passS: 0.5, lamps },
				sample: (): Sample => {
					if (!this.keeping.has('D152')) return 'none';
					return this.keeping.read('D152') === variant ? 'pass' : 'fail';
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

	private pressureWatches(lamps: Lamp[]): Watch[] {
		const line = (dtc: string, bad: (volts: number) => boolean): Watch => ({
			rule: { dtc, failS: 0.5, passS: 1, lamps },
			sample: (world): Sample => {
				const volts = this.pressureVolts(world);
				if (bad(volts)) return 'fail';
				return volts > LINE_LOW_V && volts < LINE_HIGH_V ? 'pass' : 'none';
			}
		});
		return [
			line('413114', (volts) => volts <= LINE_LOW_V),
			line('413112', (volts) => volts >= LINE_HIGH_V),
			{
				rule: { dtc: '413154', failS: 0.5, passS: 0.5, lamps },
				sample: (): Sample => (this.keeping.has('D163') ? 'pass' : 'fail')
			},
			{
				/** Pressure at rest although nobody has braked for long: the zero is wrong. */
				rule: { dtc: '413128', failS: 10, passS: 5, lamps },
				sample: (world): Sample => {
					if (!this.pressureReads(world)) return 'none';
					if (this.now.referenceKmh < NO_PEDAL_KMH || Math.abs(this.accelerationMps2) > NOT_BRAKING_MPS2)
						return 'none';
					return Math.abs(this.brakeBar(world)) > PRESSURE_REST_BAR ? 'fail' : 'pass';
				}
			}
		];
	}

	/** What the wiring does to its lines, worked out once for each electrical state. */
	protected lines(world: World): Lines {
		const { solution } = world;
		if (this.linesFrom === solution) return this.linesNow;
		const ground = `${this.role}~ground`;
		const between = (a: string | null, b: string | null) =>
			a && b ? nodeVolts(solution, a) - nodeVolts(solution, b) : 0;
		const signal = pinFor(this.type, 'pressure-signal');
		this.linesFrom = solution;
		this.linesNow = {
			pressureFed: between('pressure.1', 'pressure.3'),
			pressureRest: between(signal, ground),
			pressureGain: signal
				? solution.signals.loopTransferOhms('pressure.3', 'pressure.2', signal, ground) / PRESSURE_SOURCE_OHMS
				: 0,
			pedalVolts: between(pinFor(this.type, 'brake-switch'), ground),
			pumpVolts: between(pinFor(this.type, 'pump-supply'), pinFor(this.type, 'pump-ground'))
		};
		return this.linesNow;
	}

	/** Volts on the line of the pressure sensor, a source behind its own resistance. */
	protected pressureVolts(world: World): number {
		const { pressureFed, pressureRest, pressureGain } = this.lines(world);
		const bar = reading(world.senses.pressure, world.motion.brakeBar);
		return (
			pressureRest +
			pressureFed * pressureGain * Math.max(0.1, Math.min(0.9, 0.1 + (0.8 * bar) / PRESSURE_BAR))
		);
	}

	/** Whether the line of the pressure sensor is within what the sensor can give. */
	protected pressureReads(world: World): boolean {
		const volts = this.pressureVolts(world);
		return volts > LINE_LOW_V && volts < LINE_HIGH_V;
	}

	/** Pressure by the sensor's line, no zero taken off. */
	protected rawBar(world: World): number {
		return ((this.pressureVolts(world) / 5 - 0.1) / 0.8) * PRESSURE_BAR;
	}

	/** Pressure as the module has it. */
	brakeBar(world: World): number {
		return this.rawBar(world) - (this.keeping.number('D163') ?? 0);
	}

	get referenceKmh(): number {
		return this.now.referenceKmh;
	}

	protected override run(world: World, dtS: number): void {
		if (this.believedVersion !== this.keeping.version) {
			this.believedVersion = this.keeping.version;
			const told = this.keeping.has('D150') && this.keeping.has('D151');
			const circumferenceM = (this.keeping.number('D150') ?? 2000) / 1000;
			const teeth = this.keeping.number('D151') ?? 48;
			this.believed = told && circumferenceM > 0 && teeth > 0 ? { teeth, circumferenceM } : UNTOLD;
		}
		const before = this.now.referenceKmh;
		for (const reader of this.readers) reader.read(world, this.believed, dtS);
		this.now = together(this.readers);
		const slope = (this.now.referenceKmh - before) / 3.6 / dtS;
		this.accelerationMps2 += (slope - this.accelerationMps2) * Math.min(1, dtS / 0.3);
		this.guardLocking(world);
	}

	/** Anti-lock: lets go of the brake of a wheel that falls behind while the pedal is pressed. */
	private guardLocking(world: World): void {
		const fastest = Math.max(...this.readers.map((reader) => reader.estimateKmh));
		// With a wheel it cannot trust it leaves the brakes alone.
		const able = this.dataValid;
		const locking =
			able &&
			world.motion.pedal &&
			fastest > LOCKING_FROM_KMH &&
			this.readers.some((reader) => reader.estimateKmh < LOCKING_SHARE * this.now.referenceKmh);
		if (locking && !this.letsGo) this.interventions += 1;
		this.letsGo = locking;
	}

	/** Whether the speed it tells can be trusted: no wheel circuit, no coding and no inside of its own at fault. */
	dataValid = true;

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
				return rawValue(id, this.brakeBar(world));
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

/**
 * Brake and stability control: reads its wheel circuits, estimates speeds, judges them against each other, against the
 * steering and the yaw sensor, and tells the vehicle speed to everybody on the bus.
 */
export class BrakeControl extends WheelModule {
	private judged: ReturnType<BrakeControl['voteNow']> = null;
	/** Each corner's share of the reference, slowly averaged, and how long all have kept to theirs. */
	private readonly shares: number[];
	private steadyS = 0;
	/** Drive is cut because the driven wheels seem to spin. */
	cutsPower = false;

	constructor(
		type: ModuleType,
		private readonly vehicle: VehicleType,
		wheels: readonly Wheel[]
	) {
		super(type, vehicle, wheels, 'BC-2.114', LAMPS);
		this.shares = wheels.map(() => 1);
		this.snapshotIds.push('D110', 'D111', 'D114');
		this.watch(...this.pedalWatches(), ...this.motorWatches(), ...this.plausibilityWatches());
		this.outputs.set('D1E0', 0);
		this.routines.set('0203', {
			refuses: (world) => (world.motion.speedMps > 0.3 || this.pedal(world) ? 0x22 : null),
			takesS: 1,
			done: (world) => {
				const raw = this.rawBar(world);
				return Math.abs(raw) < 25 && this.keeping.write('D163', rawValue('D163', raw));
			}
		});
		this.routines.set('0204', {
			refuses: (world) => (world.motion.speedMps > 0.3 ? 0x22 : null),
			takesS: 5,
			done: (world) => this.pumpFeed(world) > PUMP_FEED_V
		});
	}

	private pedal(world: World): boolean {
		return this.lines(world).pedalVolts > SWITCH_ON_V;
	}

	private pumpFeed(world: World): number {
		return this.lines(world).pumpVolts;
	}

	/** The pump is heard: a tester drives it, or a bleeding routine does, and it has its feed. */
	pumpRuns(world: World): boolean {
		const wanted =
			this.outputs.get('D1E0') !== 0 || (this.routine?.id === '0204' && this.routine.result === 'running');
		return wanted && this.pumpFeed(world) > PUMP_FEED_V;
	}

	private pedalWatches(): Watch[] {
		return [
			{
				/** Pressure without a pedal, or a pedal without pressure at speed. */
				rule: { dtc: '416164', failS: 2, passS: 0.2, lamps: ['stability'] },
				sample: (world): Sample => {
					if (!this.pressureReads(world)) return 'none';
					const [bar, pedal] = [this.brakeBar(world), this.pedal(world)];
					if (bar > PEDAL_BAR) return pedal ? 'pass' : this.accelerationMps2 < -CALM_MPS2 ? 'fail' : 'none';
					if (this.now.referenceKmh < NO_PEDAL_KMH) return 'none';
					return pedal && bar < 2 ? 'fail' : 'none';
				}
			}
		];
	}

	private motorWatches(): Watch[] {
		return [
			{
				rule: { dtc: '411013', failS: 1, passS: 1, lamps: LAMPS },
				sample: (world): Sample => (this.pumpFeed(world) < PUMP_FEED_V ? 'fail' : 'pass')
			}
		];
	}

	/** Calm, straight enough, all corners read: the moments in which sources are held against each other. */
	private canJudge(): boolean {
		return (
			this.now.referenceKmh >= JUDGE_FROM_KMH &&
			Math.abs(this.accelerationMps2) < CALM_MPS2 &&
			this.readers.every(
				(reader) => reader.fault === null && reader.estimateKmh > 0.5 * this.now.referenceKmh
			)
		);
	}

	private voteNow(world: World) {
		const steering = world.messages.read('brake', 'steering-angle', world.timeS);
		const yaw = world.messages.read('brake', 'yaw', world.timeS);
		if (!steering?.valid || !yaw?.valid || !this.canJudge()) return null;
		const speedMps = this.now.referenceKmh / 3.6;
		const unsteered = this.readers.filter(({ wheel }) => !wheel.type.steered);
		const side = (name: string) => unsteered.find(({ wheel }) => wheel.type.side === name)?.estimateKmh ?? 0;
		const vote = {
			wheels: (side('right') - side('left')) / 3.6 / this.vehicle.chassis.trackM,
			steering: steeringYaw(this.vehicle, speedMps, steering.said.angleDeg),
			sensor: yaw.said.yawDegps * (Math.PI / 180)
		};
		return { odd: oddOneOut(vote, speedMps), speedMps, lateralG: yaw.said.lateralG, vote };
	}

	private plausibilityWatches(): Watch[] {
		const alone = (dtc: string, voter: 'steering' | 'sensor'): Watch => ({
			rule: { dtc, failS: 5, passS: 5, lamps: ['stability'] },
			sample: (): Sample => {
				const judged = this.judged?.odd ?? null;
				if (judged === null) return 'none';
				return judged === voter ? 'fail' : judged === 'none' ? 'pass' : 'none';
			}
		});
		return [
			alone('405164', 'steering'),
			alone('419664', 'sensor'),
			{
				rule: { dtc: '418664', failS: 5, passS: 5, lamps: ['stability'] },
				sample: (): Sample => {
					const { judged } = this;
					if (judged?.odd !== 'none') return 'none';
					const odd = Math.abs(judged.lateralG - (judged.vote.sensor * judged.speedMps) / GRAVITY);
					return odd > LATERAL_G ? 'fail' : 'pass';
				}
			},
			{
				/** One wheel or axle turns at another rate than the rest, evenly and for long: not the same circumference. */
				rule: { dtc: '407864', failS: 8, passS: 10, lamps: LAMPS },
				sample: (world): Sample => {
					const yaw = world.messages.read('brake', 'yaw', world.timeS);
					if (this.steadyS < STEADY_S || !this.canJudge() || Math.abs(yaw?.said.yawDegps ?? 0) > 2)
						return 'none';
					const apart = this.widestDifferenceKmh();
					if (apart / this.now.referenceKmh > TYRE_SHARE && apart > TYRE_DIFFERENCE_KMH) return 'fail';
					return apart / this.now.referenceKmh < TYRE_SHARE ? 'pass' : 'none';
				}
			}
		];
	}

	private followShares(dtS: number): void {
		this.steadyS += dtS;
		for (const [i, reader] of this.readers.entries()) {
			const share = reader.estimateKmh / Math.max(1, this.now.referenceKmh);
			const slow = this.shares[i] ?? 1;
			if (Math.abs(share - slow) > STEADY_SHARE) this.steadyS = 0;
			this.shares[i] = slow + (share - slow) * Math.min(1, dtS / SHARE_S);
		}
	}

	private widestDifferenceKmh(): number {
		const speeds = this.readers.map((reader) => reader.estimateKmh);
		return Math.max(...speeds) - Math.min(...speeds);
	}

	protected override run(world: World, dtS: number): void {
		super.run(world, dtS);
		this.followShares(dtS);
		const mean = (driven: boolean) => {
			const some = this.readers.filter(({ wheel }) => wheel.type.driven === driven);
			return some.length > 0 ? some.reduce((sum, reader) => sum + reader.estimateKmh, 0) / some.length : null;
		};
		const [driven, rolling] = [mean(true), mean(false)];
		this.cutsPower =
			driven !== null && rolling !== null && rolling > JUDGE_FROM_KMH && driven > rolling * SPINNING_SHARE;
		this.say(
			world,
			{ vehicleKmh: this.now.referenceKmh, brakeBar: this.brakeBar(world), pedal: this.pedal(world) },
			this.dataValid
		);
	}

	protected override judge(world: World): void {
		super.judge(world);
		this.judged = this.voteNow(world);
	}

	override readonly role = 'brake' as const;

	protected override tell(id: string, world: World): string | null {
		switch (id) {
			case 'F40D':
				return rawValue(id, this.now.referenceKmh);
			case 'D110': {
				const steering = world.messages.read('brake', 'steering-angle', world.timeS);
				return rawValue(id, steering?.valid ? steering.said.angleDeg : null);
			}
			case 'D111':
			case 'D112': {
				const yaw = world.messages.read('brake', 'yaw', world.timeS);
				const value = id === 'D111' ? yaw?.said.yawDegps : yaw?.said.lateralG;
				return rawValue(id, yaw?.valid ? (value ?? null) : null);
			}
			case 'D114':
				return rawValue(id, this.pedal(world) ? 1 : 0);
			default:
				return super.tell(id, world);
		}
	}
}

/** Brake control of a trailer: reads its own wheels and speaks to the towing vehicle through the drawbar gateway. */
export class TrailerBrake extends WheelModule {
	override readonly role = 'trailer-brake' as const;

	constructor(type: ModuleType, vehicle: VehicleType, wheels: readonly Wheel[]) {
		super(type, vehicle, wheels, 'TB-1.22', ['brake']);
	}

	protected override run(world: World, dtS: number): void {
		super.run(world, dtS);
		this.say(world, { vehicleKmh: this.now.referenceKmh }, this.dataValid);
	}

	protected override tell(id: string, world: World): string | null {
		return id === 'F40D' ? rawValue(id, this.now.referenceKmh) : super.tell(id, world);
	}
}
