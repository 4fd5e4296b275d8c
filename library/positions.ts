import { z } from 'zod';

/** The four of a car. */
export const CAR_POSITIONS = ['front-left', 'front-right', 'rear-left', 'rear-right'] as const;
/** The two of a motorcycle, one behind the other. */
export const SINGLE_TRACK_POSITIONS = ['front-wheel', 'rear-wheel'] as const;
/** Every place a wheel can be: a car's four, a motorcycle's two, and the axles of a trailer from front to back. */
export const POSITIONS = [
	...CAR_POSITIONS,
	...SINGLE_TRACK_POSITIONS,
	'axle1-left',
	'axle1-right',
	'axle2-left',
	'axle2-right',
	'axle3-left',
	'axle3-right'
] as const;
export const Position = z.enum(POSITIONS);
export type Position = z.infer<typeof Position>;

/** The only wheel of its axle. */
export const isSingleTrack = (position: Position): boolean =>
	(SINGLE_TRACK_POSITIONS as readonly Position[]).includes(position);

const OTHER_END: Record<string, string> = { left: 'right', right: 'left', front: 'rear', rear: 'front' };

/** The wheel to hold one against: on the other side of its axle, and where there is one wheel an axle, the other of the two. */
export function mateOf(position: Position): Position {
	const [axle = '', side = ''] = position.split('-');
	return (side === 'wheel' ? `${OTHER_END[axle]}-wheel` : `${axle}-${OTHER_END[side]}`) as Position;
}

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
