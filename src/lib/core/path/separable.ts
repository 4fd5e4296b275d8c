import type { PathModel } from './model';

/** Two faults that no test tells apart: the likeliest outcome of every sign is about as likely under both. */
export interface Inseparable {
	a: number;
	b: number;
	/** The largest difference that any sign makes between them (total variation, 0–1). */
	most: number;
	/** Whether one repair cures both: then it does not matter. */
	sameRepair: boolean;
}

/**
 * Faults of one place that no sign tells apart.
 *
 * @param signs keys of the signs to go through
 * @param least difference from which two count as told apart
 */
export function inseparable(
	model: PathModel,
	signs: readonly string[],
	place: readonly number[],
	least = 0.3
): Inseparable[] {
	const found: Inseparable[] = [];
	for (const [i, a] of place.entries()) {
		for (const b of place.slice(i + 1)) {
			let most = 0;
			for (const key of signs) {
				const table = model.sign(key);
				if (!table) continue;
				const width = table.outcomes.length;
				const at = (fault: number, o: number) => table.chance[(model.rows.length + fault) * width + o] ?? 0;
				let apart = 0;
				for (let o = 0; o < width; o++) apart += Math.abs(at(a, o) - at(b, o)) / 2;
				most = Math.max(most, apart);
				if (most >= least) break;
			}
			if (most >= least) continue;
			const cures = model.faults[b]?.curedBy ?? [];
			found.push({
				a,
				b,
				most,
				sameRepair: (model.faults[a]?.curedBy ?? []).some((one) => cures.includes(one))
			});
		}
	}
	return found;
}
