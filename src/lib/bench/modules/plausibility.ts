import type { VehicleType } from '../../../../library';

/** Three ways to know how fast a vehicle turns, in rad/s; positive to the left. */
export interface YawVote {
	wheels: number;
	steering: number;
	sensor: number;
}

export type YawVoter = keyof YawVote;

/** Two that differ by less agree, one that differs by more from both is alone. */
const AGREE_RADPS = 0.026;
const ALONE_RADPS = 0.044;
/** Turning harder than this, tyres slip and nobody is judged. */
const CALM_G = 0.12;
const GRAVITY = 9.81;
/** Understeer the module was given for this vehicle, s²/m. */
const UNDERSTEER = 0.0025;

/** Yaw rate by the single-track model, v·tan δ/(L + K·v²). */
export function steeringYaw(type: VehicleType, speedMps: number, angleDeg: number): number {
	const { wheelbaseM, steeringRatio } = type.chassis;
	const rad = (angleDeg / steeringRatio) * (Math.PI / 180);
	return (speedMps * Math.tan(rad)) / (wheelbaseM + UNDERSTEER * speedMps ** 2);
}

/**
 * Which of three sources stands alone against two that agree: `none` where all agree, null where nothing can be said
 * (turning hard, or no two agree).
 */
export function oddOneOut(vote: YawVote, speedMps: number): YawVoter | 'none' | null {
	const { wheels, steering, sensor } = vote;
	const apart = (a: number, b: number) => Math.abs(a - b);
	const calm = (yaw: number) => Math.abs(yaw * speedMps) < CALM_G * GRAVITY;
	const pairs: [YawVoter, number, number, number][] = [
		['wheels', wheels, steering, sensor],
		['steering', steering, wheels, sensor],
		['sensor', sensor, wheels, steering]
	];
	if (pairs.every(([, , a, b]) => apart(a, b) < AGREE_RADPS)) return calm(sensor) ? 'none' : null;
	for (const [voter, own, a, b] of pairs) {
		const alone = apart(own, a) > ALONE_RADPS && apart(own, b) > ALONE_RADPS;
		if (alone && apart(a, b) < AGREE_RADPS && calm((a + b) / 2)) return voter;
	}
	return null;
}
