import { z } from 'zod';
import type { VehicleType } from '../../../library';

/** One leg of a drive: reach a speed within a time, evenly, and hold the rest as said. */
export const DriveLeg = z.object({
	toKmh: z.number().min(0).max(250),
	overS: z.number().min(0).max(36_000),
	/** At the steering wheel, positive to the left; reached within a second. */
	steeringDeg: z.number().min(-720).max(720).optional(),
	/** Friction between tyre and road: dry asphalt about 0.9, wet 0.6, ice 0.15. */
	grip: z.number().min(0.05).max(1.2).optional(),
	/** 0 dry … 1 pouring. */
	wet: z.number().min(0).max(1).optional(),
	/** 0 smooth … 1 cobbles. */
	roughness: z.number().min(0).max(1).optional(),
	outsideC: z.number().min(-40).max(60).optional()
});
export type DriveLeg = z.infer<typeof DriveLeg>;

/** Weather and road that stay until a leg says otherwise. */
export interface Surroundings {
	grip: number;
	wet: number;
	roughness: number;
	outsideC: number;
}

export const STRAIGHT_DRIVE: DriveLeg[] = [
	{ toKmh: 20, overS: 6 },
	{ toKmh: 20, overS: 20 },
	{ toKmh: 65, overS: 14 },
	{ toKmh: 65, overS: 150 },
	{ toKmh: 0, overS: 12 },
	{ toKmh: 0, overS: 2 }
];

const GRAVITY = 9.81;
/** Steering wheel turns at most this fast. */
const STEERING_DEG_PER_S = 220;
/** Yaw follows the steering with this time constant. */
const YAW_LAG_S = 0.12;
/** Understeer gradient, s²/m: yaw rate = v·δ/(L + K·v²). */
const UNDERSTEER = 0.0025;
/** Longitudinal slip at a tenth of the grip used; it grows without bound towards all of it, and ends here. */
const SLIP_STIFFNESS = 0.03;
const MOST_SLIP = 0.12;
/** A locked wheel creeps on a little; it gets there with this time constant. */
const LOCKED = 0.97;
const LOCK_S = 0.14;
/** Slowing harder than this is done with the pedal. */
const PEDAL_FROM_MPS2 = 0.5;
/** Brake pressure for a deceleration of one g. */
const BAR_PER_G = 110;
/** Hubs warm by so much over the air for each m/s, at most so much, this slowly. */
const HUB_C_PER_MPS = 2;
const HUB_MOST_C = 45;
const HUB_WARMS_S = 120;
/** A wheel spun by hand runs up and down with this time constant. */
const HAND_S = 0.15;

/**
 * Turning geometry of a rigid vehicle. @returns speed of a wheel along its own plane for a reference point in the middle of
 * the unsteered axle that moves at `speedMps` with `yawRadps`: on radius R that is v·(R ∓ t/2)/R behind, and
 * v·√((R ∓ t/2)² + L²)/R at a steered wheel in front.
 */
export function wheelSpeedMps(
	wheel: { xM: number; yM: number; steered: boolean },
	speedMps: number,
	yawRadps: number
): number {
	const along = speedMps - yawRadps * wheel.yM;
	return wheel.steered ? Math.sign(along) * Math.hypot(along, yawRadps * wheel.xM) : along;
}

/** Share of slip that a tyre needs to carry a share of its grip (0 … 1): little at first, much near the limit. */
export const slipFor = (gripUsed: number): number =>
	Math.min(MOST_SLIP, (SLIP_STIFFNESS * gripUsed) / Math.max(0.1, 1 - 0.8 * gripUsed));

const STILL_MPS = 0.001;

/** How the vehicle moves: on the road by a profile, or on stands with wheels turned by hand or by the engine. */
export class Motion {
	speedMps = 0;
	accelerationMps2 = 0;
	steeringDeg = 0;
	/** Where hands hold the steering wheel while nobody drives. */
	steeringHeldDeg = 0;
	yawRadps = 0;
	odometerM: number;
	brakeBar = 0;
	/** The pedal held by a foot while the vehicle stands. */
	footOnPedal = false;
	lifted = false;
	/** Temperature of hubs and sensors: brakes and bearings warm them while the vehicle drives. */
	hubC: number;
	readonly around: Surroundings = { grip: 0.9, wet: 0, roughness: 0.2, outsideC: 12 };
	/** Speed of each tread along its wheel's plane, in the order of the type's wheels; backwards is negative. */
	readonly wheelMps: Float64Array;
	/** Share of the road's grip that each tyre has. */
	readonly gripShare: Float64Array;
	private readonly slip: Float64Array;
	private legs: DriveLeg[] = [];
	private readonly hand: Float64Array;
	private gearMps = 0;
	private readonly drivenShare: number;

	constructor(
		private readonly type: VehicleType,
		odometerKm: number
	) {
		this.odometerM = odometerKm * 1000;
		this.hubC = this.around.outsideC;
		this.wheelMps = new Float64Array(type.wheels.length);
		this.hand = new Float64Array(type.wheels.length);
		this.gripShare = new Float64Array(type.wheels.length).fill(1);
		this.slip = new Float64Array(type.wheels.length);
		this.drivenShare = type.wheels.filter((wheel) => wheel.driven).length / type.wheels.length;
	}

	get driving(): boolean {
		return this.legs.length > 0;
	}

	/** Whether nothing turns and nobody means to turn anything. Wheels that run down turn still. */
	get still(): boolean {
		const turns = (mps: number) => Math.abs(mps) > STILL_MPS;
		return (
			!this.driving &&
			this.gearMps === 0 &&
			Math.abs(this.steeringHeldDeg - this.steeringDeg) < 1 &&
			!turns(this.speedMps) &&
			!this.hand.some(turns) &&
			!this.wheelMps.some(turns)
		);
	}

	/** Whether the driver presses the pedal at this moment. */
	get pedal(): boolean {
		return this.footOnPedal || this.brakeBar > 0;
	}

	get lateralG(): number {
		return (this.speedMps * this.yawRadps) / GRAVITY;
	}

	drive(legs: DriveLeg[]): void {
		this.letGo();
		this.steeringHeldDeg = 0;
		this.lifted = false;
		this.legs = legs.map((leg) => ({ ...leg }));
	}

	stop(): void {
		this.legs = [];
		this.speedMps = 0;
		this.accelerationMps2 = 0;
		this.brakeBar = 0;
		this.letGo();
	}

	private letGo(): void {
		this.hand.fill(0);
		this.gearMps = 0;
	}

	/** Turns one wheel by hand, lifting the vehicle for it; zero lets go. Refused (false) while the vehicle drives. */
	spin(wheel: number, kmh: number): boolean {
		if (this.driving || this.speedMps > 0 || this.gearMps > 0) return false;
		this.lifted = true;
		this.hand.fill(0);
		this.hand[wheel] = kmh / 3.6;
		// An open differential between a wheel turned by hand and a standing propeller shaft turns the mate backwards.
		const turned = this.type.wheels[wheel];
		const mate = this.type.wheels.findIndex((w) => w.axle === turned?.axle && w.side !== turned.side);
		if (turned?.driven && mate >= 0) this.hand[mate] = -kmh / 3.6;
		return true;
	}

	/** Runs the driven wheels in gear, on stands; zero stops. Refused (false) while the vehicle drives. */
	runInGear(kmh: number): boolean {
		if (this.driving || this.speedMps > 0) return false;
		this.lifted = true;
		this.letGo();
		this.gearMps = kmh / 3.6;
		return true;
	}

	step(dtS: number): void {
		const leg = this.legs[0];
		const before = this.speedMps;
		let steeringTo = this.steeringHeldDeg;
		if (leg) {
			const target = leg.toKmh / 3.6;
			const share = Math.min(1, dtS / Math.max(dtS, leg.overS));
			this.speedMps += (target - this.speedMps) * share;
			steeringTo = leg.steeringDeg ?? 0;
			if (leg.grip !== undefined) this.around.grip = leg.grip;
			if (leg.wet !== undefined) this.around.wet = leg.wet;
			if (leg.outsideC !== undefined) this.around.outsideC = leg.outsideC;
			if (leg.roughness !== undefined) this.around.roughness = leg.roughness;
			leg.overS -= dtS;
			if (leg.overS <= 1e-9) {
				this.speedMps = target;
				this.legs.shift();
			}
		}
		const most = STEERING_DEG_PER_S * dtS;
		this.steeringDeg += Math.max(-most, Math.min(most, steeringTo - this.steeringDeg));
		this.accelerationMps2 = (this.speedMps - before) / dtS;
		this.brakeBar =
			this.accelerationMps2 < -PEDAL_FROM_MPS2
				? (-this.accelerationMps2 / GRAVITY) * BAR_PER_G
				: this.footOnPedal
					? 20
					: 0;
		this.odometerM += this.speedMps * dtS;
		const warmC = this.around.outsideC + Math.min(HUB_MOST_C, this.speedMps * HUB_C_PER_MPS);
		this.hubC += (warmC - this.hubC) * Math.min(1, dtS / HUB_WARMS_S);
		this.turn(dtS);
		this.turnWheels(dtS);
	}

	/** Yaw rate by the single-track model, held to what the grip carries. */
	private turn(dtS: number): void {
		const v = this.speedMps;
		const { wheelbaseM, steeringRatio } = this.type.chassis;
		const roadWheelRad = (this.steeringDeg / steeringRatio) * (Math.PI / 180);
		const wanted = (v * Math.tan(roadWheelRad)) / (wheelbaseM + UNDERSTEER * v * v);
		const most = v > 0.1 ? (this.around.grip * GRAVITY) / v : 0;
		const yaw = Math.max(-most, Math.min(most, wanted));
		this.yawRadps += (yaw - this.yawRadps) * Math.min(1, dtS / YAW_LAG_S);
	}

	private turnWheels(dtS: number): void {
		const { wheels } = this.type;
		const onRoad = this.speedMps !== 0;
		const a = this.accelerationMps2;
		const { grip } = this.around;
		for (let i = 0; i < wheels.length; i++) {
			const wheel = wheels[i];
			if (!wheel) continue;
			if (onRoad) {
				const rolling = wheelSpeedMps(wheel, this.speedMps, this.yawRadps);
				this.wheelMps[i] = rolling * (1 + this.slipNow(i, wheel.driven, a, grip, dtS));
			} else {
				this.slip[i] = 0;
				const target = this.gearMps > 0 && wheel.driven ? this.gearMps : (this.hand[i] ?? 0);
				const now = this.wheelMps[i] ?? 0;
				const next = now + (target - now) * Math.min(1, dtS / HAND_S);
				this.wheelMps[i] = Math.abs(next - target) < 0.01 ? target : next;
			}
		}
	}

	/** A tyre asked for more than its grip locks, as fast as its mass lets it, and turns up again when it is let go. */
	private slipNow(i: number, driven: boolean, a: number, grip: number, dtS: number): number {
		const carries = grip * (this.gripShare[i] ?? 1) * GRAVITY;
		const braked = a < -PEDAL_FROM_MPS2;
		const locks = braked && -a > carries;
		const now = this.slip[i] ?? 0;
		if (locks || now < -MOST_SLIP) {
			const next = now + ((locks ? -LOCKED : 0) - now) * Math.min(1, dtS / LOCK_S);
			this.slip[i] = next;
			return next;
		}
		this.slip[i] = 0;
		if (braked) return -slipFor(Math.min(1, -a / carries));
		if (a <= 0 || !driven) return 0;
		return slipFor(Math.min(1, a / (grip * GRAVITY * Math.max(0.25, this.drivenShare))));
	}

	/** Wheels that slide with the brake on. */
	get locked(): boolean {
		return this.slip.some((slip) => slip < -0.5);
	}

	/** What a person beside the vehicle sees turning, in km/h. */
	wheelsKmh(): Record<string, number> {
		return Object.fromEntries(
			this.type.wheels.map(({ position }, i) => [position, (this.wheelMps[i] ?? 0) * 3.6])
		);
	}
}
