/** Which way the wheels were turned while a distance was driven; unknown where steering was not read. */
export const TURNS = ['left', 'straight', 'right', 'unknown'] as const;
export type Turn = (typeof TURNS)[number];

/** A part of a driven distance: all that was driven in one band of speed, turned one way. */
export interface DrivenBand {
	/** Lower edge of the band, a multiple of {@link BAND_KMH}. */
	fromKmh: number;
	turn: Turn;
	km: number;
}

/** How a vehicle has to be driven for a distance to count; what is null or false is not asked. */
export interface DrivenSo {
	fromKmh: number | null;
	toKmh: number | null;
	/** Only in bends. */
	turning: boolean;
}

export const BAND_KMH = 5;
/** Steering wheel turned this far and more is a bend: held wheels and a crowned road stay below. */
export const BEND_DEG = 45;

/** @param steeringDeg positive to the left; null where it was not read */
export function turnOf(steeringDeg: number | null): Turn {
	if (steeringDeg === null || !Number.isFinite(steeringDeg)) return 'unknown';
	if (Math.abs(steeringDeg) < BEND_DEG) return 'straight';
	return steeringDeg > 0 ? 'left' : 'right';
}

/** Faster than this is one band. */
export const TOP_BAND_KMH = 300;
export const bandOf = (kmh: number): number =>
	Math.min(TOP_BAND_KMH, Math.floor(Math.max(0, kmh) / BAND_KMH) * BAND_KMH);

/** Adds distances up by band: bands of several drives become those of one. Ordered by speed, then turn. */
export function mergeBands(...of: readonly (readonly DrivenBand[])[]): DrivenBand[] {
	const sums = new Map<string, DrivenBand>();
	for (const { fromKmh, turn, km } of of.flat()) {
		const key = `${fromKmh} ${turn}`;
		sums.set(key, { fromKmh, turn, km: (sums.get(key)?.km ?? 0) + km });
	}
	return [...sums.values()].sort(
		(a, b) => a.fromKmh - b.fromKmh || TURNS.indexOf(a.turn) - TURNS.indexOf(b.turn)
	);
}

/**
 * Distance that was driven so. Inside a band that a limit cuts, the distance is taken to be spread evenly; what nobody
 * read of the steering is no bend.
 */
export function kmDrivenSo(bands: readonly DrivenBand[], { fromKmh, toKmh, turning }: DrivenSo): number {
	let sum = 0;
	for (const { fromKmh: low, turn, km } of bands) {
		if (turning && turn !== 'left' && turn !== 'right') continue;
		const from = Math.max(low, fromKmh ?? 0);
		const to = Math.min(low + BAND_KMH, toKmh ?? Infinity);
		sum += (km * Math.max(0, to - from)) / BAND_KMH;
	}
	return sum;
}
