/** What is known of a case as far as it decides how much another one tells about it. */
export interface CaseTraits {
	/** Type of the vehicle. */
	typeId: string;
	/** Groups of its codes: circuit, supply, network … */
	groups: readonly string[];
	/** Odometer; null where it was not read. */
	km: number | null;
	/** Month in which it came, 0–11. */
	month: number;
}

/** What stays of an outcome's voice where one trait is as far off as it can be; every trait is 1 where it is the same. */
const OTHER_TYPE = 0.5;
const OTHER_CODES = 0.25;
const OTHER_KM = 0.5;
const OTHER_SEASON = 0.6;
/** Odometers that differ by this factor have lost two fifths of what can be lost. */
const KM_FACTOR = 2;
const MONTHS = 12;

/**
 * How much the outcome of one case says about another, 0–1: the product of how alike they are by vehicle, by codes, by
 * odometer (a bell over the logarithm of their ratio) and by the time of the year (a cosine over the months between them).
 * Nothing is shut out by being unlike in age or season: those weaken what it says and no more.
 */
export function likeness(one: CaseTraits, other: CaseTraits): number {
	const type = one.typeId === other.typeId ? 1 : OTHER_TYPE;
	const codes = one.groups.some((group) => other.groups.includes(group)) ? 1 : OTHER_CODES;
	return type * codes * kmLikeness(one.km, other.km) * seasonLikeness(one.month, other.month);
}

const between = (floor: number, share: number) => floor + (1 - floor) * share;

/** Of odometers above zero; one that is not known is neither like nor unlike. */
export function kmLikeness(one: number | null, other: number | null): number {
	if (one === null || other === null || one <= 0 || other <= 0) return between(OTHER_KM, 0.5);
	const apart = Math.log(one / other) / Math.log(KM_FACTOR);
	return between(OTHER_KM, Math.exp(-(apart * apart) / 2));
}

/** Of months 0–11, round the turn of the year. */
export const seasonLikeness = (one: number, other: number): number =>
	between(OTHER_SEASON, (1 + Math.cos((2 * Math.PI * (one - other)) / MONTHS)) / 2);

/** As near in odometer, or in the time of the year, as people would call alike. */
export const isLikeKm = (one: number | null, other: number | null): boolean =>
	one !== null && other !== null && one > 0 && other > 0 && Math.abs(Math.log2(one / other)) <= 0.6;
export const isLikeSeason = (one: number, other: number): boolean => {
	const apart = Math.abs(one - other);
	return Math.min(apart, MONTHS - apart) <= 2;
};
