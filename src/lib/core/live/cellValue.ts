/** What stands in a cell of a recording, where it is more than a plain number. */

/** `12:34:56.789`, also without hours, also after a date. */
const CLOCK = /^(?:(\d+):)?(\d{1,2}):(\d{1,2}(?:[.,]\d+)?)$/;
const DATE = /^(\d{4})-(\d{2})-(\d{2})[T ](.+?)(?:Z|[+-]\d{2}:?\d{2})?$/;
const NOTHING = /^(|-+|nan|null|n\/a|na|invalid|error|--\.-+)$/i;
const ON = /^(on|true|yes|pressed|active)$/i;
const OFF = /^(off|false|no|released|inactive)$/i;
const DAY_S = 86_400;

/** @returns NaN for what is no number, on/off as 1 and 0 */
export function cellNumber(cell: string, decimalComma: boolean): number {
	const text = cell.trim();
	if (NOTHING.test(text)) return NaN;
	if (ON.test(text)) return 1;
	if (OFF.test(text)) return 0;
	const quotedComma = /^[+-]?\d+,\d+$/.test(text);
	return Number(decimalComma || quotedComma ? text.replace(',', '.') : text);
}

/** @returns seconds: as written, of the day, or since 1970; NaN for what is no time */
export function cellTime(cell: string, decimalComma: boolean): number {
	const plain = cellNumber(cell, decimalComma);
	if (!Number.isNaN(plain)) return plain;
	const text = cell.trim();
	const dated = DATE.exec(text);
	if (dated) {
		const [, year, month, day, clock = ''] = dated;
		return daysSince1970(Number(year), Number(month), Number(day)) * DAY_S + clockS(clock);
	}
	return clockS(text);
}

function clockS(text: string): number {
	const clock = CLOCK.exec(text);
	if (!clock) return NaN;
	const [, hours = '0', minutes = '0', seconds = '0'] = clock;
	return Number(hours) * 3600 + Number(minutes) * 60 + Number(seconds.replace(',', '.'));
}

/** Days of the Gregorian calendar, years counted from March so that the leap day is the last. */
function daysSince1970(year: number, month: number, day: number): number {
	const y = month <= 2 ? year - 1 : year;
	const m = (month + 9) % 12;
	const days = 365 * y + Math.floor(y / 4) - Math.floor(y / 100) + Math.floor(y / 400);
	return days + Math.floor((153 * m + 2) / 5) + day - 719_469;
}

/** Factor to seconds of a time without a unit: a number so large can only be milliseconds, micro- or nanoseconds since 1970. */
export function epochFactor(first: number): number {
	if (first > 1e17) return 1e-9;
	if (first > 1e14) return 1e-6;
	if (first > 1e11) return 1e-3;
	return 1;
}
