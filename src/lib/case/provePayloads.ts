import { z } from 'zod';
import { TURNS } from '../core/prove/drivenBands';
import { WAIVABLE } from '../core/prove/proof';
import { Text, Words } from './fields';

const Address = z.string().regex(/^[0-9A-F]{4}$/);
const Dtc = z.string().regex(/^[0-9A-F]{6}$/);

/** A module's counter counts each pass to fail, eight of them in one bend: older entries went by it, new ones do not. */
const NO_LONGER_ASKED = 'the counter of the module';
export const RETURNS_FROM = ['the customer', 'our own drives'] as const;
/** Residual chances that a shop asks for before an intermittent fault is called gone. */
export const TARGETS = [0.1, 0.05, 0.01] as const;

export const ROADS = ['dry', 'wet', 'snow or ice', 'loose'] as const;

const Kmh = z.number().min(0).max(300);
const MOST_BANDS = 400;
/** A driven distance by speed and turn. */
export const DrivenBands = z
	.array(z.object({ fromKmh: Kmh, turn: z.enum(TURNS), km: z.number().min(0).max(100_000) }))
	.max(MOST_BANDS);

/** How a vehicle has to be driven for a fault to show; what is null or false does not matter to it. */
export const ShowsWhen = z.object({
	fromKmh: Kmh.nullable(),
	toKmh: Kmh.nullable(),
	turning: z.boolean(),
	road: z.enum(ROADS).nullable()
});
export type ShowsWhen = z.infer<typeof ShowsWhen>;

/** How often a fault that comes and goes came before it was mended. */
export const ReturnsTold = z.object({
	address: Address,
	dtc: Dtc,
	returns: z.number().int().min(1, 'It came once or more.').max(100_000),
	overKm: z.number().positive('A distance is above 0.').max(1_000_000),
	from: z.enum([...RETURNS_FROM, NO_LONGER_ASKED]),
	/** When it shows: in rain, above a speed, in a turn. */
	conditions: Text,
	/** The same as far as it can be held against a drive: only kilometres driven so count. Absent where any count. */
	showsWhen: ShowsWhen.optional(),
	/** The chance that the shop asked for when it was told. */
	target: z.number().gt(0).lt(1)
});

/** Something that stands between a case and its signature, released by a lead, by name. */
export const Release = z.object({
	subject: z.enum(['complaint', 'finding', 'vehicle-number']),
	/** What of that subject, as `standingItems` names it. */
	of: z.string().min(1).max(100),
	/** What it was, in words. */
	words: Words,
	why: Words
});

/** One thing of a proof that a lead lets go, by name. */
export const ProofWaived = z.object({
	address: Address,
	dtc: Dtc,
	mark: z.enum(WAIVABLE),
	why: Words,
	/** What the customer said to it. */
	customer: Text,
	/** That an unrepaired fault would have stayed silent so far; null where it is not about that. */
	residualChance: z.number().min(0).max(1).nullable()
});
