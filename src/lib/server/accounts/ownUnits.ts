import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { UNITS, unitsOf, type Units } from '../../core/units/units';
import type { Database } from '../db/open';
import { user } from '../db/schema';

/** What somebody chooses, or a lead for the whole shop. */
export const Choice = z.object({
	distance: z.enum(UNITS.distance),
	pressure: z.enum(UNITS.pressure),
	torque: z.enum(UNITS.torque),
	temperature: z.enum(UNITS.temperature),
	length: z.enum(UNITS.length)
});

/** The units that somebody chose; null where the shop's are theirs. */
export async function ownUnits(db: Database, memberId: string): Promise<Units | null> {
	const [row] = await db.select({ units: user.units }).from(user).where(eq(user.id, memberId));
	return unitsRead(row?.units);
}

/** What is kept of a choice; whatever is none is the shop's. */
export function unitsRead(kept: unknown): Units | null {
	const choice = Choice.safeParse(kept);
	return choice.success ? unitsOf(choice.data) : null;
}

/** @param units null = as the shop has them */
export async function chooseUnits(
	db: Database,
	memberId: string,
	units: z.output<typeof Choice> | null
): Promise<void> {
	await db.update(user).set({ units }).where(eq(user.id, memberId));
}
