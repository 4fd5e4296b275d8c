/** Text as it can be printed: the shipped fonts come in two pieces, and a few signs of the trade are in neither. */

type Ranges = readonly (readonly [from: number, to: number])[];
/** What the first piece of the font holds, as its maker describes it: Latin letters, punctuation, a few signs. */
const FIRST: Ranges = [
	[0x0, 0xff],
	[0x131, 0x131],
	[0x152, 0x153],
	[0x2bb, 0x2bc],
	[0x2c6, 0x2c6],
	[0x2da, 0x2da],
	[0x2dc, 0x2dc],
	[0x2000, 0x206f],
	[0x20ac, 0x20ac],
	[0x2122, 0x2122],
	[0x2191, 0x2191],
	[0x2193, 0x2193],
	[0x2212, 0x2212],
	[0x2215, 0x2215]
];
/** What the second piece holds: letters of further languages that are written in Latin. */
const SECOND: Ranges = [
	[0x100, 0x2ba],
	[0x2bd, 0x2c5],
	[0x2c7, 0x2cc],
	[0x2ce, 0x2d7],
	[0x2dd, 0x2ff],
	[0x1d00, 0x1dbf],
	[0x1e00, 0x1e9f],
	[0x1ef2, 0x1eff],
	[0x2020, 0x2020],
	[0x20a0, 0x20ab],
	[0x20ad, 0x20c0],
	[0x2113, 0x2113],
	[0x2c60, 0x2c7f],
	[0xa720, 0xa7ff]
];
const has = (ranges: Ranges, sign: string): boolean => {
	const point = sign.codePointAt(0) ?? 0;
	return ranges.some(([from, to]) => point >= from && point <= to);
};

const INSTEAD: Record<string, string> = {
	'→': 'to',
	// The ohm sign is the same letter once it is normalised.
	Ω: 'ohm',
	'≥': 'at least',
	'≤': 'at most',
	'≈': 'about',
	'√': 'root',
	'−': '-'
};

export interface Run {
	text: string;
	/** Which piece of the font. */
	font: 'Next' | 'NextMore';
}

/** Splits a text by the piece of the font that has its letters; what neither has becomes a word, or a question mark. */
export function runsOf(text: string): Run[] {
	const runs: Run[] = [];
	for (const sign of text.normalize('NFC')) {
		const instead = INSTEAD[sign];
		const known = has(FIRST, sign) || has(SECOND, sign);
		const written = instead ?? (known ? sign : '?');
		const font = instead === undefined && has(SECOND, sign) && !has(FIRST, sign) ? 'NextMore' : 'Next';
		const last = runs.at(-1);
		if (last?.font === font) last.text += written;
		else runs.push({ text: written, font });
	}
	return runs;
}
