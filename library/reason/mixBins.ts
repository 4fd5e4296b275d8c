import type { ReasonModel } from './placed';

/** A fault whatever its bin: its rows by their shares. */
export function mixBins(
	faultCount: number,
	rows: ReasonModel['rows'],
	width: number,
	chance: Float64Array,
	acts: Uint8Array,
	sound: Float64Array
): void {
	const base = rows.length;
	for (const [row, { fault, share }] of rows.entries()) {
		const to = base + fault;
		if (acts[row]) acts[to] = 1;
		for (let o = 0; o < width; o++)
			chance[to * width + o] = (chance[to * width + o] ?? 0) + share * (chance[row * width + o] ?? 0);
	}
	for (let fault = 0; fault < faultCount; fault++)
		if (!acts[base + fault])
			for (let o = 0; o < width; o++) chance[(base + fault) * width + o] = sound[o] ?? 0;
}
