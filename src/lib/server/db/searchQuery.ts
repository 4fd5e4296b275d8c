const MOST_WORDS = 8;
const SHORTEST_PREFIX = 2;

/**
 * Words as people type them → queries of the full-text index, to be tried in order: all words, then any of them. The last
 * word counts as begun, not finished. Signs that mean something to the index cannot get through.
 */
export function searchQuery(text: string): string[] {
	const words = (text.normalize('NFKC').match(/[\p{L}\p{N}]+/gu) ?? []).slice(0, MOST_WORDS);
	const terms = words.map((word, i) => {
		const begun = i === words.length - 1 && word.length >= SHORTEST_PREFIX;
		return `"${word}"${begun ? '*' : ''}`;
	});
	if (terms.length === 0) return [];
	return terms.length === 1 ? terms : [terms.join(' '), terms.join(' OR ')];
}

/** The first line that has one of the words which the title has not; null where the title has them all. */
export function lineWith(text: string, title: string, lines: string): string | null {
	const words = (text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []).filter(
		(word) => word.length >= SHORTEST_PREFIX
	);
	const missing = words.filter((word) => !title.toLowerCase().includes(word));
	return lines.split('\n').find((line) => missing.some((word) => line.toLowerCase().includes(word))) ?? null;
}
