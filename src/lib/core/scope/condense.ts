/**
 * A capture in steps of several samples: what an analysis needs of them, from one pass. The mean of a step has less noise
 * by the root of its samples and leaves edges where they were. Samples after the last whole step are left out.
 */
export interface Condensed {
	/** Samples a step. */
	step: number;
	mean: Float32Array;
}

/** Of a signal with levels: also the steps in which it is outside of two bounds. */
export interface LevelSteps extends Condensed {
	outside: number[];
}

/** Of a wave: also the largest change from one sample to the next within each step. */
export interface WaveSteps extends Condensed {
	jump: Float32Array;
}

export function levelSteps(volts: Float32Array, step: number, floor: number, ceiling: number): LevelSteps {
	const count = Math.floor(volts.length / step);
	const mean = step === 1 ? volts : new Float32Array(count);
	const outside: number[] = [];
	let i = 0;
	for (let s = 0; s < count; s++) {
		let sum = 0;
		let isOutside = false;
		for (const to = i + step; i < to; i++) {
			const now = volts[i] as number;
			sum += now;
			if (now > ceiling || now < floor) isOutside = true;
		}
		if (step > 1) mean[s] = sum / step;
		if (isOutside) outside.push(s);
	}
	return { step, mean, outside };
}

export function waveSteps(volts: Float32Array, step: number): WaveSteps {
	const count = Math.floor(volts.length / step);
	const mean = step === 1 ? volts : new Float32Array(count);
	const jump = new Float32Array(count);
	let before = volts[0] ?? 0;
	let i = 0;
	for (let s = 0; s < count; s++) {
		let sum = 0;
		let most = 0;
		for (const to = i + step; i < to; i++) {
			const now = volts[i] as number;
			sum += now;
			// Without a branch: which way noise goes cannot be foreseen.
			const change = Math.abs(now - before);
			if (change > most) most = change;
			before = now;
		}
		if (step > 1) mean[s] = sum / step;
		jump[s] = most;
	}
	return { step, mean, jump };
}
