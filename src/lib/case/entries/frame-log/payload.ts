import { z } from 'zod';
import { Hex, Text, Words } from '../fields';
import { MOST_KEPT_EXCHANGES, MOST_KEPT_PROBLEMS } from '../../thread/keptLimits';
import { DtcCode, HeavyVehicleCode } from '../codeShapes';

const MessageHex = Hex.max(8192);

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
