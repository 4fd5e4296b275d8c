import type { ModuleType, VehicleType } from '../../../../library';
import { decodeStatus } from '../../core/codes/status';
import type { Wheel, World } from '../world';
import { LampTelling } from './lampTelling';
import type { Monitor } from './monitor';
import { WheelModule } from './wheelModule';

/** Lit at key-on, with the key's own click of the relay. */
const SELF_CHECK_S = 2;
/** The pedal held over key-on for so long makes it listen to presses. */
const HELD_S = [2, 8] as const;
/** No press for so long: they are counted. */
const COUNTED_AFTER_S = 1;
const TELLS = { presses: 3, withinS: 3 };
const CHECKS = { presses: 5, withinS: 5 };
const FORGETS = { presses: 8, withinS: 5 };
const ROUNDS = 20;
const NO_FAULT = [1, 2];
/** Bands of speed in which its check mode listens to the sensors, and for how long. */
const BANDS_KMH = [
	[3.5, 6.5],
	[44, 56]
] as const;
const BAND_S = 5;
/** A sensor is heard in a band where it is this near to the others. */
const HEARD_SHARE = 0.15;

const WHERE: Record<string, number[]> = {
	'front-left': [2, 1],
	'front-right': [2, 3],
	'rear-left': [3, 1],
	'rear-right': [3, 3]
};
const OPEN_OR_SHORTED = /^1[1-5]$/;
const PUMP = '411013';
const SUPPLY = /^(489916|490017)$/;

/**
 * Anti-lock control from before the network: nobody talks to it by a link. Its lamp and the brake pedal are all it has to
 * hear and to tell by; what they ask and say is the table `norvane-pedal` of the library.
 */
export class PedalBrake extends WheelModule {
	override readonly role = 'brake' as const;
	private readonly telling = new LampTelling();
	private onS = 0;
	private heldFromStart = false;
	private listens = false;
	private wasPressed = false;
	private presses: number[] = [];
	/** Seconds of each band in which every sensor was heard; null outside the check mode. */
	private heardS: number[] | null = null;

	constructor(type: ModuleType, vehicle: VehicleType, wheels: readonly Wheel[]) {
		super(type, vehicle, wheels, 'AL-0.9', ['anti-lock']);
		this.watch({
			rule: { dtc: PUMP, failS: 1, passS: 1, lamps: ['anti-lock'] },
			sample: (world) => (this.lines.pumpFed(world) ? 'pass' : 'fail')
		});
	}

	protected override braking(world: World): boolean {
		return this.lines.pedal(world);
	}

	override newCycle(hadPower: boolean): void {
		super.newCycle(hadPower);
		this.onS = 0;
		this.heldFromStart = true;
		this.listens = false;
		this.wasPressed = false;
		this.presses = [];
		this.heardS = null;
		this.telling.stop();
	}

	protected override run(world: World, dtS: number): void {
		super.run(world, dtS);
		this.onS += dtS;
		this.followPedal(world);
		if (this.heardS) this.listenToSensors(dtS, this.heardS);
	}

	private followPedal(world: World): void {
		const pressed = this.lines.pedal(world);
		if (this.heldFromStart && !pressed) {
			this.heldFromStart = false;
			this.listens = this.onS >= HELD_S[0] && this.onS <= HELD_S[1];
		} else if (!this.heldFromStart && pressed && !this.wasPressed) this.presses.push(this.onS);
		this.wasPressed = pressed;
		const last = this.presses.at(-1);
		if (last !== undefined && this.onS - last > COUNTED_AFTER_S) {
			this.counted(world);
			this.presses = [];
		}
	}

	/** What so many presses ask for. */
	private counted({ timeS }: World): void {
		const tookS = (this.presses.at(-1) ?? 0) - (this.presses[0] ?? 0);
		const asked = ({ presses, withinS }: typeof TELLS) => this.presses.length === presses && tookS <= withinS;
		if (asked(FORGETS)) {
			this.clear(null);
			this.telling.stop();
		} else if (this.listens && asked(TELLS)) {
			const kept = this.monitors.filter(({ statusByte }) => decodeStatus(statusByte).confirmed);
			const codes = new Map(kept.map((monitor) => this.groupsOf(monitor)).map((code) => [code.join(), code]));
			this.telling.begin(codes.size > 0 ? [...codes.values()] : [NO_FAULT], ROUNDS, timeS);
		} else if (this.listens && asked(CHECKS)) this.heardS = BANDS_KMH.map(() => 0);
	}

	private listenToSensors(dtS: number, heardS: number[]): void {
		const { referenceKmh } = this.now;
		for (const [i, [from, to]] of BANDS_KMH.entries()) {
			if (referenceKmh < from || referenceKmh > to) continue;
			const heard = this.readers.every(
				({ fault, estimateKmh }) =>
					fault === null && Math.abs(estimateKmh - referenceKmh) <= HEARD_SHARE * referenceKmh
			);
			heardS[i] = heard ? (heardS[i] ?? 0) + dtS : 0;
		}
	}

	private groupsOf({ rule: { dtc } }: Monitor): number[] {
		const corner = this.readers.find(
			({ codes }) => dtc.startsWith(codes.circuit) || dtc.startsWith(codes.ring)
		)?.wheel.position;
		const [group = 6, first = 1] = corner ? (WHERE[corner] ?? []) : [];
		if (corner) return [group, OPEN_OR_SHORTED.test(dtc.slice(4)) ? first : first + 1];
		if (dtc === PUMP) return [4, 1];
		return SUPPLY.test(dtc) ? [5, 3] : [6, 1];
	}

	/** Its lamp, as a person at the wheel sees it. */
	lit({ timeS }: World): boolean {
		if (this.heardS) return this.heardS.some((s) => s < BAND_S);
		return this.telling.lit(timeS) ?? (this.selfCheck || this.lampsAsked.length > 0);
	}

	get selfCheck(): boolean {
		return this.onS < SELF_CHECK_S;
	}
}
