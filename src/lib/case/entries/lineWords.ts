/** Words that the lines of several kinds of entries are made of. */

/** 95 → `1 min 35 s`. */
export const spanWords = (seconds: number): string =>
	seconds < 60 ? `${Math.round(seconds)} s` : `${Math.floor(seconds / 60)} min ${Math.round(seconds % 60)} s`;

export const count = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;

const MOST_LISTED = 8;
/** Each once, and how many more there are. */
export function listed(texts: string[]): string {
	const once = [...new Set(texts)];
	const more = once.length - MOST_LISTED;
	return once.slice(0, MOST_LISTED).join(', ') + (more > 0 ? ` and ${more} more` : '');
}
