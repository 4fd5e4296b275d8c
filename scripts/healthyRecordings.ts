import { linkTypes } from '../library';
import { benchRecording } from '../demo/benchRecording';
import { randomDrive } from '../src/lib/bench/randomDrive';
import { analyseLive } from '../src/lib/core/live/analyse';

const RATES_HZ = [5, 20, 50];
const DRIVE_KM = 1.5;

/** Numbers from 0 up to 1, the same for each seed. */
function evenly(seed: number): () => number {
	let state = seed;
	return () => {
		state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
		return state / 2 ** 32;
	};
}

/** Live data of sound vehicles of every type on random drives: what the analysis finds, which should be nothing. */
export function healthyRecordings(drives: number, seed: number): string[] {
	const found: string[] = [];
	const types = linkTypes;
	const random = evenly(seed);
	for (let i = 0; i < drives; i++) {
		const type = types[i % types.length];
		if (!type) continue;
		const legs = randomDrive(random, DRIVE_KM, type.chassis.steeringRatio, type.chassis.wheelbaseM);
		const recording = benchRecording(type.id, [], legs, RATES_HZ[i % RATES_HZ.length], seed + i);
		for (const { text } of analyseLive(recording).findings) found.push(`${type.id}, drive ${i}: ${text}`);
	}
	return found;
}
