/** Codes in a maker's own notation: five or six hex digits, a number, or words. No standard says how they are read. */

/** Longer is no name of a code. */
export const LONGEST_OWN = 120;

/**
 * A maker's own notation in the one form in which it is kept: single blanks, and a number or hex digits in capitals, so that
 * the same code is the same text.
 */
export function ownNotation(text: string): string {
	const bare = text.replace(/[\p{Cc}\s]+/gu, ' ').trim();
	return /^[0-9A-F.-]+$/i.test(bare) ? bare.toUpperCase() : bare;
}

const NUMBER_FIRST =
	/^\s*(?:\d{1,2}[.)]\s+|[*•]\s*)?((?=[A-F]*\d)[0-9A-F]{5,6}(?:-\d{2,3})?)(?:(?=\s*$)|\s*[-–:|;]\s*(?=\p{L})|\s+(?=\p{L}))/iu;
/** What makes a number the reading of an instrument. */
const UNIT_FIRST = /^(?:km|mi|miles|mV|V|mA|A|rpm|bar|kPa|psi|ms|s|h|Hz|kHz|g|Ohm)\b/i;

/**
 * A number at the head of a line that stands where codes stand: five or six hex digits, or as many decimals, with words after.
 *
 * @param alone it may stand alone on its line too
 * @returns where it stands in the line; null where the line does not begin with one
 */
export function ownNumberIn(line: string, alone: boolean): { from: number; to: number } | null {
	const match = NUMBER_FIRST.exec(line);
	const number = match?.[1];
	if (!match || number === undefined) return null;
	const rest = line.slice(match[0].length).trim();
	if ((rest === '' && !alone) || UNIT_FIRST.test(rest)) return null;
	const from = line.indexOf(number);
	return { from, to: from + number.length };
}

/** The code of ISO 14229 whose three bytes look the same, for those who meant it: `403514` could be C0035-14. */
export const looksLikeBytes = (written: string): boolean => /^[0-9A-F]{6}$/.test(written);
