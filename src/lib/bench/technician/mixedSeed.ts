/**
 * A seed from a counting number whose neighbours are far apart (the finaliser of MurmurHash3): generators that are seeded by
 * neighbouring numbers begin alike.
 */
export function mixedSeed(count: number): number {
	let h = count | 0;
	h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
	h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
	return (h ^ (h >>> 16)) >>> 0;
}
