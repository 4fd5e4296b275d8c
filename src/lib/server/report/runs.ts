/** Text as it can be printed: the shipped fonts come in two pieces, and a few signs of the trade are in neither. */

/** What the first piece of the font holds, as its maker describes it: Latin letters, punctuation, a few signs. */
const FIRST =
	/^[\u0000-\u00ff\u0131\u0152\u0153\u02bb\u02bc\u02c6\u02da\u02dc\u0304\u0308\u0329\u2000-\u206f\u20ac\u2122\u2191\u2193\u2212\u2215]$/;
const SECOND =
	/^[\u0100-\u02ba\u02bd-\u02c5\u02c7-\u02cc\u02ce-\u02d7\u02dd-\u02ff\u1d00-\u1dbf\u1e00-\u1e9f\u1ef2-\u1eff\u2020\u20a0-\u20ab\u20ad-\u20c0\u2113\u2c60-\u2c7f\ua720-\ua7ff]$/;
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
		const known = FIRST.test(sign) || SECOND.test(sign);
		const written = instead ?? (known ? sign : '?');
		const font = instead === undefined && SECOND.test(sign) ? 'NextMore' : 'Next';
		const last = runs.at(-1);
		if (last?.font === font) last.text += written;
		else runs.push({ text: written, font });
	}
	return runs;
}
