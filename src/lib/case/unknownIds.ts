import { calibrations } from '../../../library/calibrations';
import { circumstances, symptoms, works } from '../../../library/vocabulary';
import { fittingSheets } from '../../../library/fittingSheets';
import { vehicleTypes, type VehicleType } from '../../../library';
import { inspections, measurements, substituteMethods } from '../../../library/measure';
import { signs, splitKey } from '../../../library/reason/signs';
import { testKinds } from '../../../library/reason/tests';
import { repairs } from '../../../library/repairs';
import type { EntryKind, PayloadOf } from './entry';

/** Something that an entry names, and the list it is to be found in. */
type Named = readonly [what: string, id: string, known: { has(id: string): boolean }];

const idsOf = (all: readonly { id: string }[]): ReadonlySet<string> => new Set(all.map(({ id }) => id));
const MEASUREMENTS = idsOf(measurements);
const INSPECTIONS = idsOf(inspections);
const METHODS = idsOf(substituteMethods);

type NamedIn = { [K in EntryKind]?: (payload: PayloadOf<K>) => readonly Named[] };

/** What each kind of entry names of the library. */
const NAMED: NamedIn = {
	'case-opened': ({ typeId }) => [['vehicle type', typeId, vehicleTypes]],
	complaint: ({ felt = [], when = [] }) => [
		...felt.map((id) => ['symptom', id, symptoms] as const),
		...when.map((id) => ['circumstance', id, circumstances] as const)
	],
	'prior-work': ({ works: done }) =>
		done.flatMap(({ work }) => (work === undefined ? [] : [['work', work, works] as const])),
	'meter-reading': ({ measurement }) => [['measurement', measurement, MEASUREMENTS]],
	substitution: ({ method }) => [['method', method, METHODS]],
	inspection: ({ inspection }) => [['inspection', inspection, INSPECTIONS]],
	'test-step': ({ test, seen }) => [
		...(test === null ? [] : [['test', test, testKinds] as const]),
		...Object.keys(seen).map((key) => ['sign', splitKey(key).sign, signs] as const)
	],
	repair: ({ does }) => (does ? [['repair', does.kind, repairs]] : []),
	'repair-planned': ({ repair }) => [['repair', repair, repairs]],
	fitting: ({ sheet }) => [['fitting sheet', sheet, fittingSheets]],
	calibration: ({ calibration }) => [['calibration', calibration, calibrations]],
	'calibration-waived': ({ calibration }) => [['calibration', calibration, calibrations]]
};

/** Wheels that an entry names. */
function positionsIn(payload: object): string[] {
	const own = 'position' in payload && typeof payload.position === 'string' ? [payload.position] : [];
	const lists = ['corners', 'channels', 'tyres'].flatMap((key) => {
		const list = (payload as Record<string, unknown>)[key];
		return Array.isArray(list) ? (list as { position?: string | null }[]) : [];
	});
	return [...own, ...lists.flatMap(({ position }) => position ?? [])];
}

/**
 * What an entry names that nobody knows: an id that is in no list of the library, or a wheel that this vehicle has not. Asked
 * before an entry is written; what is on a thread already is read whatever it names.
 *
 * @param type the vehicle of the case; null = not described, then any wheel may be meant
 * @returns a sentence for the person; null where all is known
 */
export function unknownId<K extends EntryKind>(
	kind: K,
	payload: PayloadOf<K>,
	type: VehicleType | null
): string | null {
	const named = (NAMED[kind] as ((payload: PayloadOf<K>) => readonly Named[]) | undefined)?.(payload) ?? [];
	const lost = named.find(([, id, known]) => !known.has(id));
	if (lost) return `This version knows no ${lost[0]} "${lost[1].slice(0, 60)}".`;
	const wheels = type && new Set<string>(type.wheels.map(({ position }) => position));
	const strange = wheels && positionsIn(payload).find((position) => !wheels.has(position));
	return strange ? `This vehicle has no wheel "${strange.slice(0, 60)}".` : null;
}
