import { z } from 'zod';
import { allPlaces } from '../faultPlaces';
import { makersAlone } from '../exposed';
import { inspections, measurements, type Measurement } from '../measure';
import { hasPointsFor, SENSOR_ACCESS_MIN, wheelReaderOf, wirePath, type PathPlace } from '../measurePoints';
import type { Position } from '../positions';
import { PLACES } from '../repairs';
import { Exposes } from '../safety';
import type { SensorKind } from '../sensorKinds';
import { sharedPlugsOf } from '../sharedPlugs';
import type { VehicleType } from '../vehicles';
import { chanceOf, familiesOf } from '../wheelSensors';
import { againKey, signKey, signOf, type SignKey } from './signs';
import { givenSameLine } from './sameLine';
import testsFile from './tests.json' with { type: 'json' };

const ACCESS = [
	'lifted',
	'down',
	'wheel',
	'plug',
	'reader',
	'module',
	'other-end',
	'middle',
	'shared-plug'
] as const;
const Access = z.enum(ACCESS);
export const TEST_STATIONS = ['listen', 'read', 'watch', 'measure', 'prove'] as const;

const TestKind = z.object({
	id: z.string(),
	name: z.string(),
	about: z.enum(PLACES),
	/** Module roles that it is for; all where absent. */
	roles: z.array(z.string()).optional(),
	signs: z.array(z.tuple([z.string(), z.enum(['here', 'corners', 'modules'])])).min(1),
	/** Which wheels it is for; all where absent. */
	wheels: z.enum(['steered', 'driven']).optional(),
	/** Besides getting there. */
	minutes: z.number().positive(),
	access: z.array(Access),
	/** Which module has to answer for it: the one that it is about, or the one that reads the wheels. */
	answers: z.enum(['here', 'reader']).optional(),
	/** It is done by the link alone. */
	link: z.literal(true).optional(),
	/** How many times doing it once more can tell something: it finds what comes and goes. */
	repeats: z.number().int().min(0).default(0),
	/** It is done on a page of its own, which asks for what it shows. */
	ownPage: z.boolean().default(false),
	/** Where it is done. */
	station: z.enum(TEST_STATIONS),
	why: z.string(),
	/** Besides what getting there exposes. */
	exposes: Exposes
});
export type TestKind = z.infer<typeof TestKind>;

const accessMin = z
	.object({ lifted: z.number(), wheel: z.number(), plug: z.number() })
	.parse(testsFile.access);
const inspectionAccess = z.record(z.string(), z.array(Access)).parse(testsFile.inspectionAccess);

const atReader = ({ red, black }: Measurement) =>
	[red, black].some(
		(point) => point.startsWith('module') || point.startsWith('reader') || point.startsWith('bus')
	);
const atSensor = ({ red, black }: Measurement) =>
	[red, black].some((point) => point.startsWith('sensor') || point.startsWith('wire'));

/** What follows a colon begins small. */
const lower = (text: string) => text.charAt(0).toLowerCase() + text.slice(1);

const measuring = measurements.map((one): TestKind => {
	const access: z.infer<typeof Access>[] = [];
	if (one.wheel === 'turns') access.push('lifted');
	if (one.open.includes('sensor') || atSensor(one)) access.push('plug');
	if (one.about !== 'corner') access.push('module');
	else if (one.open.includes('module') || atReader(one)) access.push('reader');
	return {
		id: `meter:${one.id}`,
		name: `Meter: ${lower(one.name)}`,
		about: one.about === 'corner' ? 'corner' : 'module',
		signs: [[`meter:${one.id}`, 'here']],
		minutes: one.minutes,
		access,
		repeats: 0,
		ownPage: true,
		station: 'measure',
		why: one.asks,
		exposes: one.exposes
	};
});
const looking = inspections.map(({ id, name, minutes, gapMm, why, exposes }): TestKind => ({
	id: `look:${id}`,
	name: `Look: ${lower(name)}`,
	about: 'corner',
	signs: [[`look:${id}`, 'here']],
	minutes,
	access: inspectionAccess[id] ?? [],
	// An eye that missed it may see it the second time; a feeler reads the same.
	repeats: gapMm ? 0 : 1,
	ownPage: true,
	station: 'measure',
	why,
	exposes
}));

export const testKinds: ReadonlyMap<string, TestKind> = new Map(
	[...z.array(TestKind).parse(testsFile.tests), ...measuring, ...looking].map((kind) => [kind.id, kind])
);

/** Throws for a test that the library does not have. */
export function testKindOf(id: string): TestKind {
	const kind = testKinds.get(id);
	if (!kind) throw new RangeError(`"${id}" is no test of the library`);
	return kind;
}

/** One thing to get to, paid for once. */
export interface Access {
	id: string;
	minutes: number;
}

/** A test at one place of one vehicle. */
export interface PlacedTest {
	/** `scope-sensor@rear-left`. */
	id: string;
	kind: TestKind;
	place: string;
	minutes: number;
	access: Access[];
	signs: SignKey[];
}

/** What is measured in a test; null where it is none with a meter. */
const measurementOf = ({ id }: TestKind): Measurement | null =>
	measurements.find((one) => id === `meter:${one.id}`) ?? null;

const answersHere = (kind: TestKind, type: VehicleType): boolean =>
	type.tells === 'link' || !(kind.link || kind.answers !== undefined);

/** Families that a measurement or inspection is for; all where it says none. */
const familiesFor = (kind: TestKind): readonly SensorKind[] | undefined =>
	(measurementOf(kind) ?? inspections.find(({ id }) => kind.id === `look:${id}`))?.families;

/** Least chance of the right family with which a test for some of them is thought of before anybody has looked. */
const WORTH_IDENTIFYING = 0.15;
/** Minutes in which a sensor is told by its looks and its pins. */
export const IDENTIFY_MIN = 3;
/** What has to be known of a place before what is for some families is done there. */
export const familyAccess = (place: string): string => `family:${place}`;

/** Whether a test is for the sensor of a place, or may be: then it is told first which it is. */
function forItsSensor(kind: TestKind, type: VehicleType, place: string): 'yes' | 'told-first' | 'no' {
	const chance = chanceOf(familiesOf(type, kind.about, place), familiesFor(kind));
	if (chance > 1 - 1e-9) return 'yes';
	return chance < WORTH_IDENTIFYING ? 'no' : kind.about === 'corner' ? 'told-first' : 'yes';
}

/** What getting to a place costs, each thing that is paid for once. */
export function accessMinutesFor(access: TestKind['access'], type: VehicleType, place: string): Access[] {
	const middle = () => {
		const plugs = middlePlugsOf(type, place);
		const nearest = plugs.reduce((least, one) => Math.min(least, one.accessMin), Infinity);
		return plugs.length > 0 ? [{ id: `middle:${place}`, minutes: nearest }] : [];
	};
	const module = (role: string | undefined) => {
		const found = type.modules.find((one) => one.role === role);
		return found ? [{ id: `module:${found.role}`, minutes: found.accessMin }] : [];
	};
	return access.flatMap((one): Access[] => {
		switch (one) {
			case 'lifted':
				return [{ id: 'lifted', minutes: accessMin.lifted }];
			case 'down':
				return [];
			case 'wheel':
				return [{ id: `wheel:${place}`, minutes: accessMin.wheel }];
			case 'plug':
				return [{ id: `plug:${place}`, minutes: SENSOR_ACCESS_MIN }];
			case 'reader':
				return module(wheelReaderOf(type)?.role);
			case 'module':
				return module(place);
			case 'middle':
				return middle();
			case 'shared-plug':
				return sharedPlugsOf(type)
					.filter(({ name }) => name === place)
					.map(({ name, accessMin: minutes }) => ({ id: `plug:${name}`, minutes }));
			case 'other-end':
				return module(otherEndOf(type, place));
		}
	});
}

/** Plugs in the middle of a wheel's harness. */
export const middlePlugsOf = (
	type: VehicleType,
	position: string
): Pick<PathPlace, 'behind' | 'accessMin'>[] =>
	wirePath(type, position as Position, 'signal').filter(({ node }) => node.endsWith(':a'));

/** The module at the other end of a module's bus segment: at the gateway, or from there at the segment's far terminator. */
export function otherEndOf(type: VehicleType, role: string): string | undefined {
	if (role !== 'gateway') return 'gateway';
	const own = type.modules.find((one) => one.role === role)?.segment;
	return type.harness.terminators.find(({ segment }) => segment === own)?.at.find((end) => end !== role);
}

const isWheelFor = ({ wheels }: TestKind, type: VehicleType, place: string): boolean =>
	!wheels || type.wheels.some((one) => one.position === place && one[wheels]);

const testsByType = new WeakMap<VehicleType, readonly PlacedTest[]>();

/** Every test of the library at every place of a vehicle where it can be done; none where the maker alone says how. */
export function testsFor(type: VehicleType): readonly PlacedTest[] {
	let known = testsByType.get(type);
	if (!known) testsByType.set(type, (known = allTestsFor(type)));
	return known;
}

function allTestsFor(type: VehicleType): PlacedTest[] {
	return [...testKinds.values()].flatMap((kind) => {
		if (!answersHere(kind, type)) return [];
		const measured = measurementOf(kind);
		const places = allPlaces(kind.about, type).filter(
			(place) =>
				(!kind.roles || kind.roles.includes(place)) &&
				isWheelFor(kind, type, place) &&
				forItsSensor(kind, type, place) !== 'no' &&
				(!kind.access.includes('middle') || middlePlugsOf(type, place).length > 0) &&
				hasPointsFor(type, measured ?? {}, place)
		);
		return places
			.map((place) => placedTest(kind, type, place))
			.filter((test) => !touchesMakersAlone(test, type));
	});
}

export function placedTest(kind: TestKind, type: VehicleType, place: string): PlacedTest {
	const toldFirst = forItsSensor(kind, type, place) === 'told-first';
	return {
		id: signKey(kind.id, place),
		kind,
		place,
		minutes: kind.minutes,
		access: [
			...(toldFirst ? [{ id: familyAccess(place), minutes: IDENTIFY_MIN }] : []),
			...accessMinutesFor(kind.access, type, place)
		],
		signs: kind.signs.flatMap(([sign, at]) => {
			signOf(sign);
			if (at === 'here') return [signKey(sign, place)];
			return allPlaces(at === 'corners' ? 'corner' : 'module', type).map((one) => signKey(sign, one));
		})
	};
}

/** Whether a test can be done while some modules do not answer. */
export function canBeDone(
	{ kind, place }: PlacedTest,
	type: VehicleType,
	silent: ReadonlySet<string>
): boolean {
	if (kind.answers === undefined) return true;
	return !silent.has(kind.answers === 'here' ? place : (wheelReaderOf(type)?.role ?? ''));
}

/** A test that has been done, once more: what it then shows counts as one more look at what comes and goes. */
export const onceMore = (test: PlacedTest, before: (sign: SignKey) => string | undefined): PlacedTest => ({
	...test,
	kind: { ...test.kind, name: `${test.kind.name}, once more` },
	signs: test.signs.map((sign) => {
		const seen = before(sign);
		return seen === undefined ? sign : (againKey(sign, seen) as SignKey);
	})
});

/** A test of a line that was read before at another module. */
export function afterSameLine(
	test: PlacedTest,
	before: (sign: SignKey) => string | undefined,
	type: VehicleType
): PlacedTest {
	const signs = test.signs.map(
		(sign) => givenSameLine(sign, (key) => before(key as SignKey), type) as SignKey
	);
	return signs.every((sign, i) => sign === test.signs[i]) ? test : { ...test, signs };
}

const repeatedSigns = new Set(
	[...testKinds.values()].flatMap(({ repeats, signs }) => (repeats > 0 ? signs.map(([sign]) => sign) : []))
);
/** Whether looking again at a sign is another look and not a correction of the first. */
export const isRepeated = (sign: string): boolean => repeatedSigns.has(sign);

/** Whether anything of a test is done at a module, or at wiring of it, that its maker alone says how to work on. */
const touchesMakersAlone = (
	{ kind, place, access }: Pick<PlacedTest, 'kind' | 'place' | 'access'>,
	type: VehicleType
): boolean =>
	(kind.access.length > 0 || !['module', 'vehicle'].includes(kind.about)
		? makersAlone(type, place) !== null
		: false) ||
	access.some(({ id }) => id.startsWith('module:') && makersAlone(type, id.slice('module:'.length)) !== null);
