/** A probability in words: never more certain than anybody is. */
export function percentWords(p: number): string {
	if (p > 0.99) return 'over 99 %';
	if (p > 0 && p < 0.01) return 'under 1 %';
	return `${(p * 100).toFixed(p < 0.1 ? 1 : 0)} %`;
}
