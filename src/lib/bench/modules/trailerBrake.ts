import type { ModuleType, VehicleType } from '../../../../library';
import { decodeStatus } from '../../core/codes/status';
import type { Wheel, World } from '../world';
import { rawValue } from './identity';
import { LampTelling } from './lampTelling';
import type { Monitor } from './monitor';
import { WheelModule } from './wheelModule';

/** A bridge of the test plug this long makes the lamp tell; longer than the other, it forgets what it told. */
const TELLS_S = [1.5, 3] as const;
const FORGETS_FROM_S = 4.5;
const SHOWINGS = 40;
/** Its valves try themselves, after power comes. */
const CLICKS_S = [0.5, 2] as const;
/** What the second group of flashes says, by the kind of failure. */
const WHAT: readonly [flashes: number, types: RegExp][] = [
	[1, /^1[1-5]$/],
	[2, /^31$/],
	[3, /^2F$/],
	[5, /^(36|37|38|5[456])$/],
	[6, /^16$/],
	[7, /^04$/]
];
const NO_FAULT = [1, 1];

/** A trailer has no pedal: it feels the pressure. */
const APPLIED_BAR = 3;

/** Brake control of a trailer: reads its own wheels and speaks to the towing vehicle through the drawbar gateway. */
export class TrailerBrake extends WheelModule {
	override readonly role = 'trailer-brake' as const;

	constructor(type: ModuleType, vehicle: VehicleType, wheels: readonly Wheel[]) {
		super(type, vehicle, wheels, 'TB-1.22', ['brake']);
	}

	private bridgedFromS: number | null = null;
	private readonly telling = new LampTelling();
	/** The fault that was told of last. */
	private told: Monitor | null = null;

	/** Two pins of the test plug are bridged, or no longer. */
	bridge(closed: boolean, world: World): void {
		if (closed) {
			this.bridgedFromS ??= world.timeS;
			return;
		}
		if (this.bridgedFromS === null) return;
		const heldS = world.timeS - this.bridgedFromS;
		this.bridgedFromS = null;
		if (heldS >= FORGETS_FROM_S) {
			this.told?.clear();
			this.told = null;
			this.telling.stop();
		} else if (heldS >= TELLS_S[0] && heldS <= TELLS_S[1]) {
			this.told = this.monitors.find(({ statusByte }) => decodeStatus(statusByte).confirmed) ?? null;
			this.telling.begin([this.told ? this.groupsOf(this.told) : NO_FAULT], SHOWINGS, world.timeS);
		}
	}

	/** Whether its lamp is lit by a code at this moment; null while it tells none. */
	flash(world: World): boolean | null {
		return this.telling.lit(world.timeS);
	}

	/** Its valves click one after the other as it wakes; not while it tells codes or is asked to. */
	valvesClick(world: World): boolean {
		const wakes = this.awakeS >= CLICKS_S[0] && this.awakeS < CLICKS_S[1];
		return wakes && this.bridgedFromS === null && this.telling.lit(world.timeS) === null;
	}

	/** Where and what, as the maker's table has it. */
	private groupsOf({ rule: { dtc } }: Monitor): number[] {
		const wheel = this.readers.findIndex(
			({ codes }) => dtc.startsWith(codes.circuit) || dtc.startsWith(codes.ring)
		);
		const type = dtc.slice(4);
		const what = WHAT.find(([, types]) => types.test(type))?.[0] ?? 7;
		const SUPPLY = 5;
		const MODULE = 7;
		return [wheel >= 0 ? wheel + 1 : what === 6 ? SUPPLY : MODULE, what];
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
