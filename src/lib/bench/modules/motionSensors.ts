import type { ModuleType } from '../../../../library';
import { reading, type World } from '../world';
import { rawValue } from './identity';
import { Module, type Watch } from './module';
import type { Lamp, Sample } from './monitor';
import { standingOnly } from './standingOnly';

const MOST_ZERO_DEG = 60;

const calibrationMissing = (module: Module, id: string, dtc: string, lamps: Lamp[]): Watch => ({
	rule: { dtc, failS: 0.5, passS: 0.5, lamps },
	sample: (): Sample => (module.nonVolatile.has(id) ? 'pass' : 'fail')
});

/** A zero kept by a module; nothing where it was never learned. */
const zero = (module: Module, id: string): number => module.nonVolatile.number(id) ?? 0;

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
				return Math.abs(raw) < MOST_ZERO_DEG && this.nonVolatile.write('D160', rawValue('D160', raw));
			}
		});
	}

	private angle(world: World): number {
		return reading(world.senses['steering-angle'], world.motion.steeringDeg) - zero(this, 'D160');
	}

	protected override run(world: World): void {
		this.say(world, { angleDeg: this.angle(world) }, this.nonVolatile.has('D160') && !this.failing('060704'));
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
				this.nonVolatile.write('D161', rawValue('D161', reading(world.senses['yaw-rate'], 0))) &&
				this.nonVolatile.write('D162', rawValue('D162', reading(world.senses.lateral, 0)))
		});
	}

	private yaw(world: World): number {
		return reading(world.senses['yaw-rate'], world.motion.yawRadps * (180 / Math.PI)) - zero(this, 'D161');
	}

	private lateral(world: World): number {
		return reading(world.senses.lateral, world.motion.lateralG) - zero(this, 'D162');
	}

	protected override run(world: World): void {
		const valid = this.nonVolatile.has('D161') && this.nonVolatile.has('D162') && !this.failing('060704');
		this.say(world, { yawDegps: this.yaw(world), lateralG: this.lateral(world) }, valid);
	}

	protected tell(id: string, world: World): string | null {
		if (id === 'D111') return rawValue(id, this.yaw(world));
		return id === 'D112' ? rawValue(id, this.lateral(world)) : null;
	}
}
