import { z } from 'zod';
import { MAX_FMI, MAX_SPN } from '../core/codes/diagnosticMessage';
import { CODE_TEXT } from '../core/codes/dtc';
import { ENTRY_VERSION } from './entryVersion';
import { LONGEST_KEPT_TEXT, MOST_KEPT_EXCHANGES, MOST_KEPT_PROBLEMS } from './keptLimits';
import { LAMPS, Position } from '../../../library/positions';

/**
 * One piece of evidence on a case's thread. An entry is written once and never changed: a correction is a new entry that
 * supersedes an old one and says why. Everything Jaldi says about a case is computed from these.
 */

/** Half of a character that needs two: no text, and nothing that can be hashed. */
const BROKEN_CHARACTER = /\p{Surrogate}/u;
const Text = z
	.string()
	.trim()
	.max(2000, 'That is longer than 2,000 characters: split it.')
	.refine((text) => !BROKEN_CHARACTER.test(text), 'It contains a broken character: type it again.');
const Words = Text.min(1, 'Write at least a word.');
const Hex = z.string().regex(/^([0-9A-F]{2})*$/);
const Address = z.string().regex(/^[0-9A-F]{4}$/);
const Dtc = z.string().regex(/^[0-9A-F]{6}$/);

export { LAMPS };
export const GRADES = ['maker’s own', 'branded', 'no-name', 'used', 'unknown'] as const;
export const ROADS = ['dry', 'wet', 'snow or ice', 'loose'] as const;

export const VehicleFacts = z.object({
	/** Id of the vehicle in the shop's list. */
	vehicleId: z.string(),
	typeId: z.string(),
	name: Words,
	plate: Text
});

export const VehicleChecked = z.object({
	vin: z.string().length(17),
	checkDigitFits: z.boolean(),
	odometerKm: z.number().min(0).max(5_000_000)
});

export const Complaint = z.object({
	words: Words,
	symptoms: z.array(Words).max(20),
	conditions: z.array(Words).max(20)
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
	works: z.array(z.object({ part: Words, when: Text, by: Text, grade: z.enum(GRADES) })).max(30)
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
});

const RawValue = z.object({ id: z.string(), raw: Hex });
export const ScannedCode = z.object({
	dtc: Dtc,
	/** Status byte, 0–255. */
	status: z.number().int().min(0).max(255),
	snapshots: z.array(z.object({ record: z.number().int(), values: z.array(RawValue) })),
	occurrences: z.number().int().nullable(),
	ageingCycles: z.number().int().nullable(),
	/** What could not be read of this code, in words. */
	troubles: z.array(z.string())
});
export type ScannedCode = z.infer<typeof ScannedCode>;

export const ScannedModule = z.object({
	address: Address,
	name: z.string(),
	answered: z.boolean(),
	/** Why a module is silent, or what of it could not be read. */
	trouble: z.string().nullable(),
	software: z.string().nullable(),
	availabilityMask: z.number().int(),
	/** Codes that tell of a fault. */
	codes: z.array(ScannedCode),
	/** Status of every code the module can set. */
	supported: z.array(z.object({ dtc: Dtc, status: z.number().int() })),
	/** Every request and answer, in hex, as it went over the line. */
	exchanges: z.array(z.object({ request: Hex, response: Hex.nullable(), note: z.string().nullable() }))
});
export type ScannedModule = z.infer<typeof ScannedModule>;

export const NetworkScan = z.object({
	outcome: z.enum(['complete', 'partial']),
	/** Why a partial scan stopped. */
	stoppedBecause: z.string().nullable(),
	vin: z.string().nullable(),
	keyCycles: z.number().int().nullable(),
	/** How many modules the vehicle's network description names. */
	modulesExpected: z.number().int(),
	modules: z.array(ScannedModule)
});
export type NetworkScan = z.infer<typeof NetworkScan>;

export const Repair = z.object({
	title: Words,
	position: Position.nullable(),
	parts: z.array(z.object({ name: Words, number: Text, grade: z.enum(GRADES) })).max(30),
	temporary: z.boolean(),
	note: Text
});

export const CodesCleared = z.object({
	modules: z.array(
		z.object({
			address: Address,
			name: z.string(),
			outcome: z.enum(['cleared', 'refused', 'no-answer', 'unknown']),
			detail: z.string().nullable()
		})
	),
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
});

export const ProvingDrive = z.object({
	distanceKm: z.number().positive('A drive has a distance.').max(2000),
	topSpeedKmh: z.number().positive().max(300),
	stops: z.number().int().min(0).max(1000),
	road: z.enum(ROADS),
	driver: Text,
	note: Text
});

const FailureTypeByte = z.string().regex(/^[0-9A-F]{2}$/);
const StatusByte = z.number().int().min(0).max(255);
const CodeWritten = z.string().regex(CODE_TEXT);
const MessageHex = Hex.max(8192);

const DtcCode = z.object({
	code: CodeWritten,
	failureType: FailureTypeByte.nullable(),
	status: StatusByte.nullable()
});
const HeavyVehicleCode = z.object({
	spn: z.number().int().min(0).max(MAX_SPN),
	fmi: z.number().int().min(0).max(MAX_FMI),
	occurrences: z.number().int().min(0).max(126).nullable(),
	conversion: z.literal([0, 1])
});

/** A code of any family, as it was told to us. */
export const ToldAnyCode = z.discriminatedUnion('kind', [
	DtcCode.extend({ kind: z.literal('dtc') }),
	HeavyVehicleCode.extend({ kind: z.literal('j1939') }),
	z.object({ kind: z.literal('lamp'), groups: z.array(z.number().int().min(1).max(99)).min(1).max(20) })
]);

/** Codes that somebody told us: typed from the decoder, or found in a text and confirmed by a person. */
export const CodesReported = z.object({
	origin: z.enum(['typed', 'pasted']),
	/** What it was: a file's name, "print-out of another garage". */
	sourceName: Text,
	/** The text as it came, whole. */
	text: z
		.string()
		.max(LONGEST_KEPT_TEXT)
		.refine((text) => !BROKEN_CHARACTER.test(text), 'It contains a broken character.'),
	modules: z
		.array(
			z.object({
				name: Text.nullable(),
				codes: z
					.array(
						z.object({
							code: ToldAnyCode,
							spelling: Text,
							line: z.number().int().positive(),
							/** What the text says of its state. */
							words: z.array(Text).max(20),
							told: Text
						})
					)
					.max(500),
				values: z
					.array(
						z.object({
							name: Text,
							value: z.number(),
							unit: Text,
							line: z.number().int().positive(),
							/** Which of the codes it stood with. */
							ofCode: z.number().int().min(0).nullable()
						})
					)
					.max(500)
			})
		)
		.min(1)
		.max(100)
});

const BusId = z.string().regex(/^([0-9A-F]{3}|[0-9A-F]{8})$/);
const Counted = z.number().int().min(0);
const LampStates = z.object({ state: z.string().max(20), flash: z.string().max(20) });

/** What a capture of bus traffic held: the codes, and the exchanges byte for byte. */
export const FrameLog = z.object({
	fileName: Words,
	bytes: Counted,
	frames: Counted,
	durationS: z.number().min(0),
	badLineCount: Counted,
	badLines: z.array(z.object({ line: z.number().int(), reason: Text })).max(MOST_KEPT_PROBLEMS),
	exchangeCount: Counted,
	exchanges: z
		.array(
			z.object({
				timeS: z.number(),
				requestId: BusId.nullable(),
				responseId: BusId.nullable(),
				request: MessageHex.nullable(),
				response: MessageHex.nullable(),
				waits: Counted
			})
		)
		.max(MOST_KEPT_EXCHANGES),
	modules: z
		.array(z.object({ requestId: BusId.nullable(), responseId: BusId, codes: z.array(DtcCode).max(1000) }))
		.max(256),
	broadcasts: z
		.array(
			z.object({
				source: z.string().regex(/^[0-9A-F]{2}$/),
				pgn: z.number().int(),
				codes: z.array(HeavyVehicleCode).max(1000),
				lamps: z.object({
					malfunction: LampStates,
					stop: LampStates,
					warning: LampStates,
					protect: LampStates
				}),
				messages: Counted
			})
		)
		.max(512),
	problemCount: Counted,
	problems: z
		.array(z.object({ timeS: z.number(), id: z.string().max(10), reason: Text, detail: Text }))
		.max(MOST_KEPT_PROBLEMS)
});

/** Two sources say different things about a code: which one the measurements on this vehicle support. */
export const SourceJudged = z.object({
	code: CodeWritten,
	failureType: FailureTypeByte.nullable(),
	supported: z.object({ packId: z.string().max(60), name: Words, says: Words }),
	against: z.array(z.object({ packId: z.string().max(60), name: Words, says: Words })).max(20),
	because: Words
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
	'frame-log': FrameLog,
	'source-judged': SourceJudged,
	repair: Repair,
	'codes-cleared': CodesCleared,
	'key-cycled': KeyCycled,
	'lamp-check': LampCheck,
	'proving-drive': ProvingDrive,
	note: Note,
	signature: Signature
} as const;

export type EntryKind = keyof typeof PAYLOADS;
export type PayloadOf<K extends EntryKind> = z.infer<(typeof PAYLOADS)[K]>;
export { ENTRY_VERSION };

const Ulid = z.string().regex(/^[0-9A-HJKMNP-TV-Z]{26}$/, 'An entry id is a ULID.');
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
	member('frame-log'),
	member('source-judged'),
	member('repair'),
	member('codes-cleared'),
	member('key-cycled'),
	member('lamp-check'),
	member('proving-drive'),
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

export type Entry = EntryDraft & Stamp;
export type EntryOf<K extends EntryKind> = Extract<Entry, { kind: K }>;
