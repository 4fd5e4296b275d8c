/** Money in whole smallest units of its currency (cents, yen): sums of such numbers are exact. */

const MOST = 1_000_000_000_00;

/** Digits behind the point that a currency is counted in, by ISO 4217. @param currency three letters */
export const digitsOf = (currency: string): number =>
	new Intl.NumberFormat('en', { style: 'currency', currency }).resolvedOptions().maximumFractionDigits ?? 2;

/** "€ 1,234.50" in the reader's way of writing. @param amount in smallest units */
export function moneyWords(amount: number, currency: string, locale = 'en-GB'): string {
	const digits = digitsOf(currency);
	return new Intl.NumberFormat(locale, { style: 'currency', currency }).format(amount / 10 ** digits);
}

/** As it is typed into a field: "1234.50". @param amount in smallest units */
export const moneyTyped = (amount: number, currency: string): string =>
	(amount / 10 ** digitsOf(currency)).toFixed(digitsOf(currency));

const GROUPED = /^\d{1,3}(?:([ .,'’\u00a0\u202f])\d{3})(?:\1\d{3})*$/;

/**
 * What somebody typed as an amount: "1,234.50", "1.234,50", "1234.5", "12,-"; "1.234" is a thousand and some. Null where it is
 * none, or has more digits than its currency.
 *
 * @returns smallest units
 */
export function moneyRead(text: string, currency: string): number | null {
	const digits = digitsOf(currency);
	const typed = text.trim().replace(/[,.]\s*[-–]+$/, '');
	// Three digits behind a sign are thousands, but where the currency itself has three.
	const split = (digits === 3 ? /^(.*?)(?:[.,](\d+))?$/ : /^(.*?)(?:[.,](\d{1,2}|\d{4,}))?$/).exec(typed);
	if (!split) return null;
	const [, whole = '', part = ''] = split;
	if (part.length > digits) return null;
	if (!/^\d+$/.test(whole) && !GROUPED.test(whole)) return null;
	const units = Number(whole.replace(/\D/g, '')) * 10 ** digits + Number(part.padEnd(digits, '0') || 0);
	return units <= MOST ? units : null;
}
