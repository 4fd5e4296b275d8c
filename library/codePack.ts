import { z } from 'zod';
import { isCodeNumber } from '../src/lib/core/codes/codeId';
import { LONGEST_OWN } from '../src/lib/core/codes/ownNotation';
import { Condition, conditionDepth, MOST_DEPTH } from '../src/lib/core/conditions/condition';
import { LAMPS, Position } from './positions';

/** The file format of code packs: what one source says about codes. Its JSON Schema is published from here. */

export const GROUPS = {
	'wheel-speed': 'wheel speed: tyre, ring, gap, sensor, lead, module input',
	'tone-ring': 'ring or encoder of the wheel speed path',
	'vehicle-speed': 'vehicle speed, computed from the wheels',
	hydraulics: 'hydraulic unit: valves, pump, fluid',
	pressure: 'pressure sensing',
	'steering-angle': 'steering angle',
	yaw: 'yaw rate and acceleration',
	'brake-switch': 'brake pedal and switches',
	'steering-assist': 'steering assistance',
	tyre: 'tyres: size, wear, pressure',
	lamp: 'lamps and their drivers',
	supply: 'supply and ground',
	module: 'the module itself',
	configuration: 'configuration and coding',
	network: 'messages between modules',
	bus: 'the wires of the bus'
} as const;
export type Group = keyof typeof GROUPS;
export const Group = z.enum(Object.keys(GROUPS) as [Group, ...Group[]]);

/** Groups whose codes speak of the circuit of a wheel: any other code that names a corner is about something else there. */
const WHEEL_CIRCUIT_GROUPS: readonly Group[] = ['wheel-speed', 'tone-ring', 'tyre'];

/** The wheel whose circuit a definition speaks of; null where it speaks of none, though it may name a corner. */
export const wheelCircuitOf = (
	source: Pick<CodeDefinition, 'group' | 'corner'> | null | undefined
): CodeDefinition['corner'] => (source && WHEEL_CIRCUIT_GROUPS.includes(source.group) ? source.corner : null);

/** Parts that codes of one group can be about. */
export const COMPONENTS = [
	'pump',
	'valve',
	'valve-relay',
	'drive-slip-valve',
	'booster',
	'fluid',
	'brake-heat',
	'blending',
	'trailer',
	'stop-lamp',
	'pedal-sensor',
	'function-switch',
	'disagreement'
] as const;

export const DRIVING = {
	unaffected: 'driving is not affected',
	reduced: 'some functions are switched off; drive with care',
	'base-brakes-only': 'base brakes only: no anti-lock, stability or hill functions',
	'do-not-drive': 'do not drive until it is found'
} as const;
export type Driving = keyof typeof DRIVING;
export const Driving = z.enum(Object.keys(DRIVING) as [Driving, ...Driving[]]);

const Sentence = z.string().trim().min(1).max(300);
export const ReadableCondition = Condition.refine((condition) => conditionDepth(condition) <= MOST_DEPTH, {
	error: `nested more than ${MOST_DEPTH} deep: nobody can read that`
});

export const CodeDefinition = z.strictObject({
	code: z
		.string()
		.max(LONGEST_OWN + 1)
		.refine(
			isCodeNumber,
			'A code is a letter P, C, B or U, a digit 0–3 and three hex digits; or SPN and a number; or an equals sign and the maker’s own code.'
		),
	/**
	 * Only for this kind of failure; left out = for the code whatever its suffix. A maker's own notation has no suffix: of such a code it is
	 * the kind of failure that it tells of.
	 */
	failureType: z
		.string()
		.regex(/^[0-9A-F]{2}$/, 'A failure type is two hex digits.')
		.nullable()
		.default(null),
	title: z.string().trim().min(1).max(120),
	group: Group,
	/** Which part of what its group is about, where a group has several that have nothing to do with each other. */
	component: z.enum(COMPONENTS).nullable().default(null),
	corner: Position.nullable().default(null),
	lamps: z.array(z.enum(LAMPS)).max(LAMPS.length).default([]),
	driving: Driving.default('unaffected'),
	/** What sets the code. */
	setConditions: ReadableCondition.nullable().default(null),
	/** What must happen before its test completes as good. */
	testConditions: ReadableCondition.nullable().default(null),
	causes: z.array(Sentence).max(30).default([]),
	notes: z.string().trim().max(2000).default(''),
	/** Which module should have been heard or gave the data, by its role in the vehicle's network. */
	sender: z
		.string()
		.regex(/^[a-z0-9-]{1,40}$/)
		.nullable()
		.default(null)
});
export type CodeDefinition = z.infer<typeof CodeDefinition>;

export const PACK_FORMAT = 'jaldi-code-pack';

export const PackHead = z.strictObject({
	format: z.literal(PACK_FORMAT),
	version: z.literal(1),
	id: z.string().regex(/^[a-z0-9][a-z0-9-]{1,59}$/, 'An id is small letters, digits and dashes.'),
	name: z.string().trim().min(1).max(80),
	/** Where this comes from: which data, of whom. */
	source: z.string().trim().min(1).max(200),
	/** State of the source. */
	date: z.iso.date('A date is written as 2026-11-25.'),
	/** Whether the source states what sets its codes, or those conditions are typical ones and no standard's. */
	conditions: z.enum(['stated', 'typical']).default('stated'),
	/** Set where the definitions hold for vehicles of one maker only. */
	maker: z.string().trim().min(1).max(60).nullable().default(null)
});
export type PackHead = z.infer<typeof PackHead>;

export const MOST_DEFINITIONS = 60_000;
export const CodePack = PackHead.extend({ definitions: z.array(CodeDefinition).max(MOST_DEFINITIONS) });
export type CodePack = z.infer<typeof CodePack>;

/** What two definitions of one pack may not share. */
export const definitionKey = ({ code, failureType }: Pick<CodeDefinition, 'code' | 'failureType'>): string =>
	failureType === null ? code : `${code}-${failureType}`;
