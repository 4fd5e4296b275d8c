import { distance } from 'fastest-levenshtein';

/** Finding by names, over an index that knows words by three signs in a row. */

const TRIGRAM = 3;
const MOST_WORDS = 6;
/** Signs of a word that may be wrong: none of a short one. */
const slips = (word: string): number => (word.length < 5 ? 0 : word.length < 8 ? 1 : 2);
/** What one slip, or two signs that changed places, can spoil: so many of a word's threes in a row. */
const SPOILED = 4;

const APART = /[^\p{L}\p{N}]+/u;
const LONG_WORD = 12;
const TOLD_BY = 8;

export const plain = (text: string): string => text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();
export const signsOf = (text: string): string => plain(text).replace(/[^\p{L}\p{N}]/gu, '');
const wordsOf = (text: string): string[] => plain(text).match(/[\p{L}\p{N}]+/gu) ?? [];

/**
 * What the index is asked for a word: of a long one, as a number of seventeen signs, its end. How such begin is alike on
 * every second vehicle, and the index would go through all of them.
 */
const indexed = (word: string): string => (word.length > LONG_WORD ? word.slice(-TOLD_BY) : word);

const term = (text: string): string => `"${text.replaceAll('"', '""')}"`;

/** What the index is asked for, in turn: all signs together, as of a plate; then all words that have three signs or more. */
function exactQueries(text: string): string[] {
	const words = wordsOf(text).slice(0, MOST_WORDS);
	const together = signsOf(text);
	const long = words.filter((word) => word.length >= TRIGRAM);
	return [
		...(words.length > 1 && together.length >= TRIGRAM ? [term(indexed(together))] : []),
		...(long.length > 0 ? [long.map((word) => term(indexed(word))).join(' AND ')] : [])
	];
}

/** Whether names have all that was typed: short words as the beginning of one, others anywhere, or all signs together. */
export function isNamed(names: string, text: string): boolean {
	const has = names.split(APART);
	const together = signsOf(text);
	if (together.length >= TRIGRAM && names.includes(together)) return true;
	return wordsOf(text).every((word) =>
		word.length < TRIGRAM ? has.some((one) => one.startsWith(word)) : names.includes(word)
	);
}

/** Each word but for a slip: of its threes, all but some in a row. Null where no word is long enough to be told by the rest. */
function slippedQuery(text: string): string | null {
	const parts = wordsOf(text)
		.slice(0, MOST_WORDS)
		.filter((word) => word.length >= TRIGRAM)
		.map((whole) => {
			const word = indexed(whole);
			if (slips(word) === 0) return term(word);
			const threes = Array.from({ length: word.length - TRIGRAM + 1 }, (_, at) =>
				word.slice(at, at + TRIGRAM)
			);
			const spoiled = Math.min(SPOILED, threes.length - 1);
			const kept = Array.from({ length: threes.length - spoiled + 1 }, (_, from) =>
				threes.filter((_, at) => at < from || at >= from + spoiled)
			);
			return `(${kept.map((some) => `(${some.map(term).join(' AND ')})`).join(' OR ')})`;
		});
	return parts.length > 0 ? parts.join(' AND ') : null;
}

/** How many slips names are away from what was typed, all its words together; null where one of them is not meant by any. */
function slipsFrom(names: string, text: string): number | null {
	const has = names.split(APART);
	const off = wordsOf(text).map((word) => {
		if (word.length < TRIGRAM) return has.some((one) => one.startsWith(word)) ? 0 : Infinity;
		if (names.includes(word)) return 0;
		const least = Math.min(...has.map((one) => distance(word, one)));
		// Two signs that changed places count as one slip.
		return least <= slips(word) + 1 ? least : Infinity;
	});
	const sum = off.reduce((all, each) => all + each, 0);
	return sum < Infinity ? sum : null;
}

/** The closest to what was typed first; what cannot be meant is left out. */
const closestTo = <T extends { names: string }>(text: string, near: readonly T[]): T[] =>
	near
		.flatMap((one) => {
			const off = slipsFrom(one.names, text);
			return off === null ? [] : [{ one, off }];
		})
		.sort((a, b) => a.off - b.off)
		.map(({ one }) => one);

/** Of those that could be meant, the newest are looked at more closely. */
const MOST_CLOSE = 400;

/**
 * Those whose names have all that was typed; where there are none, those that are meant with a slip in a longer word.
 *
 * @param matching what of the index answers to a query, the newest first, at most so many
 */
export async function byNames<T extends { names: string }>(
	text: string,
	limit: number,
	matching: (match: string, limit: number) => Promise<T[]>
): Promise<T[]> {
	const isWhole = wordsOf(text).every((word) => word.length >= TRIGRAM && word.length <= LONG_WORD);
	for (const match of exactQueries(text)) {
		const near = await matching(match, isWhole ? limit : MOST_CLOSE);
		const found = isWhole ? near : near.filter(({ names }) => isNamed(names, text));
		if (found.length > 0) return found.slice(0, limit);
	}
	const slipped = slippedQuery(text);
	return slipped === null ? [] : closestTo(text, await matching(slipped, MOST_CLOSE)).slice(0, limit);
}
