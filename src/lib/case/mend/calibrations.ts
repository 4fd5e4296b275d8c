import type { VehicleType } from '../../../../library';
import {
	calibrationOrder,
	calibrationRules,
	calibrations,
	doneByHand,
	placesOf,
	type CalibrationRule,
	type PlacedCalibration
} from '../../../../library/calibrations';
import { readsWheels } from '../../../../library/measurePoints';
import { Position } from '../../../../library/positions';
import { judgedAs } from '../../../../library/repairs';
import { dueWork, unsettled, type Cause, type DueWork, type Tried } from '../../core/calibrate/dueWork';
import { decodeStatus } from '../../core/codes/status';
import { codeName } from '../../core/codes/codeId';
import type { Entry, EntryOf } from '../entries/entry';
import { typeOf } from '../thread/vehicleOf';

/** A calibration of this vehicle with how it stands. */
export interface CaseCalibration extends DueWork {
	placed: PlacedCalibration;
	/** The last entry about it since it became due. */
	entry: EntryOf<'calibration' | 'calibration-waived'> | null;
}

export const calibrationKey = ({ calibration, role }: { calibration: string; role: string }): string =>
	`${calibration}@${role}`;

/** All calibrations of a vehicle, each after those that it waits for. */
function placedOn(type: VehicleType): Map<string, PlacedCalibration> {
	const inOrder = calibrationOrder.flatMap((id) => {
		const one = calibrations.get(id);
		return one ? placesOf(one, type) : [];
	});
	return new Map(inOrder.map((one) => [one.id, one]));
}

/**
 * What has to be told and taught on this case: from repairs, and from codes that say that it never was. In the order in
 * which it is done.
 *
 * @param entries standing entries in order
 */
export function caseCalibrations(entries: readonly Entry[]): CaseCalibration[] {
	const type = typeOf(entries);
	if (!type) return [];
	const placed = placedOn(type);
	const tries: (Tried & { entry: CaseCalibration['entry'] })[] = [];
	const causes: Cause[] = [];
	const done = new Map<string, number>();
	let reset = -1;
	for (const [at, entry] of entries.entries()) {
		if (entry.kind === 'codes-cleared' || entry.kind === 'key-cycled') reset = at;
		if (entry.kind === 'repair') {
			causes.push(...causesOfRepair(entry.payload, placed, at));
			tries.push(
				...byHand(entry, placed).map((id) => ({ id, at: at + 0.5, state: 'done' as const, entry: null }))
			);
		} else if (entry.kind === 'repair-planned') causes.push(...causesOfPlan(entry, placed, at));
		else if (entry.kind === 'network-scan')
			// A module that was just taught may judge itself anew only after a key cycle or a clear.
			causes.push(...causesOfScan(entry, placed, at).filter(({ id }) => (done.get(id) ?? -1) <= reset));
		else if (entry.kind === 'calibration') {
			tries.push({ id: calibrationKey(entry.payload), at, state: entry.payload.state, entry });
			if (entry.payload.state === 'done') done.set(calibrationKey(entry.payload), at);
		} else if (entry.kind === 'calibration-waived')
			tries.push({ id: calibrationKey(entry.payload), at, state: 'waived', entry });
	}
	const after = (id: string) => {
		const waits = placed.get(id)?.calibration.after ?? [];
		return [...placed.values()]
			.filter(({ calibration }) => waits.includes(calibration.id))
			.map((one) => one.id);
	};
	return dueWork([...placed.keys()], after, causes, tries).flatMap((work): CaseCalibration[] => {
		const one = placed.get(work.id);
		const entry = tries.find(({ id, at }) => id === work.id && at === work.tried?.at)?.entry ?? null;
		return one ? [{ ...work, placed: one, entry }] : [];
	});
}

/** What is neither done nor waived. */
export const openCalibrations = (entries: readonly Entry[]): CaseCalibration[] => {
	const all = caseCalibrations(entries);
	const open = new Set(unsettled(all).map(({ id }) => id));
	return all.filter(({ id }) => open.has(id));
};

/** What calls for a calibration, in a few words. */
export const whyDue = ({ causes }: Pick<CaseCalibration, 'causes'>): string =>
	[...new Set(causes.map(({ because }) => because))].join(', ');

type Placed = ReadonlyMap<string, PlacedCalibration>;

/** What of a repair the rules look at. */
type Work = Pick<EntryOf<'repair'>['payload'], 'does' | 'title' | 'parts'>;

/** A note tells of much that was only looked at: what was done is in the title, and in the parts, which are fitted new. */
function ruleHolds(
	{ repairs, roles, words }: CalibrationRule,
	{ does, title, parts }: Work,
	placed: Placed
): boolean {
	if (does)
		return (
			(repairs.includes(does.kind) || repairs.includes(judgedAs(does.kind))) &&
			(roles === undefined || roles.some((role) => role === placeOf(does, placed)))
		);
	const done = [title, ...parts.map(({ name }) => `new ${name}`)];
	return words !== null && done.some((text) => words.test(text));
}

/** A module that is renewed for one of its wheel inputs is the module that reads the wheels. */
function placeOf({ place }: NonNullable<Work['does']>, placed: Placed): string {
	if (!Position.safeParse(place).success) return place;
	return [...placed.values()].find(({ module }) => readsWheels(module))?.module.role ?? place;
}

/** Calibrations that a repair calls for: of the module it was done on where there is one, else wherever they are. */
function causesOfRepair(work: Work, placed: Placed, at: number): Cause[] {
	return calibrationRules
		.filter((rule) => ruleHolds(rule, work, placed))
		.flatMap(({ due, because }) =>
			[...placed.values()]
				.filter(({ calibration }) => due.includes(calibration.id))
				.map(({ id }): Cause => ({ id, at, because }))
		);
}

/** A module that says itself that it was never told or taught. */
function causesOfScan({ payload }: EntryOf<'network-scan'>, placed: Placed, at: number): Cause[] {
	return payload.modules.flatMap(({ address, codes }) =>
		codes
			// Once it was taught the code stays until it is cleared, but its test does not fail any more.
			.filter(({ status }) => decodeStatus(status).testFailed)
			.flatMap(({ dtc }) =>
				[...placed.values()]
					.filter(
						({ module, calibration }) => module.address === address && calibration.restores.includes(dtc)
					)
					.map(({ id }): Cause => ({ id, at, because: `${codeName(dtc)} says so` }))
			)
	);
}

/** Calibrations that a repair of the library is itself, at a module. */
const sameAs = (kind: string, place: string, placed: Placed): PlacedCalibration[] =>
	[...placed.values()].filter(
		({ calibration, module }) =>
			module.role === place && (doneByHand.get(kind) ?? []).includes(calibration.id)
	);

/** Where the repair that was chosen is a calibration, it is to be done through the link. */
const causesOfPlan = (
	{ payload: { repair, place } }: EntryOf<'repair-planned'>,
	placed: Placed,
	at: number
): Cause[] =>
	sameAs(repair, place, placed)
		.filter(({ calibration }) => calibration.way.kind !== 'drive')
		.map(({ id }) => ({ id, at, because: 'it was chosen as the repair' }));

/** Calibrations that were done without the link, told as a repair. */
const byHand = ({ payload: { does } }: EntryOf<'repair'>, placed: Placed): string[] =>
	does ? sameAs(does.kind, does.place, placed).map(({ id }) => id) : [];

/** Whether a repair of the library is done on Calibrate. */
export const isCalibrating = (kind: string): boolean => doneByHand.has(kind);

/** Whether an entry put something right: a repair, or a calibration that came to its end. */
export const isMending = (entry: Entry): boolean =>
	entry.kind === 'repair' || (entry.kind === 'calibration' && entry.payload.state === 'done');

/** The repair of the library that a finished calibration comes to. */
export function mendedBy({ payload: { calibration, role } }: EntryOf<'calibration'>): {
	kind: 'code-module' | 'calibrate';
	place: string;
} {
	const written = calibrations.get(calibration)?.way.kind === 'write';
	return { kind: written ? 'code-module' : 'calibrate', place: role };
}

/** Whether a finished calibration makes a code go. */
export const restoresCode = ({ payload }: EntryOf<'calibration'>, address: string, dtc: string): boolean =>
	payload.state === 'done' &&
	payload.address === address &&
	(calibrations.get(payload.calibration)?.restores.includes(dtc) ?? false);

/** Why a code that a scan shows is no new fault: work before it calls for what it asks for. Null where none does. */
export function expectedAfter(before: readonly Entry[], address: string, dtc: string): string | null {
	if (!before.some(({ kind }) => kind === 'repair')) return null;
	const due = openCalibrations(before).find(
		({ placed }) => placed.module.address === address && placed.calibration.restores.includes(dtc)
	);
	return due?.causes.at(-1)?.because ?? null;
}

/** The calibrations that a repair of the library will call for on a type of vehicle, in their order. */
export function calibrationsAfter(kind: string, place: string, type: VehicleType): PlacedCalibration[] {
	const placed = placedOn(type);
	const work: Work = { does: { kind, place }, title: '', parts: [] };
	const due = new Set(causesOfRepair(work, placed, 0).map(({ id }) => id));
	return [...placed.values()].filter(({ id }) => due.has(id));
}
