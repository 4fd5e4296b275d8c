import { z } from 'zod';
import { CHANNEL } from '../../core/live/columnMapping';

/** A signal of broadcast frames as the shop keeps it, and as its file holds it (a JSON list of these). */
export const FrameSignalShape = z
	.object({
		frameId: z.string().regex(/^([0-9A-F]{3}|[0-9A-F]{8})$/, 'An identifier has three hex digits, or eight.'),
		channel: z.string().regex(CHANNEL, 'A signal is written in small letters, digits and _.'),
		firstByte: z.number().int().min(0).max(63),
		bits: z.number().int().min(1).max(32),
		shift: z.number().int().min(0).max(7),
		order: z.enum(['big', 'little']),
		signed: z.boolean(),
		factor: z.number().min(-1e6).max(1e6),
		offset: z.number().min(-1e9).max(1e9),
		only: z
			.object({ byte: z.number().int().min(0).max(63), value: z.number().int().min(0).max(255) })
			.nullable(),
		invalid: z.number().int().min(0).max(4_294_967_295).nullable()
	})
	.refine(({ bits, shift }) => bits + shift <= 32, 'More than 32 bits from the first byte on are not read.');
