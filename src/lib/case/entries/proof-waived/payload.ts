import { z } from 'zod';
import { WAIVABLE } from '../../../core/prove/proof';
import { Address, CodeId, Text, Words } from '../fields';

/** One thing of a proof that a lead lets go, by name. */
export const ProofWaived = z.object({
	address: Address,
	dtc: CodeId,
	mark: z.enum(WAIVABLE),
	why: Words,
	/** What the customer said to it. */
	customer: Text,
	/** That an unrepaired fault would have stayed silent so far; null where it is not about that. */
	residualChance: z.number().min(0).max(1).nullable()
});
