import { z } from 'zod';
import { repairs } from './repairs';
import file from './vocabulary.json' with { type: 'json' };

/**
 * One closed list a subject: what is felt, when it shows, what was worked on. Only what is chosen from them is evidence; words
 * that are typed are kept as they are, and where they sound like one of the list that one is offered.
 */

export const FACETS = ['slow', 'fast', 'turning', 'wet', 'rough'] as const;
export type Facet = (typeof FACETS)[number];

const base = {
	id: z.string().regex(/^[a-z-]+$/),
	words: z.string(),
	/** Typed words at which it is offered; never more than that. */
	offers: z.string().transform((pattern) => new RegExp(pattern, 'i'))
};
const vocabulary = z
	.object({
		symptoms: z.array(z.object({ ...base, sign: z.string().nullable() })),
		circumstances: z.array(z.object({ ...base, is: z.array(z.enum(FACETS)) })),
		works: z.array(
			z.object({
				...base,
				repair: z
					.string()
					.refine((id) => repairs.has(id), 'no such repair')
					.nullable()
			})
		)
	})
	.parse(file);

const byId = <T extends { id: string }>(list: readonly T[]): ReadonlyMap<string, T> =>
	new Map(list.map((one) => [one.id, one]));
export const symptoms = byId(vocabulary.symptoms);
export const circumstances = byId(vocabulary.circumstances);
export const works = byId(vocabulary.works);

/** Of a list, what typed words sound like and what is not chosen yet. */
export const offeredFor = <T extends { id: string; offers: RegExp }>(
	list: ReadonlyMap<string, T>,
	typed: string,
	chosen: readonly string[]
): T[] =>
	typed.trim() === ''
		? []
		: [...list.values()].filter(({ id, offers }) => !chosen.includes(id) && offers.test(typed));

/** What the chosen circumstances come to for a drive. */
export const facetsOf = (chosen: readonly string[]): ReadonlySet<Facet> =>
	new Set(chosen.flatMap((id) => circumstances.get(id)?.is ?? []));
