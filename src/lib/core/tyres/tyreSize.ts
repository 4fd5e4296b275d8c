import { fail, ok, type Result } from '../result';

/** A tyre size as it stands on the sidewall, taken apart. */
export interface TyreSize {
	/** Spelled in one way: `205/55R16`, `LT245/75R16`, `31x10.5R15`. */
	text: string;
	/** Nominal overall diameter of the new, unloaded tyre. */
	diameterMm: number;
	widthMm: number;
	/** Height of the sidewall as a share of the width, in per cent; null where the size gives the diameter itself. */
	aspectPercent: number | null;
	rimInch: number;
	use: 'passenger' | 'light-truck' | 'commercial' | 'temporary' | 'trailer';
	/** Load index, or the single and the dual one; null where not written. */
	loadIndex: string | null;
	/** Letter of the highest speed; null where not written. */
	speedRating: string | null;
	/** The sidewall gives no height: the usual 82 % is taken. */
	aspectAssumed: boolean;
}

const MM_PER_INCH = 25.4;
/** Of sizes without a height, as 185R14: the full-section tyre of ETRTO. */
const FULL_ASPECT = 82;

const RATING = String.raw`(?:\s*\(?(\d{2,3}(?:/\d{2,3})?)\s*([A-Z]\d?)\)?)?`;
/** `P205/55R16 91V`, `LT245/75 R 16`, `205/75R16C 110/108R`, `T125/70D16`, `205/55ZR17`, `185R14C`. */
const METRIC = new RegExp(
	String.raw`^(P|LT|T|ST)?\s*(\d{3})(?:\s*/\s*(\d{2,3}))?\s*Z?\s*([RDB]|-)F?\s*(\d{2}(?:\.5)?)\s*(C|LT)?${RATING}(?:\s*(XL|RF|M\+S|C))*$`
);
/** `31x10.50R15LT`, `33 X 12.5 - 15`. */
const FLOTATION = new RegExp(
	String.raw`^(\d{2}(?:\.\d{1,2})?)\s*[X×]\s*(\d{1,2}(?:\.\d{1,2})?)\s*(?:[RDB]|-)\s*(\d{2}(?:\.5)?)\s*(LT)?${RATING}$`
);

const USE = { P: 'passenger', LT: 'light-truck', T: 'temporary', ST: 'trailer', C: 'commercial' } as const;

/** Sizes that no road vehicle has are a slip of the pen. */
const SENSIBLE = {
	widthMm: [100, 455],
	aspect: [20, 100],
	rimInch: [8, 30],
	diameterInch: [16, 54]
} as const;
const within = (value: number, [low, high]: readonly [number, number]) => value >= low && value <= high;

/**
 * Reads a tyre size: metric with or without P, LT, T or ST before it, commercial with C behind it, flotation in inches.
 *
 * Diameter of a metric size = rim · 25.4 + 2 · width · aspect / 100, in mm (ISO 4000-1); of a flotation size the first number.
 *
 * @returns the size, or what was expected
 */
export function parseTyreSize(input: string): Result<TyreSize> {
	const text = input.trim().toUpperCase().replace(/,/g, '.').replace(/\s+/g, ' ');
	const metric = METRIC.exec(text);
	if (metric) return metricSize(metric);
	const flotation = FLOTATION.exec(text);
	if (flotation) return flotationSize(flotation);
	return fail('expected a tyre size such as 205/55R16, LT245/75R16, 205/75R16C, T125/70D16 or 31x10.50R15');
}

function metricSize(match: RegExpExecArray): Result<TyreSize> {
	const [, before, width, aspect, build, rim, after, loadIndex, speedRating] = match;
	const [widthMm, rimInch] = [Number(width), Number(rim)];
	const aspectPercent = aspect === undefined ? FULL_ASPECT : Number(aspect);
	if (!within(widthMm, SENSIBLE.widthMm)) return fail(`no tyre is ${widthMm} mm wide: expected 100 to 455`);
	if (!within(aspectPercent, SENSIBLE.aspect))
		return fail(`no sidewall is ${aspectPercent} % of its width: expected 20 to 100`);
	if (!within(rimInch, SENSIBLE.rimInch)) return fail(`no rim is ${rimInch} inches: expected 8 to 30`);
	const kind = (before ?? after ?? 'P') as keyof typeof USE;
	const letter = build === '-' ? 'D' : (build ?? 'R');
	return ok({
		text: `${before === 'P' || before === undefined ? '' : before}${widthMm}${aspect === undefined ? '' : `/${aspectPercent}`}${letter}${rimInch}${after ?? ''}`,
		diameterMm: rimInch * MM_PER_INCH + (2 * widthMm * aspectPercent) / 100,
		widthMm,
		aspectPercent,
		rimInch,
		use: USE[kind],
		loadIndex: loadIndex ?? null,
		speedRating: speedRating ?? null,
		aspectAssumed: aspect === undefined
	});
}

function flotationSize(match: RegExpExecArray): Result<TyreSize> {
	const [, diameter, width, rim, , loadIndex, speedRating] = match;
	const [diameterInch, widthInch, rimInch] = [Number(diameter), Number(width), Number(rim)];
	if (!within(diameterInch, SENSIBLE.diameterInch) || diameterInch <= rimInch + 2) {
		return fail(`a tyre of ${diameterInch} inches does not go on a rim of ${rimInch}`);
	}
	return ok({
		text: `${diameterInch}x${widthInch}R${rimInch}`,
		diameterMm: diameterInch * MM_PER_INCH,
		widthMm: widthInch * MM_PER_INCH,
		aspectPercent: null,
		rimInch,
		use: 'light-truck',
		loadIndex: loadIndex ?? null,
		speedRating: speedRating ?? null,
		aspectAssumed: false
	});
}
