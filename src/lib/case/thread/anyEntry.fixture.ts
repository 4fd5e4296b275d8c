import fc from 'fast-check';
import type { z } from 'zod';
import { inspections, measurements, substituteMethods } from '../../../../library/measure';
import { POSITIONS, vehicleTypes } from '../../../../library';
import { calibrations } from '../../../../library/calibrations';
import { faults } from '../../../../library/faults';
import { fittingSheets } from '../../../../library/fittingSheets';
import { repairs } from '../../../../library/repairs';
import { signs } from '../../../../library/reason/signs';
import { testKinds } from '../../../../library/reason/tests';
import { TEMPLATES } from '../../../../library/vehicle/given';
import { newDescription } from '../../../../library/vehicle/newDescription';
import { ENTRY_VERSION, PAYLOADS, type Entry, type EntryKind } from '../entries/entry';

/**
 * Entries that the schema lets through and nobody would write: for tests that nothing which reads a thread may fail on one.
 */

/** Names that objects have by themselves, and text that looks like nothing. */
const NASTY = [
	'constructor',
	'__proto__',
	'toString',
	'hasOwnProperty',
	'valueOf',
	'',
	' ',
	'—',
	'a'.repeat(300)
];
const KNOWN = [
	...POSITIONS,
	...vehicleTypes.keys(),
	...measurements.map(({ id }) => id),
	...inspections.map(({ id }) => id),
	...substituteMethods.map(({ id }) => id),
	...calibrations.keys(),
	...faults.keys(),
	...repairs.keys(),
	...fittingSheets.keys(),
	...testKinds.keys(),
	...[...vehicleTypes.values()].flatMap(({ modules }) =>
		modules.flatMap(({ role, address }) => [role, address])
	),
	'EUR',
	'JPY',
	'front_left',
	'rear_right',
	'vehicle',
	'404513',
	'SPN 789 FMI 5',
	'SPN 521 FMI 31 CM 1',
	'=01314',
	'=constructor',
	'=left/right differ',
	'C0045',
	'1010',
	'0'.repeat(64),
	'1'.repeat(17),
	'01JE0000000000000000000009'
];
const SIGN_KEYS = [...signs.keys()].flatMap((sign) =>
	['rear-left', 'brakes', 'vehicle'].map((at) => `${sign}@${at}`)
);
const anyText = fc.oneof(fc.constantFrom(...NASTY), fc.constantFrom(...KNOWN), fc.string({ maxLength: 12 }));

type Def = { type: string } & Record<string, unknown>;
type Inner = z.core.$ZodType & { _zod: { def: Def } };

/** Values that a schema of ours accepts, odd ones first. */
export function valuesOf(schema: z.core.$ZodType): fc.Arbitrary<unknown> {
	const { def } = (schema as Inner)._zod;
	const inner = (name = 'innerType') => valuesOf(def[name] as Inner);
	switch (def.type) {
		case 'string':
			return stringsOf(schema, patternsOf(def), def.format as string | undefined);
		case 'number':
			return numbersOf(schema);
		case 'boolean':
			return fc.boolean();
		case 'enum':
			return fc.constantFrom(...Object.values(def.entries as Record<string, string>));
		case 'null':
			return fc.constant(null);
		case 'literal':
			return fc.constantFrom(...(def.values as unknown[]));
		case 'array':
			return fc.array(inner('element'), {
				minLength: leastOf(def),
				maxLength: Math.max(leastOf(def), Math.min(3, mostOf(def)))
			});
		case 'tuple':
			return fc.tuple(...(def.items as Inner[]).map(valuesOf));
		case 'object': {
			const drawn = fc.record(
				Object.fromEntries(
					Object.entries(def.shape as Record<string, Inner>).map(([key, of]) => [key, valuesOf(of)])
				)
			);
			return isChecked(def) ? drawn.filter((value) => (schema as z.ZodType).safeParse(value).success) : drawn;
		}
		case 'record':
			return fc
				.array(fc.tuple(valuesOf(def.keyType as Inner), inner('valueType')), { maxLength: 3 })
				.map((pairs) => Object.fromEntries(pairs as [string, unknown][]));
		case 'union':
			return fc.oneof(...(def.options as Inner[]).map(valuesOf));
		case 'nullable':
			return fc.oneof(fc.constant(null), inner());
		case 'optional':
			return fc.oneof(fc.constant(undefined), inner());
		case 'default':
			return inner();
		default:
			throw new Error(`no values for a schema of type ${def.type}`);
	}
}

/** Whether a schema asks for more than its shape. */
const isChecked = ({ checks }: Def): boolean => ((checks ?? []) as unknown[]).length > 0;
const leastOf = ({ checks }: Def): number =>
	Math.max(
		0,
		...((checks ?? []) as { _zod: { def: { minimum?: number } } }[]).map(({ _zod }) => _zod.def.minimum ?? 0)
	);
const mostOf = ({ checks }: Def): number =>
	Math.min(
		...((checks ?? []) as { _zod: { def: { maximum?: number } } }[]).map(
			({ _zod }) => _zod.def.maximum ?? Infinity
		)
	);
const patternsOf = ({ checks }: Def): RegExp[] =>
	((checks ?? []) as { _zod: { def: { pattern?: RegExp } } }[]).flatMap(({ _zod }) => _zod.def.pattern ?? []);

/** What a schema accepts out of many tries; the pools hold something for every pattern of ours. */
const accepted = (schema: z.core.$ZodType, pool: readonly string[]) =>
	pool.filter((text) => (schema as z.ZodType).safeParse(text).success);

function stringsOf(
	schema: z.core.$ZodType,
	patterns: RegExp[],
	format: string | undefined
): fc.Arbitrary<string> {
	if (format === 'datetime') return fc.constantFrom('2026-11-24T09:00:00.000Z', '1970-01-01T00:00:00Z');
	const known = accepted(schema, [...KNOWN, ...NASTY, ...SIGN_KEYS]);
	const pattern = patterns.at(-1);
	const fits = (text: string) => (schema as z.ZodType).safeParse(text).success;
	if (pattern) {
		const made = fc.stringMatching(pattern, { size: 'xsmall' }).filter(fits);
		return known.length > 0 ? fc.oneof(fc.constantFrom(...known), made) : made;
	}
	// Where hardly any text fits, the pool alone is drawn from: a filter would look for ever.
	const free = fits('') || fits('x');
	return free ? fc.oneof(fc.constantFrom(...known), anyText.filter(fits)) : fc.constantFrom(...known);
}

function numbersOf(schema: z.core.$ZodType): fc.Arbitrary<number> {
	const edges = [
		0,
		1,
		-1,
		2,
		0.5,
		3,
		12,
		47,
		100,
		255,
		400,
		5000,
		1e6,
		1e9,
		-40,
		Number.MAX_SAFE_INTEGER,
		1e-9,
		0.95
	];
	const fits = edges.filter((value) => (schema as z.ZodType).safeParse(value).success);
	return fc.constantFrom(...fits);
}

const idOf = (at: number) => `01JE${String(at).padStart(22, '0')}`;

/** Vehicles that can be worked with: of what the schema lets through hardly any can. */
const DESCRIBED = TEMPLATES.flatMap((template) => {
	const made = newDescription({ template });
	return made.ok ? [{ description: made.value, because: '' }] : [];
});

/** Payloads of one kind. */
export const anyPayloadOf = (kind: EntryKind): fc.Arbitrary<unknown> =>
	kind === 'vehicle-described'
		? fc.oneof(fc.constantFrom(...DESCRIBED), valuesOf(PAYLOADS[kind]))
		: valuesOf(PAYLOADS[kind]);

/** Made once: what a schema lets through takes longer to work out than to draw. */
const anyPayload = fc.oneof(
	...(Object.keys(PAYLOADS) as EntryKind[]).map((kind) =>
		anyPayloadOf(kind).map((payload) => ({ kind, payload }))
	)
);

/** Whole threads, each entry of any kind, some of them correcting an earlier one of their kind. */
export const anyThread = (mostEntries = 14): fc.Arbitrary<Entry[]> =>
	fc
		.tuple(
			fc.constantFrom(...vehicleTypes.keys(), 'no-such-type', 'constructor'),
			fc.array(
				fc.record({
					drawn: anyPayload,
					minutes: fc.integer({ min: -5, max: 300 }),
					corrects: fc.boolean()
				}),
				{ minLength: 1, maxLength: mostEntries }
			)
		)
		.map(([typeId, drawn]) => {
			const thread: Entry[] = [];
			const add = (kind: EntryKind, payload: unknown, minutes: number, corrects: boolean) => {
				const seq = thread.length + 1;
				const target = corrects ? thread.find((one) => one.kind === kind) : undefined;
				const at = new Date(Date.UTC(2026, 10, 24, 9, minutes)).toISOString();
				thread.push({
					id: idOf(seq),
					caseId: idOf(0),
					kind,
					version: ENTRY_VERSION,
					observedAt: at,
					receivedAt: at,
					payload,
					supersedes: target ? { entryId: target.id, why: 'otherwise' } : null,
					seq,
					authorId: 'ana',
					authorName: 'Ana',
					previousHash: '0'.repeat(64),
					hash: String(seq).padStart(64, '0')
				} as Entry);
			};
			add('case-opened', { vehicleId: 'v', typeId, name: 'a vehicle', plate: '' }, 0, false);
			for (const { drawn: one, minutes, corrects } of drawn) add(one.kind, one.payload, minutes, corrects);
			return thread;
		});

type Branch = Record<string, unknown> | unknown[];
/** Every place in what an entry says, from the top down. */
function placesIn(value: unknown, path: (string | number)[] = []): (string | number)[][] {
	if (typeof value !== 'object' || value === null) return [path];
	const keys = Array.isArray(value) ? [...value.keys()] : Object.keys(value);
	return [path, ...keys.flatMap((key) => placesIn((value as never)[key], [...path, key]))];
}

const OTHER_VALUES = [null, 0, -1, 1e9, '', 'constructor', '__proto__', 'rear-left', [], {}, true, NaN];

/** An entry with one place of it otherwise: another value, or nothing there. */
function spoiled(entry: Entry, at: number, instead: unknown): Entry {
	const copy = structuredClone(entry) as unknown as Record<string, unknown>;
	const places = placesIn(copy.payload).filter((path) => path.length > 0);
	const path = places[at % Math.max(1, places.length)];
	if (!path) return copy as unknown as Entry;
	const last = path.at(-1) as never;
	const holder = path
		.slice(0, -1)
		.reduce((inner: Branch, key) => inner[key as never] as Branch, copy.payload as Branch);
	if (instead === undefined) delete holder[last];
	else holder[last] = instead as never;
	return copy as unknown as Entry;
}

/** Threads as they grew, a few places of them otherwise. */
export const mutated = (threads: readonly (readonly Entry[])[]): fc.Arbitrary<Entry[]> =>
	fc
		.tuple(
			fc.constantFrom(...threads),
			fc.array(fc.tuple(fc.nat(), fc.nat(), fc.constantFrom(...OTHER_VALUES, undefined)), {
				minLength: 1,
				maxLength: 5
			})
		)
		.map(([thread, changes]) =>
			changes.reduce(
				(all, [which, at, instead]) =>
					all.map((entry, i) => (i === which % all.length ? spoiled(entry, at, instead) : entry)),
				[...thread]
			)
		);
