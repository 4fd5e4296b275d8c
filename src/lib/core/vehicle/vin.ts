import { fail, ok, type Result } from '../result';

/**
 * Vehicle identification number with its check digit (ISO 3779, check digit as in 49 CFR 565.15): each letter has a
 * value, each place a weight; the weighted sum modulo 11 stands at place 9, ten written as X. The letters I, O and Q are
 * never used.
 */
const LETTER_VALUES: Record<string, number> = {
	...Object.fromEntries([...'ABCDEFGH'].map((letter, i) => [letter, i + 1])),
	...Object.fromEntries([...'JKLMN'].map((letter, i) => [letter, i + 1])),
	P: 7,
	R: 9,
	...Object.fromEntries([...'STUVWXYZ'].map((letter, i) => [letter, i + 2]))
};
const WEIGHTS = [8, 7, 6, 5, 4, 3, 2, 10, 0, 9, 8, 7, 6, 5, 4, 3, 2];

/** The check digit that belongs at place 9 of a 17-character number. Place 9 itself does not count. */
export function vinCheckDigit(vin: string): string {
	const sum = [...vin].reduce((total, sign, place) => {
		const value = sign >= '0' && sign <= '9' ? Number(sign) : (LETTER_VALUES[sign] ?? 0);
		return total + value * (WEIGHTS[place] ?? 0);
	}, 0);
	const remainder = sum % 11;
	return remainder === 10 ? 'X' : String(remainder);
}

export interface CheckedVin {
	vin: string;
	/** False where place 9 does not fit: wrong copying, or a maker outside the lands that use a check digit. */
	checkDigitFits: boolean;
	expectedCheckDigit: string;
}

/** Reads a typed number: upper case, spaces and dashes dropped. The error names the first thing that is wrong. */
export function checkVin(text: string): Result<CheckedVin> {
	const vin = text.toUpperCase().replace(/[\s-]/g, '');
	const wrong = /[^A-HJ-NPR-Z0-9]/.exec(vin);
	if (wrong) {
		const hint = 'IOQ'.includes(wrong[0]) ? ' (I, O and Q are never used: read 1 or 0)' : '';
		return fail(`Place ${wrong.index + 1} is "${wrong[0]}", which no such number holds${hint}.`);
	}
	if (vin.length !== 17) return fail(`It has ${vin.length} signs; 17 are expected.`);
	const expectedCheckDigit = vinCheckDigit(vin);
	return ok({ vin, expectedCheckDigit, checkDigitFits: vin[8] === expectedCheckDigit });
}

const LENGTH = 17;

/**
 * The number in what a printed code says: alone, after the I that some makers print before it, or among other things. Where several
 * would do, one whose check digit fits. Null where there is none.
 */
export function vinIn(text: string): CheckedVin | null {
	const plain = text.toUpperCase();
	const found = [...plain.matchAll(/(?=([A-HJ-NPR-Z0-9]{17}))/g)].flatMap(({ 1: signs = '', index }) => {
		const checked = checkVin(signs);
		// Part of a longer run of signs is no number, but for one sign before it.
		const whole =
			/^[^A-Z0-9]?$/.test(plain[index + LENGTH] ?? '') && !/[A-Z0-9]{2}$/.test(plain.slice(0, index));
		return checked.ok && whole && /\d/.test(signs) ? [checked.value] : [];
	});
	return found.find(({ checkDigitFits }) => checkDigitFits) ?? found[0] ?? null;
}

/** Regions by the first sign, ISO 3780. */
const REGIONS: readonly (readonly [signs: string, region: string])[] = [
	['ABCDEFGH', 'Africa'],
	['JKLMNPR', 'Asia'],
	['STUVWXYZ', 'Europe'],
	['12345', 'North America'],
	['67', 'Oceania'],
	['89', 'South America']
];
/** Where place 9 has to be a check digit: North America by law, and China (L). */
const WITH_CHECK_DIGIT = '12345L';
/** The mark of the model year at place 10; it comes round every 30 years from 1980 on. I, O, Q, U, Z and 0 are not used. */
const YEAR_MARKS = 'ABCDEFGHJKLMNPRSTVWXY123456789';
const FIRST_YEAR = 1980;

export interface VinSays extends CheckedVin {
	region: string;
	checkDigit: 'fits' | 'wrong' | 'not-used';
	/** Model years that place 10 can mean, up to next year; empty where it is no such mark. Outside North America makers may use it for something else. */
	years: number[];
}

/** What the places of a number say that ISO 3779 and ISO 3780 give a meaning, and nothing beyond. */
export function vinSays(text: string, thisYear: number): Result<VinSays> {
	const checked = checkVin(text);
	if (!checked.ok) return checked;
	const { vin, checkDigitFits } = checked.value;
	const [first = ''] = vin;
	const mark = YEAR_MARKS.indexOf(vin[9] ?? '');
	const years = [0, 1, 2]
		.map((round) => FIRST_YEAR + mark + round * YEAR_MARKS.length)
		.filter((year) => mark >= 0 && year <= thisYear + 1);
	return ok({
		...checked.value,
		region: REGIONS.find(([signs]) => signs.includes(first))?.[1] ?? 'a region that is not given',
		checkDigit: !WITH_CHECK_DIGIT.includes(first) ? 'not-used' : checkDigitFits ? 'fits' : 'wrong',
		years
	});
}
