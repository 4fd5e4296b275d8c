import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import type { Recording } from './recording';

/** Drives made from kinematics alone, to try the analysis on what the bench vehicle does not make. */
export interface MadeDrive {
	seed: number;
	rateHz: number;
	durationS: number;
	/** Standard deviation of each reading, km/h. */
	noiseKmh: number;
	/** Steps of the readings, km/h. */
	stepKmh: number;
	positions?: readonly string[];
	/** Honest slip: under braking and when driven hard on a poor road. */
	slip?: boolean;
	/** Rows left out, and clocks that stutter. */
	gaps?: boolean;
}

const TRACK_M = 1.5;
const WHEELBASE_M = 2.7;
const HARDEST_CORNER_MPS2 = 4;
const FOUR = ['front_left', 'front_right', 'rear_left', 'rear_right'];

/** Numbers from 0 up to 1 from a seed. */
export function randomFrom(seed: number): () => number {
	const generator = xoroshiro128plus(seed);
	return () => (generator.next() >>> 0) / 2 ** 32;
}

/** @returns readings of a healthy vehicle, with vehicle speed beside the wheels */
export function madeDrive(drive: MadeDrive): Recording {
	const random = randomFrom(drive.seed);
	const between = (low: number, high: number) => low + random() * (high - low);
	const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
	const positions = drive.positions ?? FOUR;
	const stepS = 1 / drive.rateHz;
	const slipOf = positions.map(() => 0);
	const slipTo = positions.map(() => 0);
	const time: number[] = [];
	const rows: number[][] = [];
	let [speed, target, pace, curve, curveTo, untilS, t] = [0, 0, 5, 0, 0, 2, 0];
	let lurch = 0;
	while (t < drive.durationS) {
		if (t >= untilS) {
			target = random() < 0.2 ? 0 : between(15, 110);
			pace = target < speed ? between(3, 30) : between(3, 14);
			curveTo = random() < 0.5 ? 0 : between(-1, 1) / 8;
			untilS = t + between(4, 20);
			const braking = target < speed && pace > 12;
			for (const k of positions.keys()) {
				slipTo[k] = 0;
				if (drive.slip && braking && random() < 0.4) slipTo[k] = -between(0.03, 0.35);
				if (drive.slip && !braking && pace > 9 && k < 2 && random() < 0.4) slipTo[k] = between(0.03, 0.25);
			}
			if (random() < 0.3) lurch = between(-2, 2);
		}
		const change = Math.sign(target - speed) * Math.min(Math.abs(target - speed), pace * stepS);
		speed = Math.max(0, speed + change + (speed > 5 ? lurch * stepS * 3 : 0));
		lurch *= Math.exp(-stepS / 0.3);
		if (speed === target) slipTo.fill(0);
		curve += (curveTo - curve) * Math.min(1, stepS / 0.8);
		// No driver corners harder than this.
		const sharpest = HARDEST_CORNER_MPS2 / Math.max(4, (speed / 3.6) ** 2);
		curve = Math.max(-sharpest, Math.min(sharpest, curve));
		const row = positions.map((position, k) => {
			slipOf[k] = (slipOf[k] ?? 0) + ((slipTo[k] ?? 0) - (slipOf[k] ?? 0)) * Math.min(1, stepS / 0.25);
			const side = position.endsWith('left') ? -1 : 1;
			const along = 1 + (side * curve * TRACK_M) / 2;
			const path = position.startsWith('front') ? Math.hypot(along, curve * WHEELBASE_M) : along;
			const kmh = speed * path * (1 + (slipOf[k] ?? 0));
			return kmh < 0.3
				? 0
				: Math.max(0, Math.round((kmh + drive.noiseKmh * normal()) / drive.stepKmh) * drive.stepKmh);
		});
		const missing = drive.gaps && random() < 0.01;
		if (!missing) {
			time.push(drive.gaps ? t + between(0, 0.2) * stepS : t);
			rows.push([...row, Math.round(speed)]);
		}
		if (drive.gaps && random() < 0.002) t += between(0.3, 4);
		t += stepS;
	}
	return {
		timeS: Float64Array.from(time),
		channels: new Map(
			[...positions, 'vehicle'].map((name, k) => [name, Float64Array.from(rows, (row) => row[k] ?? NaN)])
		),
		problems: []
	};
}

/** The same recording with one wheel changed. `change` sees reading, time and the vehicle's speed. */
export function spoiled(
	recording: Recording,
	channel: string,
	change: (kmh: number, timeS: number, vehicleKmh: number) => number
): Recording {
	const channels = new Map(recording.channels);
	const own = channels.get(channel) ?? new Float64Array();
	const vehicle = channels.get('vehicle') ?? own;
	channels.set(
		channel,
		own.map((kmh, i) => change(kmh, recording.timeS[i] ?? 0, vehicle[i] ?? 0))
	);
	return { ...recording, channels };
}
