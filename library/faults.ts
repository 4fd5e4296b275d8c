import { z } from 'zod';
import faultsFile from './faults/faults.json' with { type: 'json' };
import { LINKS } from './links';
import { PLACES } from './repairs';
import { ModuleRole, SENSOR_KINDS } from './vehicles';

export { LINKS };

/** Value at severity 0 and at severity 1. Between them the ratio is even where both are above zero. */
const Range = z.tuple([z.number(), z.number()]);
/** Places of a corner's circuit, by the pin of its sensor. */
const Part = z.enum([
	'sensor-pin-1',
	'sensor-pin-2',
	'wire-1',
	'wire-2',
	'plug-1',
	'plug-2',
	'module-pin-1',
	'module-pin-2',
	'module-inside-1'
]);
export type Part = z.infer<typeof Part>;

/** What a fault does to the physics: a closed vocabulary with one interpreter, in the bench. */
const Effect = z.discriminatedUnion('do', [
	z.object({
		do: z.literal('ring'),
		what: z.enum(['drop-teeth', 'crack', 'run-out', 'wobble', 'creep', 'gap', 'teeth', 'cover', 'weaken']),
		amount: Range
	}),
	z.object({
		do: z.literal('sensor'),
		what: z.enum(['dead', 'dull', 'coil', 'stuck-low', 'stuck-high', 'spurious']),
		amount: Range
	}),
	z.object({
		do: z.literal('series'),
		part: Part,
		of: z.enum(['wheel', 'axle']).default('wheel'),
		ohms: Range
	}),
	z.object({ do: z.literal('short'), part: Part, to: z.enum(['ground', 'supply', 'mate']), ohms: Range }),
	z.object({ do: z.literal('tyre'), scale: Range, of: z.enum(['wheel', 'axle']) }),
	z.object({ do: z.literal('grip'), share: Range }),
	/** A module's pin by what it is for. */
	z.object({ do: z.literal('pin'), pin: z.string(), ohms: Range }),
	z.object({ do: z.literal('bus-short'), from: z.string(), to: z.string(), ohms: Range }),
	z.object({ do: z.literal('terminator') }),
	z.object({ do: z.literal('frame-loss'), share: Range }),
	z.object({ do: z.literal('frozen') }),
	z.object({ do: z.literal('internal') }),
	z.object({ do: z.literal('dead') }),
	/** The element of the wiring that the place names. */
	z.object({ do: z.literal('element'), ohms: Range }),
	z.object({ do: z.literal('joint'), ohms: Range }),
	/** Every cavity of the plug at which wires of wheels go through. */
	z.object({ do: z.literal('plug-cavities'), ohms: Range }),
	z.object({ do: z.literal('blow') }),
	z.object({ do: z.literal('battery'), volts: Range }),
	z.object({
		do: z.literal('sense'),
		sense: z.enum(['steering-angle', 'yaw-rate', 'lateral', 'pressure']),
		what: z.enum(['offset', 'stuck']),
		amount: Range
	}),
	/** What the module keeps is changed once, when the fault is put in. */
	z.object({
		do: z.literal('keep'),
		id: z.string(),
		what: z.enum(['erase', 'scale', 'garble']),
		amount: Range
	})
]);
export type Effect = z.infer<typeof Effect>;

/** When a fault shows that is not always there; everything named must hold. */
const When = z.object({
	/** Times a second it comes, on the roughest road at 100 km/h. */
	shaking: z.number().positive().optional(),
	/** Mean distance between two times. */
	everyKm: z.number().positive().optional(),
	/** How long it then lasts. */
	forS: Range.optional(),
	/** From this wetness, 0–1. */
	wet: z.number().optional(),
	aboveC: z.number().optional(),
	aboveKmh: z.number().optional(),
	/** With the steering wheel turned further than this either way. */
	steeringDeg: z.number().optional()
});
export type When = z.infer<typeof When>;

/** A sign that eyes or hands see a fault by. */
const Sight = z.object({
	sign: z.string(),
	/** Outcome of the sign. */
	as: z.string(),
	/** Chance that a person who looks for it sees it. */
	surely: z.number().min(0).max(1),
	/** Seen at the other wheel of the axle too. */
	atMate: z.boolean().default(false),
	/** Seen from every wheel whose lead goes through it. */
	atHanging: z.boolean().default(false)
});

export const Fault = z.object({
	id: z.string().regex(/^[a-z][a-z0-9-]*$/),
	name: z.string(),
	link: z.enum(LINKS),
	mode: z.string(),
	at: z.enum(PLACES),
	/** Sensor families it exists on; all where absent. */
	sensors: z.array(z.enum(SENSOR_KINDS)).optional(),
	/** Module roles it exists on; all where absent. */
	only: z.array(ModuleRole).optional(),
	effects: z.array(Effect).min(1),
	when: When.optional(),
	growsPer1000Km: z.number().optional(),
	/** Work by a person put it there. */
	madeByUs: z.boolean().default(false),
	/** What a person who looks for it sees, and how surely. */
	visible: z.array(Sight).default([]),
	/** Repairs at the same place that cure it. */
	curedBy: z.array(z.string()).min(1)
});
export type Fault = z.infer<typeof Fault>;

export const faults = new Map(
	z
		.array(Fault)
		.parse(faultsFile.faults)
		.map((fault) => [fault.id, fault])
);

const STAYS: readonly Effect['do'][] = [
	'keep',
	'blow',
	'internal',
	'dead',
	'terminator',
	'tyre',
	'grip',
	'battery'
];
/** Metal that is gone, bent or rusty does not come back by itself. */
const STAYING_LINKS: readonly Fault['link'][] = ['ring', 'gap', 'tyre'];

/** Whether a fault that is usually there all the time can also come and go. */
export const mayComeAndGo = ({ effects, when, link }: Fault): boolean =>
	when === undefined && !STAYING_LINKS.includes(link) && !effects.some((effect) => STAYS.includes(effect.do));

/** Whether both wheels of an axle have it: then it is put right from either side. */
export const isOfAxle = ({ effects }: Pick<Fault, 'effects'>): boolean =>
	effects.some((effect) => (effect.do === 'tyre' || effect.do === 'series') && effect.of === 'axle');
