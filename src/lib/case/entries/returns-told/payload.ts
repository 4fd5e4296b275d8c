import { z } from 'zod';
import { Address, CodeId, Text } from '../fields';
import { ROADS } from '../shapes';

/** A module's counter counts each pass to fail, eight of them in one bend: older entries went by it, new ones do not. */
const NO_LONGER_ASKED = 'the counter of the module';

export const RETURNS_FROM = ['the customer', 'our own drives'] as const;

/** Residual chances that a shop asks for before an intermittent fault is called gone. */
export const TARGETS = [0.1, 0.05, 0.01] as const;

const Kmh = z.number().min(0).max(300);

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
	dtc: CodeId,
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
