import { z } from 'zod';
import { LINKS } from '../../../library/links';
import { Position } from '../../../library/positions';
import { SENSOR_KINDS } from '../../../library/sensorKinds';
import { WINDOW_SOURCES } from '../core/electrical/expectedWindow';
import { SCOPE_FINDING_TYPES } from '../core/scope/findings';
import { Text, Ulid, Words } from './fields';

/** Payloads of entries that tell of the bench: what was measured, captured, put in place of a sensor, halved and looked at. */

const Links = z.array(z.enum(LINKS)).max(LINKS.length);
/** What a test says of the links of one corner's path. */
const says = {
	/** Links that it proves good. */
	proves: Links,
	/** Links that it makes suspect. */
	implicates: Links,
	says: Words
};
const Id = z
	.string()
	.regex(/^[a-z][a-z0-9-]*$/)
	.max(60);
const MOST_ANSWERS = 30;
const Finite = z.number().finite();

export const SensorIdentified = z.object({
	/** Null = all wheels of the vehicle. */
	position: Position.nullable(),
	family: z.enum(SENSOR_KINDS),
	/** Answer by question of the guided round; empty where the vehicle's data said so. */
	answers: z
		.record(z.string().max(60), z.string().max(60))
		.refine((answers) => Object.keys(answers).length <= MOST_ANSWERS, 'That is more than was asked.'),
	probability: z.number().min(0).max(1)
});
export type SensorIdentified = z.infer<typeof SensorIdentified>;

export const MeterReading = z.object({
	position: Position.nullable(),
	typeId: z.string().max(60),
	measurement: Id,
	name: Words,
	/** Where the two leads were, in words. */
	red: Words,
	black: Words,
	quantity: z.enum(['V', 'Ω']),
	/** As the display had it; null = over its range. */
	value: Finite.nullable(),
	/** What was judged: corrected to 20 °C where that belongs to it. */
	judgedValue: Finite.nullable(),
	temperatureC: z.number().min(-60).max(200).nullable(),
	accuracy: z.number().min(0),
	window: z.object({
		low: Finite,
		/** Null = no upper end. */
		high: Finite.nullable(),
		source: z.enum(WINDOW_SOURCES),
		because: Words
	}),
	judged: z.enum(['in', 'out', 'borderline']),
	by: z.enum(['hand', 'instrument']),
	/** Plugs that were open. */
	opened: z.array(Text).max(10),
	/** Resistance that a voltage under load gives away. */
	hiddenOhms: Finite.nullable(),
	/** Kept as a good reading of this type of vehicle. */
	knownGood: z.boolean(),
	...says
});
export type MeterReading = z.infer<typeof MeterReading>;

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
	comparison: Words.nullable(),
	verdict: Words,
	knownGood: z.boolean()
});
export type ScopeCapture = z.infer<typeof ScopeCapture>;

export const Substitution = z.object({
	position: Position,
	method: Id,
	name: Words,
	/** What was produced; null where it was no frequency. */
	hertz: z.number().min(0).max(20_000).nullable(),
	ohms: z.number().positive().nullable(),
	expectedKmh: z.number().min(0).max(400),
	seenKmh: z.object({ low: z.number().min(0).max(400), high: z.number().min(0).max(400) }).nullable(),
	outcome: z.enum(['follows', 'nothing', 'another-value', 'not-steady']),
	/** Plugs that were open with the key on: codes of their circuits are made by us. */
	opened: z.array(Text).max(10),
	...says
});
export type Substitution = z.infer<typeof Substitution>;

export const HARNESS_FAULTS = ['open', 'short', 'resistance'] as const;
export const HarnessSearch = z.object({
	position: Position,
	wire: z.enum(['feed', 'signal']),
	fault: z.enum(HARNESS_FAULTS),
	/** Plugs and modules that were open before. */
	exposed: z.array(Text).max(30),
	readings: z
		.array(
			z.object({
				place: z.string().max(60),
				words: Words,
				text: Text,
				reads: z.enum(['good', 'bad']),
				minutes: z.number().min(0)
			})
		)
		.max(60),
	/** The last good place and the first bad one, in words. */
	between: z.tuple([Words, Words]),
	found: z.boolean(),
	contradiction: Text.nullable(),
	...says
});
export type HarnessSearch = z.infer<typeof HarnessSearch>;

export const MOST_PHOTOS = 8;

/** Photos that were kept beside the thread, by hash. */
export const Photos = z.array(z.object({ id: Ulid, sha256: z.string().length(64) })).max(MOST_PHOTOS);
export const InspectionDone = z.object({
	position: Position,
	inspection: Id,
	name: Words,
	result: z.enum(['good', 'bad', 'unsure']),
	found: z.array(Words).max(12),
	gapMm: z.number().min(0).max(20).nullable(),
	note: Text,
	photos: Photos,
	...says
});
export type InspectionDone = z.infer<typeof InspectionDone>;
