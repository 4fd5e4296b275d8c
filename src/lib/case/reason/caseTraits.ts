import { circumstances, symptoms } from '../../../../library/vocabulary';
import { inspections, measurements } from '../../../../library/measure';
import { signs, splitKey } from '../../../../library/reason/signs';
import type { Trait } from '../../core/path/alike';
import type { Entry, EntryKind } from '../entries/entry';
import { latest, ofKind } from '../thread/thread';
import { lowerFirst } from '../words';
import { seenWords } from './words';

/** Kinds of entries that say something by which a case is like another. */
export const TRAIT_KINDS = [
	'case-opened',
	'complaint',
	'lamps-reported',
	'meter-reading',
	'inspection',
	'test-step'
] as const satisfies readonly EntryKind[];

/** A code as it stands on a case. */
export interface TraitCode {
	/** Its number, without failure type. */
	code: string;
	/** Empty = none. */
	failureType: string;
	/** Circuit, supply …; null where no source says. */
	group: string | null;
}

const codesAsTraits = (codes: readonly TraitCode[]): Trait[] =>
	codes.flatMap(({ code, failureType, group }): Trait[] => [
		...(failureType === '' ? [] : [{ kind: 'failure' as const, value: `${code}-${failureType}` }]),
		{ kind: 'code', value: code },
		...(group === null ? [] : [{ kind: 'group' as const, value: group }])
	]);

/** Readings that were out, by how: below the window, above it, or over the meter's range. */
const readingsOut = (entries: readonly Entry[]): Trait[] =>
	ofKind(entries, 'meter-reading')
		.filter(({ payload }) => payload.judged === 'out')
		.map(({ payload: { measurement, value, judgedValue, window } }) => ({
			kind: 'reading',
			value: `${measurement}|${value === null ? 'over' : (judgedValue ?? value) < window.low ? 'low' : 'high'}`
		}));

/** What was seen and is not as it should be, at whatever place. */
const seenBad = (entries: readonly Entry[]): Trait[] => [
	...ofKind(entries, 'inspection').flatMap(
		({ payload: { inspection, result, sights: seen = [] } }): Trait[] =>
			result === 'bad' ? seen.map((sight) => ({ kind: 'seen', value: `look|${inspection}|${sight}` })) : []
	),
	...ofKind(entries, 'test-step').flatMap(({ payload: { how, seen } }): Trait[] =>
		how !== 'done'
			? []
			: Object.entries(seen).flatMap(([key, outcome]): Trait[] => {
					const { sign } = splitKey(key);
					return signs.has(sign) && signs.get(sign)?.good !== outcome
						? [{ kind: 'seen', value: `sign|${sign}|${outcome}` }]
						: [];
				})
	)
];

/**
 * What is known of a case by which it is like another, each once.
 *
 * @param entries standing ones, in order; of other kinds than {@link TRAIT_KINDS} nothing is taken
 * @param maker of its vehicle; null where nobody knows
 */
export function traitsOf(
	entries: readonly Entry[],
	codes: readonly TraitCode[],
	maker: string | null
): Trait[] {
	const complaint = latest(entries, 'complaint')?.payload;
	const typeId = latest(entries, 'case-opened')?.payload.typeId ?? '';
	const all: Trait[] = [
		...codesAsTraits(codes),
		...readingsOut(entries),
		...seenBad(entries),
		...(complaint?.felt ?? []).map((value): Trait => ({ kind: 'symptom', value })),
		...(complaint?.when ?? []).map((value): Trait => ({ kind: 'circumstance', value })),
		...(latest(entries, 'lamps-reported')?.payload.lamps ?? []).map(({ lamp, manner }): Trait => ({
			kind: 'lamp',
			value: `${lamp}|${manner}`
		})),
		...(typeId === '' ? [] : [{ kind: 'type' as const, value: typeId }]),
		...(maker === null ? [] : [{ kind: 'maker' as const, value: maker }])
	];
	return [...new Map(all.map((trait) => [`${trait.kind}:${trait.value}`, trait])).values()];
}

const OUT_WORDS: Record<string, string> = { low: 'too low', high: 'too high', over: 'over the range' };

/** What is the same on two cases, in words; null for what a plainer trait beside it says as well. */
export function traitWords({ kind, value }: Trait): string | null {
	const [first = '', second = '', third = ''] = value.split('|');
	switch (kind) {
		case 'failure':
		case 'code':
			return value;
		case 'reading': {
			const name = measurements.find(({ id }) => id === first)?.name ?? first;
			return `${lowerFirst(name)} ${OUT_WORDS[second] ?? second}`;
		}
		case 'seen': {
			if (first === 'sign') return seenWords(`${second}@vehicle`, third);
			const look = inspections.find(({ id }) => id === second);
			return look?.sights.find(({ id }) => id === third)?.words ?? look?.name ?? second;
		}
		case 'symptom':
			return symptoms.get(value)?.words ?? value;
		case 'circumstance':
			return circumstances.get(value)?.words ?? value;
		case 'lamp':
			return `${first} lamp ${second}`;
		case 'type':
			return 'the same type';
		case 'maker':
		case 'group':
			return null;
	}
}
