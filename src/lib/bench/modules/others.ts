import type { ModuleType } from '../../../../library';
import { reading, type World } from '../world';
import { rawValue } from './identity';
import { LISTENS } from './listening';
import { BOOT_S, Module, type Watch } from './module';
import { BENCH_LAMPS, type Lamp, type Sample } from './monitor';

const STANDS_MPS = 0.3;
const CONDITIONS_NOT_RIGHT = 0x22;
const VOLTAGE_TOO_LOW = 0x93;
/** Battery support is asked for: below this a calibration is refused. */
const CALIBRATION_FROM_V = 12;
const MOST_ZERO_DEG = 60;

/** Why a calibration at standstill cannot run now. */
export function standingOnly(world: World, volts: number): number | null {
	if (world.motion.speedMps > STANDS_MPS) return CONDITIONS_NOT_RIGHT;
	return volts < CALIBRATION_FROM_V ? VOLTAGE_TOO_LOW : null;
}

const calibrationMissing = (module: Module, id: string, dtc: string, lamps: Lamp[]): Watch => ({
	rule: { dtc, failS: 0.5, passS: 0.5, lamps },
	sample: (): Sample => (module.keeping.has(id) ? 'pass' : 'fail')
});

/** A zero kept by a module; nothing where it was never learned. */
const zero = (module: Module, id: string): number => module.keeping.number(id) ?? 0;

/** Steering angle module: tells the wheel's angle, from a zero it was taught. */
export class SteeringAngle extends Module {
	override readonly role = 'steering-angle' as const;

	constructor(type: ModuleType) {
		super(type, 0.02, 'SA-1.07');
		this.keep('D160', 0, false);
		this.snapshotIds.push('D110');
		this.watch(calibrationMissing(this, 'D160', '405154', ['stability']));
		this.routines.set('0201', {
			refuses: (world) => standingOnly(world, this.volts(world)),
			takesS: 1,
			done: (world) => {
				const raw = reading(world.senses['steering-angle'], world.motion.steeringDeg);
				return Math.abs(raw) < MOST_ZERO_DEG && this.keeping.write('D160', rawValue('D160', raw));
			}
		});
	}

	private angle(world: World): number {
		return reading(world.senses['steering-angle'], world.motion.steeringDeg) - zero(this, 'D160');
	}

	protected override run(world: World): void {
		this.say(world, { angleDeg: this.angle(world) }, this.keeping.has('D160') && !this.failing('060704'));
	}

	protected tell(id: string, world: World): string | null {
		return id === 'D110' ? rawValue(id, this.angle(world)) : null;
	}
}

const MOST_BIAS_DEGPS = 3;

/** Yaw rate and lateral acceleration in one housing, each with a zero of its own. */
export class YawCluster extends Module {
	override readonly role = 'yaw' as const;

	constructor(type: ModuleType) {
		super(type, 0.02, 'YL-3.01');
		this.keep('D161', 0, false);
		this.keep('D162', 0, false);
		this.watch(
			calibrationMissing(this, 'D161', '419654', ['stability']),
			calibrationMissing(this, 'D162', '418654', ['stability']),
			{
				/** Turns while everything stands: the zero has gone. */
				rule: { dtc: '419628', failS: 5, passS: 2, lamps: ['stability'] },
				sample: (world): Sample => {
					const brake = world.messages.read('yaw', 'brake', world.timeS);
					if (!brake?.valid || brake.said.vehicleKmh > 0) return 'none';
					return Math.abs(this.yaw(world)) > MOST_BIAS_DEGPS ? 'fail' : 'pass';
				}
			}
		);
		this.routines.set('0202', {
			refuses: (world) => standingOnly(world, this.volts(world)),
			takesS: 3,
			done: (world) =>
				this.keeping.write('D161', rawValue('D161', reading(world.senses['yaw-rate'], 0))) &&
				this.keeping.write('D162', rawValue('D162', reading(world.senses.lateral, 0)))
		});
	}

	private yaw(world: World): number {
		return reading(world.senses['yaw-rate'], world.motion.yawRadps * (180 / Math.PI)) - zero(this, 'D161');
	}

	private lateral(world: World): number {
		return reading(world.senses.lateral, world.motion.lateralG) - zero(this, 'D162');
	}

	protected override run(world: World): void {
		const valid = this.keeping.has('D161') && this.keeping.has('D162') && !this.failing('060704');
		this.say(world, { yawDegps: this.yaw(world), lateralG: this.lateral(world) }, valid);
	}

	protected tell(id: string, world: World): string | null {
		if (id === 'D111') return rawValue(id, this.yaw(world));
		return id === 'D112' ? rawValue(id, this.lateral(world)) : null;
	}
}

/** Electric power steering: helps by torque and speed, and by a default curve where it does not hear the speed. */
export class PowerSteering extends Module {
	override readonly role = 'power-steering' as const;

	constructor(type: ModuleType) {
		super(type, 0.02, 'PS-4.40');
		this.keep('D165', 1, false);
		this.watch({
			/** End stops not learned, as after the battery was off. */
			rule: { dtc: '405254', failS: 0.5, passS: 0.5, lamps: ['steering'] },
			sample: (): Sample => (this.keeping.has('D165') ? 'pass' : 'fail')
		});
		this.routines.set('0210', {
			refuses: (world) => standingOnly(world, this.volts(world)),
			takesS: 8,
			done: () => this.keeping.write('D165', rawValue('D165', 1))
		});
	}

	private torque(world: World): number {
		return world.motion.steeringDeg * 0.02;
	}

	protected override run(world: World): void {
		this.say(world, { torqueNm: this.torque(world) }, !this.failing('060704'));
	}

	protected tell(id: string, world: World): string | null {
		switch (id) {
			case 'D170':
				return rawValue(id, this.torque(world));
			case 'D171': {
				const brake = world.messages.read('power-steering', 'brake', world.timeS);
				// Without a speed it helps as at fifty.
				const kmh = brake?.valid ? brake.said.vehicleKmh : 50;
				return rawValue(id, Math.abs(this.torque(world)) * Math.max(1, 8 - kmh / 15));
			}
			default:
				return null;
		}
	}
}

/** Parking brake with motors. It opens by itself only where it knows the speed. */
export class ParkBrake extends Module {
	override readonly role = 'park-brake' as const;

	constructor(type: ModuleType) {
		super(type, 0.1, 'PB-2.05');
		this.routines.set('0220', {
			refuses: (world) => standingOnly(world, this.volts(world)),
			takesS: 4,
			done: () => true
		});
	}

	protected override run(world: World): void {
		this.say(world, { applied: !world.keyOn }, !this.failing('060704'));
	}

	protected tell(id: string): string | null {
		return id === 'D180' ? rawValue(id, 0) : null;
	}
}

/** Restraint control: only listens here. Its circuits are nothing for a probe. */
export class Restraint extends Module {
	override readonly role = 'restraint' as const;

	constructor(type: ModuleType) {
		super(type, 0.1, 'RC-7.00');
	}

	protected override run(world: World): void {
		this.say(world, { armed: true }, !this.failing('060704'));
	}

	protected tell(): null {
		return null;
	}
}

const IDLE_RPM = 780;

/** Engine or drive motor control. */
export class Engine extends Module {
	override readonly role = 'engine' as const;

	constructor(type: ModuleType) {
		super(type, 0.02, 'EC-6.12');
	}

	private rpm({ engineRunning, motion }: World): number {
		return engineRunning ? Math.max(IDLE_RPM, motion.speedMps * 95) : 0;
	}

	protected override run(world: World): void {
		this.say(world, { running: world.engineRunning, rpm: this.rpm(world) }, !this.failing('060704'));
	}

	protected tell(id: string, world: World): string | null {
		return id === 'F40C' ? rawValue(id, this.rpm(world)) : null;
	}
}

const SELF_CHECK_S = 3;
/** Lamps that light by themselves when the module behind them is not heard. */
const LIT_WITHOUT: [sender: 'brake' | 'restraint' | 'power-steering' | 'engine', lamps: Lamp[]][] = [
	['brake', ['brake', 'anti-lock', 'stability']],
	['restraint', ['restraint']],
	['power-steering', ['steering']],
	['engine', ['engine']]
];

/** Instrument cluster: shows the speed and lights the lamps, all of them for a moment at key-on. */
export class Cluster extends Module {
	override readonly role = 'cluster' as const;

	constructor(type: ModuleType) {
		super(type, 0.1, 'IC-5.30');
		this.outputs.set('D1E1', 0);
	}

	/** Whether lamps are still in their key-on self-check. */
	get selfCheck(): boolean {
		return this.awakeS >= BOOT_S && this.awakeS < BOOT_S + SELF_CHECK_S;
	}

	/** Lamps that are lit, by its own self-check, by what others ask, and for want of hearing them. */
	lit(world: World): Set<Lamp> {
		if (this.selfCheck || this.outputs.get('D1E1') !== 0) return new Set(BENCH_LAMPS);
		const lit = new Set<Lamp>(this.lampsAsked);
		for (const sender of world.type.modules.map((module) => module.role)) {
			for (const lamp of world.messages.read('cluster', sender, world.timeS)?.lamps ?? []) lit.add(lamp);
		}
		for (const [sender, lamps] of LIT_WITHOUT) {
			if (LISTENS.cluster.includes(sender) && !world.messages.read('cluster', sender, world.timeS)) {
				for (const lamp of lamps) lit.add(lamp);
			}
		}
		return lit;
	}

	/** Speed on the dial; zero where it has none to show. */
	dialKmh(world: World): number {
		return world.messages.read('cluster', 'brake', world.timeS)?.said.vehicleKmh ?? 0;
	}

	protected override run(world: World): void {
		this.say(world, { odometerKm: world.motion.odometerM / 1000 }, !this.failing('060704'));
	}

	protected tell(): null {
		return null;
	}
}

/** Gateway: the door to the network. Its own power stays on, and it counts the key cycles and broken frames. */
export class Gateway extends Module {
	override readonly role = 'gateway' as const;

	constructor(type: ModuleType) {
		super(type, 0.1, 'GW-3.02');
	}

	protected override run(world: World): void {
		this.say(world, { keyCycles: world.keyCycles });
	}

	protected tell(id: string, world: World): string | null {
		if (id === 'D0A0') return rawValue(id, world.keyCycles);
		return id === 'D140' ? rawValue(id, Math.min(0xffff, world.messages.errors)) : null;
	}
}
