import { z } from 'zod';
import { BUS_KINDS } from './harness';
import { LINKS } from './links';
import identificationFile from './measure/identification.json' with { type: 'json' };
import inspectionsFile from './measure/inspections.json' with { type: 'json' };
import measurementsFile from './measure/measurements.json' with { type: 'json' };
import substitutionsFile from './measure/substitutions.json' with { type: 'json' };
import { exposedOrSaid, MoreExposes } from './safety';
import { SENSOR_KINDS, type SensorKind } from './sensorKinds';

/**
 * What is done at the bench, as data: measurements with their windows and what they prove, the questions that identify a
 * sensor, the ways to put a signal in its place, and what is looked at. The maker's own data win over all of it.
 */

const Link = z.enum(LINKS);
const Family = z.enum(SENSOR_KINDS);

/** A test that this family must not be given, and what it would do. */
const Unsuited = z.object({
	families: z.array(Family).min(1),
	can: z.enum(['mislead', 'harm']),
	why: z.string()
});

const WindowRule = z.discriminatedUnion('kind', [
	z.object({ kind: z.literal('fixed'), low: z.number(), high: z.number().nullable() }),
	z.object({ kind: z.literal('supply'), fromV: z.number(), toV: z.number() }),
	z.object({
		kind: z.literal('sense'),
		lowA: z.number().positive(),
		highA: z.number().positive(),
		tolerance: z.number().positive()
	})
]);

/** Where a lead of the meter goes: `sensor` = its own pins, `wire` = the harness at its plug, `module…` = at the reader. */
export const POINT_ROLES = [
	'sensor:feed',
	'sensor:signal',
	'wire:feed',
	'wire:signal',
	'module:feed',
	'module:signal',
	'module-wire:feed',
	'module-wire:signal',
	'reader:supply',
	'reader:ground',
	'bus:high',
	'bus:low',
	'battery',
	'body'
] as const;
export type PointRole = (typeof POINT_ROLES)[number];
const Point = z.enum(POINT_ROLES);

const Measurement = z.object({
	id: z.string().regex(/^[a-z][a-z-]*$/),
	name: z.string(),
	about: z.enum(['corner', 'module', 'bus']),
	/** The kind of bus that its limits are of. */
	bus: z.enum(BUS_KINDS).optional(),
	families: z.array(Family).min(1),
	unsuited: z.array(Unsuited).default([]),
	mode: z.enum(['volts-dc', 'volts-ac', 'ohms']),
	red: Point,
	black: Point,
	key: z.enum(['on', 'off']),
	/** Plugs that have to be open. */
	open: z.array(z.enum(['sensor', 'module'])),
	wheel: z.enum(['stands', 'turns']),
	/** Besides getting there. */
	minutes: z.number().positive(),
	/** Corrected to 20 °C before it is judged. */
	atTemperature: z.boolean().default(false),
	/** A voltage too low tells a hidden resistance at the sensor's known current. */
	hidden: z.boolean().default(false),
	windows: z.partialRecord(Family, WindowRule),
	asks: z.string(),
	good: z.object({ proves: z.array(Link), says: z.string() }),
	bad: z.object({ implicates: z.array(Link).min(1), says: z.string() }),
	/** Besides what follows from plugs, wheel, mode and points. */
	exposes: MoreExposes
});
export type Measurement = z.infer<typeof Measurement>;

const Likelihood = z.record(Family, z.number().min(0).max(1));
const Question = z.object({
	id: z.string(),
	text: z.string(),
	how: z.string(),
	answers: z.array(z.object({ id: z.string(), text: z.string(), likelihood: Likelihood })).min(2)
});

const Method = z.object({
	id: z.string(),
	name: z.string(),
	families: z.array(Family).min(1),
	unsuited: z.array(Unsuited).default([]),
	/** The lower, the less it can do wrong: offered first. */
	gentle: z.number().int(),
	minutes: z.number().positive(),
	source: z.enum(['steel', 'sine', 'square', 'mate', 'resistor', 'lamp']),
	volts: z.number().positive().optional(),
	how: z.string(),
	/** What live data should then show. */
	expects: z.enum(['speed', 'mate', 'something', 'level']),
	proves: z.array(Link),
	implicates: z.array(Link).min(1),
	exposes: MoreExposes
});
export type SubstituteMethod = z.infer<typeof Method>;

export const DRAWINGS = [
	'gap',
	'ring',
	'encoder',
	'seating',
	'bracket',
	'lead',
	'clips',
	'pins',
	'water'
] as const;
const Inspection = z.object({
	id: z.string(),
	name: z.string(),
	link: Link,
	families: z.array(Family).min(1),
	drawing: z.enum(DRAWINGS),
	minutes: z.number().positive(),
	/** A feeler's reading belongs to it. */
	gapMm: z.boolean().default(false),
	why: z.string(),
	look: z.string(),
	/** All that can be seen there which is not as it should be. */
	sights: z
		.array(
			z.object({
				id: z.string(),
				words: z.string(),
				/** How often somebody sees it at a place where nothing is wrong; nobody does where it is not said. */
				alsoSound: z.number().min(0).max(0.5).optional()
			})
		)
		.min(1),
	exposes: MoreExposes
});
export type Inspection = z.infer<typeof Inspection>;

/** What a measurement exposes follows from how it is taken. */
function exposedBy({ id, about, mode, red, black, key, open, wheel, exposes }: Measurement): string[] {
	const points = [red, black];
	return exposedOrSaid(`measurement ${id}`, [
		...(open.length > 0 ? ['connector-open'] : []),
		...(open.includes('module') ? ['module-off'] : []),
		...(mode === 'ohms' ? ['ohms'] : []),
		...(mode !== 'ohms' && key === 'on' ? ['live-probed'] : []),
		...(wheel === 'turns' ? ['wheel-turns'] : []),
		// Whatever else hangs on the bus, the restraint module does.
		...(about === 'bus' || points.some((point) => point.startsWith('bus')) ? ['restraint-near'] : []),
		...exposes
	]);
}

export const measurements = z
	.array(Measurement)
	.parse(measurementsFile.measurements)
	.map((one) => ({ ...one, exposes: exposedBy(one) }));
export const sensorQuestions = z.array(Question).parse(identificationFile.questions);
export const substituteMethods = z
	.array(Method)
	.parse(substitutionsFile.methods)
	.map((one) => ({ ...one, exposes: exposedOrSaid(`method ${one.id}`, one.exposes) }))
	.sort((a, b) => a.gentle - b.gentle);
export const inspections = z
	.array(Inspection)
	.parse(inspectionsFile.inspections)
	.map((one) => ({ ...one, exposes: exposedOrSaid(`inspection ${one.id}`, one.exposes) }));

/** Why a family must not be given a test, where it would mislead or do harm; null where the library warns of nothing. */
export function warnedOf(
	{ unsuited }: Pick<Measurement, 'unsuited'>,
	family: SensorKind
): { can: 'mislead' | 'harm'; why: string } | null {
	const told = unsuited.find((one) => one.families.includes(family));
	return told ? { can: told.can, why: told.why } : null;
}

/** The same, also where a test is simply not made for this family; null where it may be given. */
export const unsuitedFor = (
	one: Pick<Measurement, 'families' | 'unsuited'>,
	family: SensorKind
): { can: 'mislead' | 'harm' | 'not-for-it'; why: string } | null =>
	warnedOf(one, family) ??
	(one.families.includes(family) ? null : { can: 'not-for-it', why: 'Not for this kind of sensor.' });
