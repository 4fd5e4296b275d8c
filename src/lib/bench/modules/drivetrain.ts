import type { ModuleType } from '../../../../library';
import type { World } from '../world';
import { rawValue } from './identity';
import { Module } from './module';
import type { Sample } from './monitor';
import { standingOnly } from './standingOnly';

/** Electric power steering: helps by torque and speed, and by a default curve where it does not hear the speed. */
export class PowerSteering extends Module {
	override readonly role = 'power-steering' as const;

	constructor(type: ModuleType) {
		super(type, 0.02, 'PS-4.40');
		this.keep('D165', 1, false);
		this.watch({
			/** End stops not learned, as after the battery was off. */
			rule: { dtc: '405254', failS: 0.5, passS: 0.5, lamps: ['steering'] },
			sample: (): Sample => (this.nonVolatile.has('D165') ? 'pass' : 'fail')
		});
		this.routines.set('0210', {
			refuses: (world) => standingOnly(world, this.volts(world)),
			takesS: 8,
			done: () => this.nonVolatile.write('D165', rawValue('D165', 1))
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
