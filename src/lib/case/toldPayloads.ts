import { z } from 'zod';
import { MAX_FMI, MAX_SPN } from '../core/codes/diagnosticMessage';
import { CODE_TEXT } from '../core/codes/dtc';
import { BROKEN_CHARACTER, Hex, Text, Words } from './fields';
import { LONGEST_KEPT_TEXT, MOST_KEPT_EXCHANGES, MOST_KEPT_PROBLEMS } from './keptLimits';

/** Payloads of entries that keep what others told us of codes: people, print-outs, logs, books. */

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
const ToldAnyCode = z.discriminatedUnion('kind', [
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
	/** The log itself, unpacked, as it is kept beside the thread under the entry's id; absent where it is too large for that. */
	kept: z.object({ sha256: z.string().regex(/^[0-9a-f]{64}$/), bytes: Counted }).optional(),
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
