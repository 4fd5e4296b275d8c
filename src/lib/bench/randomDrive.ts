import type { DriveLeg } from './motion';

/** Everyday limits: harder is an emergency, and an emergency is allowed to light lamps. */
const HARDEST_START_MPS2 = 2.2;
const HARDEST_STOP_MPS2 = 4;
const TOP_KMH = 120;
/** Of the grip there is, so much is used at most. */
const GRIP_USED = 0.6;
const MOST_LATERAL_G = 0.35;
const GRAVITY = 9.81;

/**
 * A day's driving as chance has it: town and motorway, bends and car parks, dry, wet and icy roads, winter and summer.
 *
 * @param random numbers from 0 up to 1
 * @returns legs that cover at least this distance and end standing
 */
export function randomDrive(
	random: () => number,
	km: number,
	steeringRatio: number,
	wheelbaseM: number
): DriveLeg[] {
	const between = (low: number, high: number) => low + random() * (high - low);
	const legs: DriveLeg[] = [];
	let [metres, speed] = [0, 0];
	let weather = { grip: 0.9, wet: 0, roughness: 0.2, outsideC: 12 };
	while (metres < km * 1000) {
		if (random() < 0.05) {
			const outsideC = between(-20, 38);
			const wet = random() < 0.4 ? random() : 0;
			weather = {
				outsideC,
				wet,
				roughness: random(),
				grip: outsideC < 1 && wet > 0 ? between(0.2, 0.4) : 0.9 - 0.35 * wet
			};
		}
		const toKmh = random() < 0.15 ? 0 : between(4, TOP_KMH);
		const change = toKmh / 3.6 - speed;
		const hardest = Math.min(
			change > 0 ? HARDEST_START_MPS2 : HARDEST_STOP_MPS2,
			GRIP_USED * weather.grip * GRAVITY * 0.5
		);
		const changeS = Math.max(0.5, Math.abs(change) / (hardest * between(0.2, 1)));
		legs.push({ toKmh, overS: changeS, ...weather });
		metres += (speed + change / 2) * changeS;
		speed = toKmh / 3.6;
		const holdS = speed === 0 ? between(1, 20) : between(2, 90);
		const sharpest = Math.min(MOST_LATERAL_G, GRIP_USED * weather.grip);
		const mostRad =
			speed > 0 ? Math.min(0.55, Math.atan((wheelbaseM * sharpest * GRAVITY) / speed ** 2)) : 0.5;
		const turns = random() < 0.5;
		const legS = turns ? Math.min(holdS, 15) : holdS;
		legs.push({
			toKmh,
			overS: legS,
			steeringDeg: turns ? between(-1, 1) * mostRad * steeringRatio * (180 / Math.PI) : 0
		});
		metres += speed * legS;
	}
	legs.push({ toKmh: 0, overS: Math.max(2, speed / 2), steeringDeg: 0 }, { toKmh: 0, overS: 3 });
	return legs;
}
