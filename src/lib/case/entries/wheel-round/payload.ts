import { z } from 'zod';
import { Position } from '../../../../../library/positions';
import { Words } from '../fields';

export const ROUND_RESULTS = ['answers', 'dead', 'erratic', 'weaker', 'turns-mate', 'not-trusted'] as const;
export type RoundResult = (typeof ROUND_RESULTS)[number];

/** Each wheel turned in its turn, by hand or by the engine, and what its signal did. */
export const WheelRound = z.object({
	mode: z.enum(['hand', 'gear']),
	rateHz: z.number().min(0),
	corners: z
		.array(
			z.object({
				position: Position,
				result: z.enum(ROUND_RESULTS),
				topKmh: z.number().min(0).max(400),
				text: Words
			})
		)
		.min(1)
		.max(12)
});
