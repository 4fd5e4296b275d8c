import type { Capture } from './capture';

/** Closed-form signals of sensors, from the angle of the ring at each moment; the noise comes from a seed. */
export interface SignalPlan {
	kind: 'active' | 'passive';
	rateHz: number;
	durationS: number;
	teeth: number;
	/** Tooth frequency at the start and at the end, changing evenly. */
	hz: number;
	endHz?: number;
	/** Signal against noise, in decibels of their powers; none where absent. */
	snrDb?: number;
	/** Teeth that are gone. */
	missing?: number[];
	/** Once a turn: share by which the amplitude (passive) or the width (active) swings. */
	runOut?: number;
	/** Share of a tooth that an active signal is up. */
	duty?: number;
	lowV?: number;
	highV?: number;
	biasV?: number;
	/** Passive: peak volts at 100 Hz. */
	peakAt100Hz?: number;
	/** Share of a turn at which the capture begins. */
	startTurn?: number;
	/** Stretches, in seconds, over which the line is dead. */
	dead?: [number, number][];
	/** Moments at which a spike of this many volts and 200 µs is added. */
	spikes?: number[];
	spikeV?: number;
	seed?: number;
}

/** Even numbers between 0 and 1 from a seed (mulberry32). */
export function evenNumbers(seed: number): () => number {
	let state = seed >>> 0;
	return () => {
		state = (state + 0x6d2b79f5) >>> 0;
		let t = Math.imul(state ^ (state >>> 15), 1 | state);
		t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
		return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
	};
}

/** Normal numbers of mean 0 and spread 1 from a seed (Box and Muller). */
export function normalNumbers(seed: number): () => number {
	const even = evenNumbers(seed);
	let kept: number | null = null;
	return () => {
		if (kept !== null) {
			const value = kept;
			kept = null;
			return value;
		}
		const radius = Math.sqrt(-2 * Math.log(1 - even()));
		const angle = 2 * Math.PI * even();
		kept = radius * Math.sin(angle);
		return radius * Math.cos(angle);
	};
}

export function makeSignal(plan: SignalPlan): Float32Array {
	const { kind, rateHz, durationS, teeth, hz, endHz = hz, missing = [], runOut = 0, duty = 0.5 } = plan;
	const { lowV = 0.8, highV = 1.6, biasV = 0, peakAt100Hz = 1, startTurn = 0.3 } = plan;
	const count = Math.round(rateHz * durationS);
	const volts = new Float32Array(count);
	const slope = (endHz - hz) / durationS;
	let power = 0;
	for (let i = 0; i < count; i++) {
		const t = i / rateHz;
		const toothAngle = startTurn * teeth + hz * t + (slope * t * t) / 2;
		const tooth = Math.floor(toothAngle) % teeth;
		const within = toothAngle - Math.floor(toothAngle);
		const swell = 1 + runOut * Math.cos((2 * Math.PI * toothAngle) / teeth);
		const gone = missing.includes(tooth);
		if (kind === 'active') volts[i] = !gone && within < duty * swell ? highV : lowV;
		else {
			const peak = (peakAt100Hz * (hz + slope * t)) / 100;
			volts[i] = biasV + (gone ? 0 : peak * swell * Math.sin(2 * Math.PI * within));
		}
		const middle = kind === 'active' ? (lowV + highV) / 2 : biasV;
		power += ((volts[i] ?? 0) - middle) ** 2;
	}
	for (const [from, to] of plan.dead ?? [])
		volts.fill(kind === 'active' ? 0 : biasV, Math.round(from * rateHz), Math.round(to * rateHz));
	for (const at of plan.spikes ?? [])
		for (let i = Math.round(at * rateHz); i < Math.round((at + 0.0002) * rateHz); i++)
			volts[i] = (volts[i] ?? 0) + (plan.spikeV ?? 3);
	if (plan.snrDb !== undefined) {
		const sigma = Math.sqrt(power / count / 10 ** (plan.snrDb / 10));
		const normal = normalNumbers(plan.seed ?? 1);
		for (let i = 0; i < count; i++) volts[i] = (volts[i] ?? 0) + sigma * normal();
	}
	return volts;
}

export const captureOf = (rateHz: number, channels: Record<string, Float32Array>): Capture => ({
	rateHz,
	startS: 0,
	channels: Object.entries(channels).map(([name, volts]) => ({ name, volts }))
});
