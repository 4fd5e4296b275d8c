/** A hand was put on a place, and moved it for a while. */
export interface Wiggled {
	atS: number;
	label: string;
}

/** How long after a hand is put on a place a change still belongs to it, where no next place follows sooner. */
const HOLDS_S = 8;

/**
 * Which place was being moved when the signal changed: each event belongs to the latest mark before it, as long as that hand
 * may still have been there.
 *
 * @param events beginnings of what was found, in seconds
 * @returns events a place, most first; places without one are left out
 */
export function wiggledPlaces(
	marks: readonly Wiggled[],
	events: readonly number[]
): { label: string; count: number; firstS: number }[] {
	const found = new Map<string, { count: number; firstS: number }>();
	for (const eventS of [...events].sort((a, b) => a - b)) {
		const mark = marks.filter(({ atS }) => atS <= eventS && eventS - atS <= HOLDS_S).at(-1);
		if (!mark) continue;
		const known = found.get(mark.label);
		if (known) known.count += 1;
		else found.set(mark.label, { count: 1, firstS: eventS });
	}
	return [...found].map(([label, one]) => ({ label, ...one })).sort((a, b) => b.count - a.count);
}
