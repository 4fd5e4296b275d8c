import type { VehicleType } from '../../../../library';
import type { World } from '../world';
import type { OwnMotion } from './brakeLines';
import type { Watch } from './module';
import type { Lamp, Sample } from './monitor';
import { oddOneOut, steeringYaw, type YawVote, type YawVoter } from './plausibility';
import type { WheelReader } from './wheelReader';

const TYRE_SHARE = 0.04;
const TYRE_DIFFERENCE_KMH = 6;
const CALM_MPS2 = 0.8;
const JUDGE_FROM_KMH = 30;
const STRAIGHT_DEGPS = 2;
const LATERAL_G = 0.12;
const GRAVITY = 9.81;
/** A tyre differs evenly: its share of the reference stays within this for so long. */
const STEADY_SHARE = 0.015;
const STEADY_S = 2;
const SHARE_S = 1;

interface Judged {
	odd: YawVoter | 'none' | null;
	speedMps: number;
	lateralG: number;
	vote: YawVote;
}

/** Holds wheels, steering angle and yaw sensor against each other, and the corners among themselves. */
export class SourceJudge {
	private judged: Judged | null = null;
	/** Each corner's share of the reference, slowly averaged, and how long all have kept to theirs. */
	private readonly shares: number[];
	private steadyS = 0;

	constructor(
		private readonly vehicle: VehicleType,
		private readonly readers: readonly WheelReader[],
		private readonly own: () => OwnMotion
	) {
		this.shares = readers.map(() => 1);
	}

	/** Calm and all corners read: the moments in which sources are held against each other. */
	private canJudge(): boolean {
		const { referenceKmh, accelerationMps2 } = this.own();
		return (
			referenceKmh >= JUDGE_FROM_KMH &&
			Math.abs(accelerationMps2) < CALM_MPS2 &&
			this.readers.every((reader) => reader.fault === null && reader.estimateKmh > 0.5 * referenceKmh)
		);
	}

	/** Takes the sources of this moment. */
	judge(world: World): void {
		this.judged = null;
		const steering = world.messages.read('brake', 'steering-angle', world.timeS);
		const yaw = world.messages.read('brake', 'yaw', world.timeS);
		if (!steering?.valid || !yaw?.valid || !this.canJudge()) return;
		const speedMps = this.own().referenceKmh / 3.6;
		const unsteered = this.readers.filter(({ wheel }) => !wheel.type.steered);
		const side = (name: string) => unsteered.find(({ wheel }) => wheel.type.side === name)?.estimateKmh ?? 0;
		const vote = {
			wheels: (side('right') - side('left')) / 3.6 / this.vehicle.chassis.trackM,
			steering: steeringYaw(this.vehicle, speedMps, steering.said.angleDeg),
			sensor: yaw.said.yawDegps * (Math.PI / 180)
		};
		this.judged = { odd: oddOneOut(vote, speedMps), speedMps, lateralG: yaw.said.lateralG, vote };
	}

	followShares(dtS: number): void {
		this.steadyS += dtS;
		const { referenceKmh } = this.own();
		for (const [i, reader] of this.readers.entries()) {
			const share = reader.estimateKmh / Math.max(1, referenceKmh);
			const slow = this.shares[i] ?? 1;
			if (Math.abs(share - slow) > STEADY_SHARE) this.steadyS = 0;
			this.shares[i] = slow + (share - slow) * Math.min(1, dtS / SHARE_S);
		}
	}

	private widestDifferenceKmh(): number {
		const speeds = this.readers.map((reader) => reader.estimateKmh);
		return Math.max(...speeds) - Math.min(...speeds);
	}

	watches(tyreLamps: Lamp[]): Watch[] {
		const alone = (dtc: string, voter: YawVoter): Watch => ({
			rule: { dtc, failS: 5, passS: 5, lamps: ['stability'] },
			sample: (): Sample => {
				const odd = this.judged?.odd ?? null;
				if (odd === null) return 'none';
				return odd === voter ? 'fail' : odd === 'none' ? 'pass' : 'none';
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
				rule: { dtc: '407864', failS: 8, passS: 10, lamps: tyreLamps },
				sample: (world): Sample => {
					const yaw = world.messages.read('brake', 'yaw', world.timeS)?.said.yawDegps ?? 0;
					const straight = this.canJudge() && Math.abs(yaw) <= STRAIGHT_DEGPS;
					if (!straight || this.steadyS < STEADY_S) return 'none';
					const apart = this.widestDifferenceKmh();
					const share = apart / this.own().referenceKmh;
					if (share > TYRE_SHARE && apart > TYRE_DIFFERENCE_KMH) return 'fail';
					return share < TYRE_SHARE ? 'pass' : 'none';
				}
			}
		];
	}
}
