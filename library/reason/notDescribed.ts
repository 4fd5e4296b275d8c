import type { CodeDefinition } from '../codePack';
import type { Fault } from '../faults';
import priorsFile from './priors.json' with { type: 'json' };

/**
 * The world is larger than the library: at every wheel, at every module and of the vehicle as a whole, a hypothesis that stands for
 * whatever is not described. It shows every sign as the described faults of its place do on the whole, so it gains where
 * readings fit none of them, and loses where they fit one well.
 */
/** What is done about it: power, ground, signal and bus by the maker's diagram. */
export const GENERAL_METHOD = 'general-method';

export const NOT_DESCRIBED = 'not-described';
/** Places that it is thought of at; what feeds several belongs to the vehicle as a whole. */
export const NOT_DESCRIBED_AT = ['corner', 'module', 'vehicle'] as const;

export const notDescribedAt = (at: (typeof NOT_DESCRIBED_AT)[number]): Fault => ({
	id: NOT_DESCRIBED,
	name: 'something that is not described here',
	visible: [],
	link: 'module-input',
	mode: NOT_DESCRIBED,
	at,
	effects: [],
	madeByUs: false,
	curedBy: [GENERAL_METHOD]
});

const { usual, byGroup } = priorsFile.notDescribed;
export const USUAL_NOT_DESCRIBED: number = usual;

/** How often what a code tells of is nothing that the library describes, by the kind of code; null = no source knows it. */
export function notDescribedShare(groups: readonly (CodeDefinition['group'] | null)[]): number {
	const known: Record<string, number> = byGroup;
	const shares = groups.map((group) => known[group ?? 'unknown'] ?? usual);
	return shares.length > 0 ? Math.max(...shares) : usual;
}
