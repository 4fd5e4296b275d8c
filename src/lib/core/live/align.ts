import type { Recording } from './recording';
import { wheelTable } from './wheelTable';

/** How two recordings are laid over each other. */
export type Alignment = { by: 'mark'; hereS: number; thereS: number } | { by: 'speed' } | { by: 'start' };

const STEP_S = 0.25;
/** Of the shorter one, so much must lie on the other. */
const LEAST_OVERLAP = 0.3;

/**
 * Seconds to add to the other recording's times so that it lies on the first: mark on mark, start on start, or where the
 * speeds of both fit best (least mean square difference over all shifts, on a grid of a quarter second).
 */
export function alignedBy(first: Recording, other: Recording, how: Alignment): number {
	if (how.by === 'mark') return how.hereS - how.thereS;
	const offset = (first.timeS[0] ?? 0) - (other.timeS[0] ?? 0);
	if (how.by === 'start') return offset;
	const a = onGrid(first);
	const b = onGrid(other);
	const least = Math.max(4, Math.floor(LEAST_OVERLAP * Math.min(a.length, b.length)));
	let best = { shift: 0, error: Infinity };
	for (let shift = least - b.length; shift <= a.length - least; shift++) {
		let [sum, count] = [0, 0];
		for (let i = Math.max(0, shift); i < Math.min(a.length, b.length + shift); i++) {
			const difference = (a[i] ?? NaN) - (b[i - shift] ?? NaN);
			if (difference !== difference) continue;
			sum += difference * difference;
			count += 1;
		}
		if (count < least) continue;
		const error = sum / count;
		if (error < best.error) best = { shift, error };
	}
	return offset + best.shift * STEP_S;
}

/** Speed of the vehicle on an even grid. */
function onGrid(recording: Recording): Float64Array {
	const { timeS, reference } = wheelTable(recording);
	const start = timeS[0] ?? 0;
	const rows = Math.max(1, Math.floor(((timeS.at(-1) ?? 0) - start) / STEP_S) + 1);
	const grid = new Float64Array(rows).fill(NaN);
	for (let i = 0; i < timeS.length; i++) {
		const at = Math.round(((timeS[i] ?? 0) - start) / STEP_S);
		if (at < rows) grid[at] = reference[i] ?? NaN;
	}
	return grid;
}
