import { NO_SCATTER, type Scatter } from './scatter';

/** A toothed ring or magnetic encoder on its seat, as the sensor meets it. */
export interface Ring {
	/** Where each tooth or pole pair stands, in turns from 0 to 1, rising. */
	at: Float64Array;
	/** Field of each tooth against a usual one: 1 sound, 0 gone. */
	strength: Float64Array;
	/** Gap at rest. */
	gapMm: number;
	/** Half of the gap's swing over one turn. */
	runOutMm: number;
	/** Looseness of ring or bearing: how far the gap opens at 100 km/h, growing with the square of speed. */
	wobbleMmAt100: number;
	/** Share of the wheel's turns that the ring does not follow: it turns on its seat. */
	creep: number;
	/** All teeth alike and no run-out: nothing to look at one by one. */
	uniform: boolean;
}

/** Radius at which the sensors of this class of vehicle read their rings. */
const RING_RADIUS_MM = 45;
/** Beyond this gap a sound tooth no longer switches an active sensor. */
export const LARGEST_GAP_MM = 2.5;
const WOBBLE_HZ = 1.7;

export function soundRing(teeth: number, gapMm: number, { amplitude, gap }: Scatter = NO_SCATTER): Ring {
	return {
		at: Float64Array.from({ length: teeth }, (_, i) => i / teeth),
		strength: new Float64Array(teeth).fill(amplitude),
		gapMm: gapMm * gap,
		runOutMm: 0,
		wobbleMmAt100: 0,
		creep: 0,
		uniform: true
	};
}

/** Takes a tooth away. */
export function dropTooth(ring: Ring, tooth: number): void {
	ring.strength[tooth % ring.strength.length] = 0;
	ring.uniform = false;
}

/** A crack after a tooth: the gap there is wider by a share of the pitch, the others close up. */
export function crack(ring: Ring, after: number, widerShare: number): void {
	const teeth = ring.at.length;
	const step = 1 / (teeth + widerShare);
	for (let i = 0; i < teeth; i++) ring.at[i] = (i + (i > after ? widerShare : 0)) * step;
	ring.uniform = false;
}

/** Dust or chips over an arc (in turns): the field of those teeth is weakened to a share. */
export function cover(ring: Ring, fromTurn: number, overTurns: number, leavesShare: number): void {
	for (const [i, at] of ring.at.entries()) {
		if ((at - fromTurn + 1) % 1 < overTurns) ring.strength[i] = (ring.strength[i] ?? 0) * leavesShare;
	}
	ring.uniform = false;
}

/**
 * Field that reaches a sensor at a gap, against one that touches: exp(−2π·g/λ), λ the tooth pitch on the ring's
 * circumference (Wallace's spacing loss of magnetic recording).
 */
export function spacingLoss(gapMm: number, teeth: number): number {
	const pitchMm = (2 * Math.PI * RING_RADIUS_MM) / teeth;
	return Math.exp((-2 * Math.PI * gapMm) / pitchMm);
}

/** The gap at a place of the ring and a moment, in mm. */
export function gapAt(ring: Ring, turn: number, speedMps: number, timeS: number): number {
	let gap = ring.gapMm + ring.runOutMm * Math.cos(2 * Math.PI * turn);
	if (ring.wobbleMmAt100 > 0) {
		const share = (speedMps * 3.6) / 100;
		gap += ring.wobbleMmAt100 * share * share * Math.abs(Math.sin(2 * Math.PI * WOBBLE_HZ * timeS));
	}
	return Math.max(0, gap);
}

/** Field of one tooth at the sensor, 1 for a sound tooth that touches. */
export function fieldOf(ring: Ring, tooth: number, speedMps: number, timeS: number): number {
	const turn = ring.at[tooth] ?? 0;
	return (ring.strength[tooth] ?? 0) * spacingLoss(gapAt(ring, turn, speedMps, timeS), ring.at.length);
}

/** Tooth frequency f = N·v / C, in Hz. */
export const toothFrequencyHz = (teeth: number, speedMps: number, circumferenceM: number): number =>
	(teeth * Math.abs(speedMps)) / circumferenceM;

/** What passed the sensor in one step. */
export interface Passing {
	/** Teeth that switched it. */
	pulses: number;
	/** When the last of them did, in seconds before the step's end. */
	lastAgoS: number;
}

/** The ring turning past its sensor: keeps the angle and counts the teeth that are seen. */
export class Rotor {
	/** Angle of the ring, in turns. */
	turns: number;
	private readonly passing: Passing = { pulses: 0, lastAgoS: 0 };

	constructor(startTurns: number) {
		this.turns = startTurns;
	}

	/**
	 * Turns on. @param need field that a tooth must have to be seen @returns the same object each time
	 */
	step(
		ring: Ring,
		speedMps: number,
		circumferenceM: number,
		need: number,
		timeS: number,
		dtS: number
	): Passing {
		const { passing } = this;
		passing.pulses = 0;
		const turned = ((speedMps * dtS) / circumferenceM) * (1 - ring.creep);
		if (turned === 0) return passing;
		const from = this.turns;
		const to = from + turned;
		// Far from 0 a float would lose the small steps.
		this.turns = to - Math.floor(to);
		const [low, high] = turned > 0 ? [from, to] : [to, from];
		const teeth = ring.at.length;
		if (ring.uniform) {
			if (fieldOf(ring, 0, speedMps, timeS) < need) return passing;
			const first = Math.floor(low * teeth) + 1;
			const last = Math.floor(high * teeth);
			passing.pulses = last - first + 1;
			if (passing.pulses > 0) passing.lastAgoS = agoOf((turned > 0 ? last : first) / teeth, to, turned, dtS);
			return passing;
		}
		const firstLap = Math.floor(low);
		const forwards = turned > 0;
		for (let lap = firstLap; lap <= Math.floor(high); lap++) {
			for (let tooth = firstTooth(ring.at, low - lap); tooth < teeth; tooth++) {
				const turn = lap + (ring.at[tooth] ?? 0);
				if (turn > high) break;
				if (fieldOf(ring, tooth, speedMps, timeS) < need) continue;
				passing.pulses += 1;
				if (forwards || passing.pulses === 1) passing.lastAgoS = agoOf(turn, to, turned, dtS);
			}
		}
		return passing;
	}
}

/** Seconds before the step's end at which the ring stood at a turn, at the even speed of the step. */
const agoOf = (turn: number, to: number, turned: number, dtS: number): number => ((to - turn) / turned) * dtS;

/** Index of the first tooth past a place, by halving. */
function firstTooth(at: Float64Array, past: number): number {
	let [low, high] = [0, at.length];
	while (low < high) {
		const middle = (low + high) >> 1;
		if ((at[middle] ?? 0) > past) high = middle;
		else low = middle + 1;
	}
	return low;
}
