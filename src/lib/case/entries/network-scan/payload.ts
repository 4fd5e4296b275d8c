import { z } from 'zod';
import { LONGEST_KEPT_TEXT } from '../../thread/keptLimits';
import { Address, BROKEN_CHARACTER, CodeId, Dtc, Hex, Said, Words } from '../fields';
import { MOST, Photos } from '../shapes';

/** Over TCP an answer may be far longer than the 4,095 bytes of the bus. */
const MessageHex = Hex.max(131_072);

const RawValue = z.object({ id: z.string().max(8), raw: MessageHex });

export const ScannedCode = z.object({
	/** Its id; six hex digits where our own link read it. */
	dtc: CodeId,
	/** What the other tool prints beside it; absent where it prints nothing. */
	told: Said.optional(),
	/** Status byte, 0–255. */
	status: z.number().int().min(0).max(255),
	snapshots: z
		.array(z.object({ record: z.number().int(), values: z.array(RawValue).max(MOST.values) }))
		.max(MOST.snapshots),
	occurrences: z.number().int().nullable(),
	ageingCycles: z.number().int().nullable(),
	/** What could not be read of this code, in words. */
	troubles: z.array(Said).max(MOST.troubles)
});
export type ScannedCode = z.infer<typeof ScannedCode>;

export const ScannedModule = z.object({
	address: Address,
	name: Said,
	answered: z.boolean(),
	/** Why a module is silent, or what of it could not be read. */
	trouble: Said.nullable(),
	software: Said.nullable(),
	availabilityMask: z.number().int(),
	/** Codes that tell of a fault. */
	codes: z.array(ScannedCode).max(MOST.codes),
	/** Status of every code the module can set. */
	supported: z.array(z.object({ dtc: Dtc, status: z.number().int() })).max(MOST.codes),
	/** Every request and answer, in hex, as it went over the line. */
	exchanges: z
		.array(z.object({ request: MessageHex, response: MessageHex.nullable(), note: Said.nullable() }))
		.max(MOST.exchanges)
});
export type ScannedModule = z.infer<typeof ScannedModule>;

export const NetworkScan = z.object({
	outcome: z.enum(['complete', 'partial']),
	/** Why a partial scan stopped. */
	stoppedBecause: Said.nullable(),
	vin: Said.nullable(),
	keyCycles: z.number().int().nullable(),
	/** As the vehicle itself counts it; absent where it was not asked, or did not say. */
	odometerKm: z.number().min(0).max(5_000_000).optional(),
	/** How many modules the vehicle's network description names. */
	modulesExpected: z.number().int(),
	modules: z.array(ScannedModule).max(MOST.modules),
	/** Read by another tool, on the word of whoever wrote it down; absent where our own link read it. */
	otherTool: z
		.object({
			tool: Words,
			/** Its print-out, as it came. */
			text: z
				.string()
				.max(LONGEST_KEPT_TEXT)
				.refine((text) => !BROKEN_CHARACTER.test(text), 'It contains a broken character.'),
			/** Pictures of it. */
			photos: Photos.optional(),
			/** It says that the tests of its codes have run since the clear. */
			testsRan: z.boolean()
		})
		.optional()
});
export type NetworkScan = z.infer<typeof NetworkScan>;
