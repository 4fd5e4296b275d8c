import type { ModuleType, VehicleType } from '../../../../library';
import type { Wheel, World } from '../world';
import { rawValue } from './identity';
import { WheelModule } from './wheelModule';

/** A trailer has no pedal: it feels the pressure. */
const APPLIED_BAR = 3;

/** Brake control of a trailer: reads its own wheels and speaks to the towing vehicle through the drawbar gateway. */
export class TrailerBrake extends WheelModule {
	override readonly role = 'trailer-brake' as const;

	constructor(type: ModuleType, vehicle: VehicleType, wheels: readonly Wheel[]) {
		super(type, vehicle, wheels, 'TB-1.22', ['brake']);
	}

	protected override braking(world: World): boolean {
		return this.lines.bar(world) > APPLIED_BAR;
	}

	protected override run(world: World, dtS: number): void {
		super.run(world, dtS);
		this.say(world, { vehicleKmh: this.now.referenceKmh }, this.dataValid);
	}

	protected override tell(id: string, world: World): string | null {
		return id === 'F40D' ? rawValue(id, this.now.referenceKmh) : super.tell(id, world);
	}
}
