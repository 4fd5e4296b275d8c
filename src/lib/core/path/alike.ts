/** What can be the same on two cases, and how much it says where it is: a failure of one code more than its group, a reading more than a lamp. */
export const TRAIT_WEIGHTS = {
	/** A code with its failure type. */
	failure: 3,
	code: 2,
	/** Circuit, supply, network … */
	group: 0.7,
	/** A measurement that came out in the same way. */
	reading: 2,
	/** What was seen. */
	seen: 2,
	/** What is felt. */
	symptom: 1,
	/** When it shows. */
	circumstance: 0.7,
	lamp: 0.3,
	type: 1.5,
	maker: 0.4
} as const;
export type TraitKind = keyof typeof TRAIT_WEIGHTS;

/** One thing that is known of a case. */
export interface Trait {
	kind: TraitKind;
	/** What it is: equal where it is the same. */
	value: string;
}

export interface Alike<T> {
	one: T;
	/** Share of what is known of the case here that is the same there, 0–1, by weight. */
	share: number;
	/** What is the same, what says most first. */
	same: Trait[];
}

const keyOf = ({ kind, value }: Trait): string => `${kind}:${value}`;

/**
 * Cases in the order of how much of this one they share. What nearly all of them have tells them apart little: each trait counts by
 * the weight of its kind times 1 + ln((n + 1) / (k + 1)), where k of the n cases have it.
 *
 * @param here what is known of the case that is asked about
 * @param others what is known of each
 * @returns those that share anything, the most alike first; among equals their order stays
 */
export function mostAlike<T>(
	here: readonly Trait[],
	others: readonly { one: T; traits: readonly Trait[] }[]
): Alike<T>[] {
	const sets = others.map(({ one, traits }) => ({ one, has: new Set(traits.map(keyOf)) }));
	const own = new Map(here.map((trait) => [keyOf(trait), trait]));
	const weights = new Map(
		[...own].map(([key, { kind }]) => {
			const having = sets.filter(({ has }) => has.has(key)).length;
			return [key, TRAIT_WEIGHTS[kind] * (1 + Math.log((sets.length + 1) / (having + 1)))];
		})
	);
	const weightOf = (key: string) => weights.get(key) ?? 0;
	const all = [...own.keys()].reduce((sum, key) => sum + weightOf(key), 0);
	return sets
		.map(({ one, has }) => {
			const same = [...own.keys()].filter((key) => has.has(key)).sort((a, b) => weightOf(b) - weightOf(a));
			return {
				one,
				share: all === 0 ? 0 : same.reduce((sum, key) => sum + weightOf(key), 0) / all,
				same: same.flatMap((key) => own.get(key) ?? [])
			};
		})
		.filter(({ share }) => share > 0)
		.sort((a, b) => b.share - a.share);
}
