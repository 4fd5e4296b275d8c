import { Fitting } from './fittingPayloads';
import { LampRead } from './lampPayloads';
import { DrivenBands, ProofWaived, Release, ReturnsTold, ROADS } from './provePayloads';
import { CalibrationTried, CalibrationWaived, RepairPlanned } from './calibrationPayloads';
import { z } from 'zod';
import { ENTRY_VERSION } from './entryVersion';
import { Address, Dtc, Hex, Id, Said, Text, Ulid, Words } from './fields';
import { CodesReported, FrameLog, SourceJudged } from './toldPayloads';
import { LiveRecording, WheelRound } from './livePayloads';
import {
	HarnessSearch,
	InspectionDone,
	MeterReading,
	ScopeCapture,
	SensorIdentified,
	Substitution
} from './measurePayloads';
import { TestStep, Waiting } from './reasonPayloads';
import { LAMPS, Position } from '../../../library/positions';

/**
 * One piece of evidence on a case's thread. An entry is written once and never changed: a correction is a new entry that
 * supersedes an old one and says why. Everything Jaldi says about a case is computed from these.
 */

export { LAMPS };
export const GRADES = ['maker’s own', 'branded', 'no-name', 'used', 'unknown'] as const;

export const VehicleFacts = z.object({
	/** Id of the vehicle in the shop's list. */
	vehicleId: Id,
	typeId: Id,
	name: Words,
	plate: Text,
	/** The signed case that this one is a comeback of, and the hash of its last entry. */
	comebackOf: z.object({ caseId: Id, number: z.string().max(40), lastHash: z.string().length(64) }).optional()
});

export const VehicleChecked = z.object({
	vin: z.string().length(17),
	checkDigitFits: z.boolean(),
	odometerKm: z.number().min(0).max(5_000_000)
});

/** Id in the library's vocabulary. */
const Chosen = z.string().max(40);

export const Complaint = z.object({
	words: Words,
	/** In words of one's own, beside what is chosen. */
	symptoms: z.array(Words).max(20),
	conditions: z.array(Words).max(20),
	/** Chosen from the vocabulary, by id: what is felt, and when it shows. Only these are evidence. */
	felt: z.array(Chosen).max(20).optional(),
	when: z.array(Chosen).max(20).optional()
});

export const LampsReported = z.object({
	lamps: z
		.array(
			z.object({
				lamp: z.enum(LAMPS),
				manner: z.enum(['steady', 'flashing']),
				when: Words
			})
		)
		.max(LAMPS.length)
});

export const PriorWork = z.object({
	works: z
		.array(
			z.object({
				part: Words,
				/** What it was, chosen from the vocabulary by its id. */
				work: Chosen.optional(),
				when: Text,
				by: Text,
				grade: z.enum(GRADES)
			})
		)
		.max(30)
});

export const TyresFitted = z.object({
	tyres: z
		.array(
			z.object({
				position: Position,
				size: Words,
				brand: Text,
				treadMm: z.number().min(0).max(30).nullable(),
				pressureKpa: z.number().min(0).max(1200).nullable()
			})
		)
		.min(1)
		.max(24)
});

/** Over TCP an answer may be far longer than the 4,095 bytes of the bus. */
const MessageHex = Hex.max(131_072);
const RawValue = z.object({ id: z.string().max(8), raw: MessageHex });
/** More modules, codes or exchanges no vehicle has. */
const MOST = { modules: 300, codes: 10_000, exchanges: 5000, snapshots: 300, values: 500, troubles: 20 };
export const ScannedCode = z.object({
	dtc: Dtc,
	/** Status byte, 0–255. */
	status: z.number().int().min(0).max(255),
	snapshots: z
		.array(z.object({ record: z.number().int(), values: z.array(RawValue).max(MOST.values) }))
		.max(MOST.snapshots),
	occurrences: z.number().int().nullable(),
	ageingCycles: z.number().int().nullable(),
	/** What could not be read of this code, in words. */
	troubles: z.array(Said).max(MOST.troubles)
});
export type ScannedCode = z.infer<typeof ScannedCode>;

export const ScannedModule = z.object({
	address: Address,
	name: Said,
	answered: z.boolean(),
	/** Why a module is silent, or what of it could not be read. */
	trouble: Said.nullable(),
	software: Said.nullable(),
	availabilityMask: z.number().int(),
	/** Codes that tell of a fault. */
	codes: z.array(ScannedCode).max(MOST.codes),
	/** Status of every code the module can set. */
	supported: z.array(z.object({ dtc: Dtc, status: z.number().int() })).max(MOST.codes),
	/** Every request and answer, in hex, as it went over the line. */
	exchanges: z
		.array(z.object({ request: MessageHex, response: MessageHex.nullable(), note: Said.nullable() }))
		.max(MOST.exchanges)
});
export type ScannedModule = z.infer<typeof ScannedModule>;

export const NetworkScan = z.object({
	outcome: z.enum(['complete', 'partial']),
	/** Why a partial scan stopped. */
	stoppedBecause: Said.nullable(),
	vin: Said.nullable(),
	keyCycles: z.number().int().nullable(),
	/** How many modules the vehicle's network description names. */
	modulesExpected: z.number().int(),
	modules: z.array(ScannedModule).max(MOST.modules)
});
export type NetworkScan = z.infer<typeof NetworkScan>;

export const Repair = z.object({
	title: Words,
	position: Position.nullable(),
	parts: z.array(z.object({ name: Words, number: Text, grade: z.enum(GRADES) })).max(30),
	temporary: z.boolean(),
	note: Text,
	/** Repair of the library and the place it was done at, where it was chosen from what is suspected. */
	does: z.object({ kind: z.string().max(40), place: z.string().max(40) }).optional()
});

export const CodesCleared = z.object({
	modules: z
		.array(
			z.object({
				address: Address,
				name: Said,
				outcome: z.enum(['cleared', 'refused', 'no-answer', 'unknown']),
				detail: Said.nullable()
			})
		)
		.max(MOST.modules),
	keyCycles: z.number().int().nullable()
});

export const KeyCycled = z.object({
	confirmedBy: z.enum(['vehicle', 'person']),
	countBefore: z.number().int().nullable(),
	countAfter: z.number().int().nullable()
});

export const LampCheck = z.object({
	lamps: z
		.array(z.object({ lamp: z.enum(LAMPS), result: z.enum(['lit and went out', 'stays on', 'never lit']) }))
		.min(1)
		.max(LAMPS.length)
});

export const ProvingDrive = z.object({
	distanceKm: z.number().positive('A drive has a distance.').max(2000),
	topSpeedKmh: z.number().positive().max(300),
	stops: z.number().int().min(0).max(1000),
	road: z.enum(ROADS),
	driver: Text,
	note: Text,
	/** Recordings that its distance was read from: the same kilometres count once. */
	recordings: z.array(Ulid).max(50).optional(),
	/** Its distance by speed and turn, where that was read. */
	bands: DrivenBands.optional(),
	/** Where it was not: kilometres of it that were driven as what comes and goes used to show, by the driver's word. */
	asShownKm: z.number().min(0).max(2000).optional()
});

export const Signature = z.object({ statement: Words, verdict: Words });
export const Note = z.object({ text: Words });

/** Every kind of entry with the shape of its payload. A changed shape gets a new version, never a changed meaning. */
export const PAYLOADS = {
	'case-opened': VehicleFacts,
	'vehicle-checked': VehicleChecked,
	complaint: Complaint,
	'lamps-reported': LampsReported,
	'prior-work': PriorWork,
	'tyres-fitted': TyresFitted,
	'network-scan': NetworkScan,
	'codes-reported': CodesReported,
	'lamp-read': LampRead,
	'frame-log': FrameLog,
	'source-judged': SourceJudged,
	'live-recording': LiveRecording,
	'wheel-round': WheelRound,
	'sensor-identified': SensorIdentified,
	'meter-reading': MeterReading,
	'scope-capture': ScopeCapture,
	substitution: Substitution,
	'harness-search': HarnessSearch,
	inspection: InspectionDone,
	'test-step': TestStep,
	waiting: Waiting,
	repair: Repair,
	'repair-planned': RepairPlanned,
	fitting: Fitting,
	calibration: CalibrationTried,
	'calibration-waived': CalibrationWaived,
	'codes-cleared': CodesCleared,
	'key-cycled': KeyCycled,
	'lamp-check': LampCheck,
	'proving-drive': ProvingDrive,
	'returns-told': ReturnsTold,
	'proof-waived': ProofWaived,
	release: Release,
	note: Note,
	signature: Signature
} as const;

export type EntryKind = keyof typeof PAYLOADS;
export type PayloadOf<K extends EntryKind> = z.infer<(typeof PAYLOADS)[K]>;
export { ENTRY_VERSION };

const Iso = z.iso.datetime();

const envelope = {
	/** Made by whoever wrote the entry, so that sending it twice stores it once. */
	id: Ulid,
	caseId: z.string().min(1),
	version: z.literal(ENTRY_VERSION),
	observedAt: Iso,
	supersedes: z.object({ entryId: Ulid, why: Words }).nullable()
};

const member = <K extends EntryKind>(kind: K) =>
	z.object({ ...envelope, kind: z.literal(kind), payload: PAYLOADS[kind] });

/** What a client sends. */
export const EntryDraft = z.discriminatedUnion('kind', [
	member('case-opened'),
	member('vehicle-checked'),
	member('complaint'),
	member('lamps-reported'),
	member('prior-work'),
	member('tyres-fitted'),
	member('network-scan'),
	member('codes-reported'),
	member('lamp-read'),
	member('frame-log'),
	member('source-judged'),
	member('live-recording'),
	member('wheel-round'),
	member('sensor-identified'),
	member('meter-reading'),
	member('scope-capture'),
	member('substitution'),
	member('harness-search'),
	member('inspection'),
	member('test-step'),
	member('waiting'),
	member('repair'),
	member('repair-planned'),
	member('fitting'),
	member('calibration'),
	member('calibration-waived'),
	member('codes-cleared'),
	member('key-cycled'),
	member('lamp-check'),
	member('proving-drive'),
	member('returns-told'),
	member('proof-waived'),
	member('release'),
	member('note'),
	member('signature')
]);
export type EntryDraft = z.infer<typeof EntryDraft>;

/** What the server adds when it takes an entry onto the thread. */
export interface Stamp {
	/** Place on the thread, from 1. */
	seq: number;
	authorId: string;
	authorName: string;
	receivedAt: string;
	/** Hash of the entry before; of the first entry, {@link FIRST_PREVIOUS}. */
	previousHash: string;
	hash: string;
}

/**
 * An entry that this version cannot read: of a kind, a version or a shape that it does not know. It stays on the thread at its
 * place, is shown as such, and says nothing to any projection.
 */
export interface UnknownDraft extends Omit<
	z.infer<ReturnType<typeof member<'note'>>>,
	'kind' | 'version' | 'payload'
> {
	kind: 'unknown';
	version: number;
	payload: { kind: string; why: string };
}

export type Entry = (EntryDraft | UnknownDraft) & Stamp;
export type EntryOf<K extends EntryKind> = Extract<Entry, { kind: K }>;
