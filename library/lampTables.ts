import { z } from 'zod';
import tablesFile from './blink/lampTables.json' with { type: 'json' };
import { Position } from './positions';
import { Exposes } from './safety';

/** What the flashes of a lamp mean on vehicles that tell their codes so. */

const Meaning = z.object({
	words: z.string(),
	corner: Position.optional(),
	/** The nearest of what a code of a wheel can say, for reasoning; a lamp does not tell open from shorted. */
	wheelCode: z.enum(['open', 'no-signal', 'erratic', 'ring']).optional(),
	/** It says that nothing is wrong. */
	none: z.boolean().default(false)
});
const Step = z.discriminatedUnion('do', [
	z.object({ do: z.literal('say'), words: z.string() }),
	z.object({
		do: z.literal('press'),
		words: z.string(),
		times: z.number().int().positive(),
		withinS: z.number().positive()
	}),
	z.object({
		do: z.literal('hold'),
		words: z.string(),
		atLeastS: z.number().positive(),
		atMostS: z.number().positive().nullable()
	})
]);
const base = {
	id: z.string(),
	name: z.string(),
	/** Types of vehicle that it belongs to; empty = chosen by hand. */
	types: z.array(z.string()),
	/** What its procedures expose. */
	exposes: Exposes,
	/** What has to be known about it. */
	how: z.string(),
	/** How the lamp is brought to tell, to forget, and to check the sensors. */
	begin: z.array(Step).min(1),
	reset: z.array(Step).min(1),
	check: z.array(Step).min(1).optional()
};
const Table = z.discriminatedUnion('kind', [
	/** Each code has its own words. */
	z.object({ ...base, kind: z.literal('codes'), codes: z.record(z.string().regex(/^\d+(-\d+)*$/), Meaning) }),
	/** Each group of flashes says a part: where, and what. */
	z.object({
		...base,
		kind: z.literal('groups'),
		groups: z
			.array(z.object({ name: z.string(), digits: z.record(z.string().regex(/^\d+$/), Meaning) }))
			.min(1),
		/** Flashes that say that nothing is wrong. */
		none: z.array(z.number().int().positive()).optional()
	})
]);
export type LampTable = z.infer<typeof Table>;

export const lampTables = new Map(
	z
		.array(Table)
		.parse(tablesFile.tables)
		.map((table) => [table.id, table])
);

/** The table that belongs to a type of vehicle; null where none does. */
export const lampTableOf = (typeId: string): LampTable | null =>
	[...lampTables.values()].find(({ types }) => types.includes(typeId)) ?? null;

export interface LampMeaning {
	words: string;
	corner: Position | null;
	wheelCode: 'open' | 'no-signal' | 'erratic' | 'ring' | null;
	/** It says that nothing is wrong. */
	none: boolean;
}

/** What a code says by a table; null where the table has no such code. */
export function lampMeaning(table: LampTable, groups: readonly number[]): LampMeaning | null {
	if (table.kind === 'codes') {
		const found = table.codes[groups.join('-')];
		return found
			? {
					words: found.words,
					corner: found.corner ?? null,
					wheelCode: found.wheelCode ?? null,
					none: found.none
				}
			: null;
	}
	if (table.none && table.none.join('-') === groups.join('-'))
		return { words: 'no fault is shown', corner: null, wheelCode: null, none: true };
	if (groups.length !== table.groups.length) return null;
	const parts = groups.map((digit, i) => table.groups[i]?.digits[String(digit)]);
	if (parts.some((part) => part === undefined)) return null;
	return {
		words: parts.map((part) => part?.words ?? '').join(': '),
		corner: parts.find((part) => part?.corner)?.corner ?? null,
		wheelCode: parts.find((part) => part?.wheelCode)?.wheelCode ?? null,
		none: false
	};
}
