import { z } from 'zod';
import { CHANNEL, MOST_CHANNELS } from '../../../core/live/columnMapping';
import { FINDING_TYPES } from '../../../core/live/findings';
import { Position } from '../../../../../library/positions';
import { Address, CodeId, Text, Words } from '../fields';
import { DrivenBands } from '../shapes';

const Channel = z.string().regex(CHANNEL);

/** Longer than this no recording is: four months. */
export const LONGEST_S = 1e7;

const Seconds = z.number().min(0).max(LONGEST_S);

export const MOST_MARKS = 500;

export const LiveMark = z.object({ atS: Seconds, label: Text });
export type LiveMark = z.infer<typeof LiveMark>;

const Finding = z.object({
	type: z.enum(FINDING_TYPES),
	channel: Channel,
	startS: Seconds,
	endS: Seconds,
	count: z.number().int().min(1),
	value: z.number(),
	text: Words
});

export const MOST_HEARD = 500;

/** What a module said of a code while the vehicle was driven. */
export const HeardCode = z.object({
	atS: Seconds,
	address: Address,
	dtc: CodeId,
	status: z.number().int().min(0).max(255),
	/** Vehicle speed at that moment; null where it was not read. */
	kmh: z.number().min(0).max(400).nullable()
});
export type HeardCode = z.infer<typeof HeardCode>;

/** What a hand can be put on along the way of a wheel's signal. */
export const MOVED = ['sensor', 'sensor-plug', 'lead', 'module-plug'] as const;
export type Moved = (typeof MOVED)[number];

/**
 * What is done to make a fault show that comes and goes: a place is moved, water or hot air brought to it, the steering turned
 * from lock to lock, driven wheels run in gear on stands. `turns-still` is a person's word, while the value is gone, that the
 * wheel is still turned; with `hands-off` what was done before it ends.
 */
export const DONE = ['move', 'wet', 'warm', 'lock', 'in-gear', 'turns-still', 'hands-off'] as const;
export const PROVOKING = [
	'move',
	'wet',
	'warm',
	'lock',
	'in-gear'
] as const satisfies (typeof DONE)[number][];
export type Provoking = (typeof PROVOKING)[number];

/** What a name on a button is. */
export const TouchedPlace = z.object({
	label: Text,
	/** What the hand is on; absent where it is on nothing of the wheel's way. */
	is: z.enum(MOVED).optional(),
	/** Absent in those from before anything else was done than to move it. */
	does: z.enum(DONE).optional()
});
export type TouchedPlace = z.infer<typeof TouchedPlace>;

/** What was done to one wheel in a recording, for how long it turned meanwhile, and how often its value changed. */
export const TriedThing = z.object({
	position: Position,
	does: z.enum(PROVOKING),
	is: z.enum(MOVED).optional(),
	label: Text,
	seconds: Seconds,
	changes: z.number().int().min(0)
});
export type TriedThing = z.infer<typeof TriedThing>;

/** What a recording was made for, where a page began it for something: its name is anybody's. */
export const Purpose = z.object({
	what: z.enum(['wheel-round', 'wiggle', 'substitution', 'road-test', 'proving-drive', 'in-gear']),
	/** The wheel it is about; null = all of them. */
	position: Position.nullable(),
	/** Of a wiggle: what each name on its buttons is, since its marks are those names. */
	places: z.array(TouchedPlace).max(20).optional()
});
export type Purpose = z.infer<typeof Purpose>;

/** What a running recording is about, as its job tells: `wiggle@rear-left`, `road-test`. */
export const purposeKey = ({ what, position }: Pick<Purpose, 'what' | 'position'>): string =>
	position ? `${what}@${position}` : what;

export const LiveRecording = z.object({
	name: Text,
	/** Absent where nobody said, and in recordings from before it was asked. */
	purpose: Purpose.optional(),
	/** Whether the wheels turned as they do on stands and never on a road; absent in recordings from before it was kept. */
	onStands: z.boolean().optional(),
	source: z.discriminatedUnion('kind', [
		z.object({ kind: z.literal('vehicle') }),
		z.object({ kind: z.literal('file'), fileName: Words, bytes: z.number().int().min(0) })
	]),
	durationS: Seconds,
	rows: z.number().int().min(0),
	rateHz: z.number().min(0),
	channels: z.array(Channel).min(1).max(MOST_CHANNELS),
	marks: z.array(LiveMark).max(MOST_MARKS),
	/** Why it ended otherwise than by a person; null = stopped by one, or a whole file. */
	endedBecause: Text.nullable(),
	/** What the analysis found in it when it was saved. */
	findings: z.array(Finding).max(200),
	common: z.array(z.object({ channels: z.array(Channel).max(MOST_CHANNELS), text: Words })).max(50),
	notes: z.array(z.object({ channel: z.string().max(120), text: Words })).max(50),
	verdict: Words,
	/** Nothing shorter shows at its rate. */
	shortestVisibleS: z.number().min(0),
	/** For how long it met what the tests of the case's codes need; absent in recordings from before this was looked at. */
	conditions: z
		.array(
			z.object({
				address: Address,
				dtc: CodeId,
				metS: Seconds
			})
		)
		.max(500)
		.optional(),
	/** Binds its samples to it, see `samplesHash`; absent in those from before. */
	samplesSha256: z
		.string()
		.regex(/^[0-9a-f]{64}$/)
		.optional(),
	/** The distance driven in it by speed and turn; absent where vehicle speed was not read. */
	bands: DrivenBands.optional(),
	/** Of a wiggle or a run in gear: what was done, and what it showed. Absent in recordings from before this was looked at. */
	tried: z.array(TriedThing).max(100).optional(),
	/** Codes whose status the modules told while it ran: each change of one, as it was heard. Absent where nobody asked. */
	heard: z.array(HeardCode).max(MOST_HEARD).optional()
});
export type LiveRecording = z.infer<typeof LiveRecording>;
