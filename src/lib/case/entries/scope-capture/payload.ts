import { z } from 'zod';
import { Position } from '../../../../../library/positions';
import { SCOPE_FINDING_TYPES } from '../../../core/scope/findings';
import { Text, Words } from '../fields';
import { Finite, Links } from '../shapes';

export const MOST_PROBES = 4;

const ChannelName = z.string().regex(/^[a-z0-9_.:-]{1,60}$/);

const ScopeFinding = z.object({
	type: z.enum(SCOPE_FINDING_TYPES),
	perRev: z.boolean(),
	times: z.array(Finite).max(100),
	count: z.number().int().min(1),
	value: Finite,
	text: Words,
	teeth: z.array(z.number().int().min(0).max(400)).max(400)
});

/** Rings with more teeth are not kept as a picture. */
export const MOST_TEETH = 400;

const KeptRing = z.object({
	teeth: z.number().int().min(1).max(MOST_TEETH),
	turns: z.number().min(0),
	/** Height of each pulse against the usual one; 0 where none was seen. */
	height: z.array(z.number().min(0).max(100)).max(MOST_TEETH),
	/** Share of the turns in which the tooth was seen. */
	seen: z.array(z.number().min(0).max(1)).max(MOST_TEETH)
});

/** What a sensor says of itself, as `SensorSays` of the analysis. */
const KeptSays = z.object({
	protocol: z.enum(['bits', 'pulse-width']),
	read: z.number().int().min(0),
	wrong: z.number().int().min(0),
	weak: z.number().int().min(0),
	strength: z.number().min(0).max(7).nullable(),
	standing: z.number().int().min(0),
	direction: z
		.object({
			forwards: z.number().int().min(0),
			backwards: z.number().int().min(0),
			changesAt: z.array(Finite).max(100)
		})
		.nullable()
});

export const ScopeCapture = z.object({
	name: Text,
	typeId: z.string().max(60),
	source: z.discriminatedUnion('kind', [
		z.object({ kind: z.literal('instrument') }),
		z.object({ kind: z.literal('file'), fileName: Words, bytes: z.number().int().min(0) })
	]),
	rateHz: z.number().positive(),
	durationS: z.number().min(0),
	samples: z.number().int().min(0),
	/** Teeth of the ring that it was analysed with; null = unknown. */
	teeth: z.number().int().positive().nullable(),
	channels: z
		.array(
			z.object({
				name: ChannelName,
				/** Which wheel's it is; null where nobody said. */
				position: Position.nullable(),
				/** Where the tip was, in words. */
				probe: Text,
				at: z.enum(['module', 'sensor', 'elsewhere']),
				kind: z.enum(['active', 'passive', 'flat']),
				lowV: Finite,
				highV: Finite,
				peakToPeakV: Finite,
				pulses: z.number().int().min(0),
				medianHz: Finite.nullable(),
				/** Sampled too slowly for its pulses: it says nothing. Absent in those from before it was looked at. */
				tooSlow: z.boolean().optional(),
				/** Of a sensor that says more than its teeth; absent where it does not. */
				says: KeptSays.optional(),
				teethPerRev: z.number().int().nullable(),
				voltsPerHz: Finite.nullable(),
				findings: z.array(ScopeFinding).max(20),
				/** One turn of its ring as the mean of all, for a picture; absent where no turn was whole. */
				ring: KeptRing.optional(),
				proves: Links,
				implicates: Links
			})
		)
		.min(1)
		.max(MOST_PROBES),
	/** Binds its samples to it, see `samplesHash`; absent in those from before. */
	samplesSha256: z
		.string()
		.regex(/^[0-9a-f]{64}$/)
		.optional(),
	/** Whoever took it says that the wheels turned; absent where nobody said. */
	turned: z.boolean().optional(),
	comparison: Words.nullable(),
	verdict: Words,
	knownGood: z.boolean()
});
export type ScopeCapture = z.infer<typeof ScopeCapture>;
