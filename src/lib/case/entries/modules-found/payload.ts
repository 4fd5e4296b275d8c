import { z } from 'zod';
import { Address, Dtc, Said } from '../fields';
import { MOST } from '../shapes';

export const FoundModule = z.object({
	address: Address,
	/** Known to be there and says nothing: why. */
	silent: Said.nullable(),
	/** What it calls itself. */
	name: Said.nullable(),
	software: Said.nullable(),
	/** The number of its part. */
	part: Said.nullable(),
	/** The vehicle's number, as it knows it. */
	vin: Said.nullable(),
	/** Volts of its supply, as it measures them. */
	volts: z.number().nullable(),
	/** Rolling circumference in mm and teeth that it is coded with, as far as it tells them; absent where it tells neither. */
	coded: z.object({ circumferenceMm: z.number().nullable(), teeth: z.number().nullable() }).optional(),
	/** Identifiers of the library that it tells. */
	tells: z.array(z.string().max(8)).max(200),
	/** Codes that it can set (19 0A), as far as it says so. */
	knows: z.array(Dtc).max(MOST.codes)
});
export type FoundModule = z.infer<typeof FoundModule>;

export const ModulesFound = z.object({
	/** How they were asked; of a frame log over CAN, by another tool. */
	over: z.enum(['network', 'can']),
	modules: z.array(FoundModule).max(MOST.modules),
	/** Why not all of them could be asked; null where all were. */
	stoppedBecause: Said.nullable()
});
export type ModulesFound = z.infer<typeof ModulesFound>;
