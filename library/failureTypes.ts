import { z } from 'zod';
import failureTypesFile from './failure-types.json' with { type: 'json' };
import heavyFile from './heavy-codes.json' with { type: 'json' };
import { failureModeOf, suffixOf, type CodeId } from '../src/lib/core/codes/codeId';
import { Group } from './codePack';
import { Position } from './positions';

/** What the suffix of a code means, and its counterpart on heavy vehicles. */
export interface KindOfFailure {
	text: string;
	/** One word for the electrical meaning: `short-to-ground`, `no-signal` … */
	class: string;
	meaning: string;
	checkFirst: string;
}

const words = { text: z.string(), class: z.string(), meaning: z.string(), checkFirst: z.string() };

const File = z.object({
	categories: z.array(z.object({ nibble: z.string(), name: z.string() })),
	types: z.array(z.object({ byte: z.string().regex(/^[0-9A-F]{2}$/), ...words }))
});
const file = File.parse(failureTypesFile);
const byByte = new Map(file.types.map((type) => [type.byte, type]));
const byNibble = new Map(file.categories.map((category) => [category.nibble, category.name]));

const MAKER_TYPES = /^F[0-9A-F]$/;

/** Every kind of failure that the standard names, by its byte. */
export const kindsOfFailure = (): { byte: string; text: string }[] =>
	file.types.map(({ byte, text }) => ({ byte, text }));

/** Whether the standard has given this byte a meaning. */
export const isAssigned = (byte: string): boolean => byByte.has(byte);

/** Name of the category a failure type byte belongs to. */
export const failureCategory = (byte: string): string =>
	byNibble.get(byte.charAt(0)) ?? (MAKER_TYPES.test(byte) ? 'left to the maker' : 'reserved by the standard');

/** The meaning of any failure type byte, two hex digits; also of those that the standard left open. */
export function failureType(byte: string): KindOfFailure {
	const known = byByte.get(byte);
	if (known) return known;
	const category = failureCategory(byte);
	if (MAKER_TYPES.test(byte)) {
		return {
			text: 'kind of failure named by the maker',
			class: 'maker',
			meaning: 'The standard leaves F0 to FF to the maker.',
			checkFirst: 'The maker’s own text for this code.'
		};
	}
	return {
		text: byNibble.has(byte.charAt(0)) ? `reserved, among ${category}` : 'reserved by the standard',
		class: 'reserved',
		meaning: 'The standard has given this byte no meaning.',
		checkFirst: 'The maker’s own text for this code; then what the set conditions watch.'
	};
}

const Heavy = z.object({
	source: z.string(),
	modes: z
		.array(
			z.object({
				fmi: z.number().int().min(0).max(31),
				/** The failure type byte that says nearly the same; 00 where none does. */
				like: z.string().regex(/^[0-9A-F]{2}$/),
				...words
			})
		)
		.length(32),
	parameters: z.array(
		z.object({
			spn: z.number().int().min(0).max(0x7ffff),
			name: z.string(),
			group: Group,
			corner: Position.nullable()
		})
	)
});
const heavy = Heavy.parse(heavyFile);
export const HEAVY_SOURCE = heavy.source;
const modes = new Map(heavy.modes.map((mode) => [mode.fmi, mode]));
export const heavyParameters = new Map(heavy.parameters.map((parameter) => [parameter.spn, parameter]));

/** What is said of a code in a source, as far as its kind of failure goes. */
type Told = { failureType: string | null } | null;

/**
 * The failure type byte (SAE J2012-DA) that says how a code failed, or nearly: its own; of a heavy vehicle's code that of its failure
 * mode; of a maker's own notation what its source says of it. 00 where nothing is said.
 */
export function failureTypeLike(id: CodeId, source: Told): string {
	const fmi = failureModeOf(id);
	return suffixOf(id) ?? (fmi === null ? (source?.failureType ?? '00') : modeOf(fmi).like);
}

/** How a code of any family failed, in words; null where it does not say. */
export function kindOfFailure(id: CodeId, source: Told): KindOfFailure | null {
	const fmi = failureModeOf(id);
	if (fmi !== null) return failureMode(fmi);
	const byte = suffixOf(id) ?? source?.failureType ?? null;
	return byte === null ? null : failureType(byte);
}

/** The meaning of a failure mode identifier, 0–31. Throws RangeError for any other number. */
export const failureMode = (fmi: number): KindOfFailure => modeOf(fmi);

function modeOf(fmi: number) {
	const mode = modes.get(fmi);
	if (!mode) throw new RangeError(`a failure mode identifier is 0–31, not ${fmi}`);
	return mode;
}
