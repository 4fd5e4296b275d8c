import { z } from 'zod';

export const POSITIONS = ['front-left', 'front-right', 'rear-left', 'rear-right'] as const;
export const Position = z.enum(POSITIONS);
export type Position = z.infer<typeof Position>;

export const LAMPS = [
	'brake',
	'anti-lock',
	'stability',
	'steering',
	'hill functions',
	'restraint',
	'engine',
	'dead speedometer'
] as const;
