import { z } from 'zod';

/** The four of a car. */
export const CAR_POSITIONS = ['front-left', 'front-right', 'rear-left', 'rear-right'] as const;
/** Every place a wheel can be: a car's four, and the axles of a trailer from front to back. */
export const POSITIONS = [
	...CAR_POSITIONS,
	'axle1-left',
	'axle1-right',
	'axle2-left',
	'axle2-right',
	'axle3-left',
	'axle3-right'
] as const;
export const Position = z.enum(POSITIONS);
export type Position = z.infer<typeof Position>;

/** The wheel on the other side of the same axle. */
export const mateOf = (position: Position): Position =>
	(position.endsWith('-left')
		? position.replace(/left$/, 'right')
		: position.replace(/right$/, 'left')) as Position;

/** The signal of a wheel's speed: `rear_left`. */
export type Channel = Position extends infer P extends string
	? P extends `${infer Axle}-${infer Side}`
		? `${Axle}_${Side}`
		: never
	: never;

export const channelOf = (position: Position): Channel => position.replace('-', '_') as Channel;

const BY_CHANNEL = new Map<string, Position>(POSITIONS.map((position) => [channelOf(position), position]));

/** The wheel that a signal is of; null where it is of none. */
export const positionOf = (channel: string): Position | null => BY_CHANNEL.get(channel) ?? null;

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
