/** `rear-left` → "rear left", as people say it. */
export const positionWords = (position: string): string =>
	position.replace('axle', 'axle ').replace('-', ' ');

/** How a sentence begins. */
export const upperFirst = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
/** How a name stands within a sentence. */
export const lowerFirst = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);
/** Several in a sentence: "a, b and c". */
export const namesOf = (list: readonly string[]): string =>
	list.length < 2 ? (list[0] ?? '') : `${list.slice(0, -1).join(', ')} and ${list.at(-1)}`;

/** A number as short as it can be told: a typed one as it was typed, one that was converted without its tail. */
export const short = (value: number, digits = 1): string => String(Number(value.toFixed(digits)));
