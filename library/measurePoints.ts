import { assumedAccess, isKnown } from './vehicle/known';
import { isPinTold, pinPath } from './vehicle/pins';
import type { BusKind } from './harness';
import type { Measurement, PointRole } from './measure';
import type { Position } from './positions';
import type { SensorKind } from './sensorKinds';
import type { ModuleType, VehicleType } from './vehicles';

/** How the bus of a module rests and ends; null where it has none: older than any bus, or on a segment that is not described. */
export function busKindAt(
	{ tells, modules, harness }: VehicleType,
	role: string | undefined
): BusKind | null {
	if (tells !== 'link') return null;
	const own = modules.find((module) => module.role === role)?.segment;
	return harness.segments.find(({ name }) => name === own)?.kind ?? null;
}

/** Whether something can be measured at a module: what is of a bus only at one with a bus of that kind. */
export const hasPointsFor = (
	type: VehicleType,
	{ bus }: Pick<Measurement, 'bus'>,
	role: string | undefined = wheelReaderOf(type)?.role
): boolean => bus === undefined || busKindAt(type, role) === bus;

/** Whether the wheels' sensors are wired to this module. */
export const readsWheels = ({ pins }: Pick<ModuleType, 'pins'>): boolean =>
	Object.values(pins).some((does) => does.startsWith('signal '));

/** The module that reads the wheel speeds; null where the description names none. */
export const wheelReaderOf = (type: VehicleType): ModuleType | null => type.modules.find(readsWheels) ?? null;

const pinOf = ({ role, pins }: ModuleType, does: string): string | null => {
	const pin = Object.entries(pins).find(([, is]) => is === does)?.[0];
	return pin === undefined ? null : `${role}.${pin}`;
};

/** Points at any module's own plug; null for points that are elsewhere, or that this module does not have. */
export function pinNode(module: ModuleType, point: PointRole): string | null {
	const does: Partial<Record<PointRole, string>> = {
		'reader:supply': 'supply',
		'reader:ground': 'ground',
		'bus:high': 'bus-high',
		'bus:low': 'bus-low'
	};
	const pin = does[point];
	return pin === undefined ? null : pinOf(module, pin);
}

/** The node of the vehicle's wiring behind each role of a point; null where this vehicle has none. */
export function nodeOf(type: VehicleType, position: Position, point: PointRole): string | null {
	const reader = wheelReaderOf(type);
	const atReader = (does: string, side = '') => {
		const pin = reader && pinOf(reader, does);
		return pin === null ? null : pin + side;
	};
	switch (point) {
		case 'body':
		case 'battery':
			return point;
		case 'sensor:feed':
			return `${position}.1`;
		case 'sensor:signal':
			return `${position}.2`;
		case 'wire:feed':
			return `${position}.1:w`;
		case 'wire:signal':
			return `${position}.2:w`;
		case 'module:feed':
			return atReader(`feed ${position}`);
		case 'module:signal':
			return atReader(`signal ${position}`);
		case 'module-wire:feed':
			return atReader(`feed ${position}`, ':w');
		case 'module-wire:signal':
			return atReader(`signal ${position}`, ':w');
		case 'reader:supply':
			return atReader('supply');
		case 'reader:ground':
			return atReader('ground');
		case 'bus:high':
			return atReader('bus-high');
		case 'bus:low':
			return atReader('bus-low');
	}
}

/** What the pin of the reading module does that a point is at; null for a point elsewhere. */
const DOES: Partial<Record<PointRole, (position: Position) => string>> = {
	'module:feed': (position) => `feed ${position}`,
	'module:signal': (position) => `signal ${position}`,
	'module-wire:feed': (position) => `feed ${position}`,
	'module-wire:signal': (position) => `signal ${position}`,
	'reader:supply': () => 'supply',
	'reader:ground': () => 'ground',
	'bus:high': () => 'bus-high',
	'bus:low': () => 'bus-low'
};

/** Where in the description it stands which pin a point is at, while nobody has told; null where it is known, or no pin of a module. */
export function untoldPinAt(type: VehicleType, position: Position, point: PointRole): string | null {
	const reader = wheelReaderOf(type);
	const does = DOES[point]?.(position);
	if (!reader || does === undefined || isPinTold(type, reader.role, does)) return null;
	return pinPath(reader.role, does);
}

/** Where an oscilloscope goes at a wheel: a coil is measured across its two lines, levels against the body. */
export function scopeProbe(
	type: VehicleType,
	position: Position,
	at: 'module' | 'sensor',
	family: SensorKind
): { tip: string; clip?: string } {
	const point = (wire: 'feed' | 'signal') =>
		nodeOf(type, position, at === 'module' ? `module:${wire}` : `wire:${wire}`) ?? '';
	return family === 'passive' ? { tip: point('feed'), clip: point('signal') } : { tip: point('signal') };
}

/** Minutes to a sensor's own plug. */
export const SENSOR_ACCESS_MIN = 3;

/** A place on a wire between module and sensor, and what hides it. */
export interface PathPlace {
	/** Node of the wiring. */
	node: string;
	words: string;
	/** What has to be opened there: the module's plug, one in between, or the sensor's. */
	at: 'module' | 'plug' | 'sensor';
	/** The same by its name: module, plug or wheel. */
	behind: string;
	where: string;
	accessMin: number;
	/** Null where nobody has told. */
	colour: string | null;
	/** Where in the description the colour stands that nobody has told. */
	untoldColour: string | null;
	/** Where in the description the minutes stand that are only usual on such a vehicle; null where somebody has been there. */
	usualAccess: string | null;
	/** The same of where it is. */
	usualPlace: string | null;
	/** Of the stretch up to the next place. */
	toNextM: number;
	/** Whether the stretch to the next place is a contact and not a wire. */
	contactNext: boolean;
}

/** One wire of a wheel's sensor, from the module's pin to the sensor's, with every place a probe can go to. */
export function wirePath(type: VehicleType, position: Position, wire: 'feed' | 'signal'): PathPlace[] {
	const reader = wheelReaderOf(type);
	const pin = reader && pinOf(reader, `${wire} ${position}`);
	const conductor = pin && type.harness.conductors.find(({ points }) => points[0] === pin);
	if (!reader || !pin || !conductor) return [];
	const { points, lengthsM } = conductor;
	const wholeWire = `harness.conductors.${conductor.id}`;
	const isUntold = [wholeWire, `${wholeWire}.colour`].some((path) => !isKnown(type, path));
	const colour = {
		colour: isUntold ? null : conductor.colour,
		untoldColour: isUntold ? `${wholeWire}.colour` : null
	};
	const pinWords = isPinTold(type, reader.role, `${wire} ${position}`)
		? `pin ${pin.split('.').at(-1)}`
		: `its ${wire} pin for this wheel`;
	const places: PathPlace[] = [];
	const end = points.at(-1) ?? '';
	for (const [i, point] of points.entries()) {
		const toNextM = lengthsM[i] ?? 0;
		if (i === 0) {
			const at = {
				at: 'module' as const,
				behind: reader.role,
				where: reader.name,
				accessMin: reader.accessMin,
				...colour,
				usualAccess: assumedAccess(type, { module: reader.role }),
				usualPlace: null
			};
			places.push(
				{
					node: point,
					words: `${reader.name}, ${pinWords}`,
					...at,
					toNextM: 0,
					contactNext: true
				},
				{
					node: `${point}:w`,
					words: `wire at the plug of ${reader.name}`,
					...at,
					toNextM,
					contactNext: false
				}
			);
		} else if (point === end) {
			const at = {
				at: 'sensor' as const,
				behind: position,
				where: 'at the wheel',
				accessMin: SENSOR_ACCESS_MIN,
				...colour,
				usualAccess: null,
				usualPlace: null
			};
			places.push(
				{ node: `${point}:w`, words: 'wire at the sensor’s plug', ...at, toNextM: 0, contactNext: true },
				{ node: point, words: 'the sensor’s own pin', ...at, toNextM: 0, contactNext: false }
			);
		} else {
			const plug = type.harness.plugs.find(({ name }) => point.startsWith(`${name}.`));
			if (!plug) continue;
			const wholePlug = `harness.plugs.${plug.name}`;
			const at = {
				at: 'plug' as const,
				behind: plug.name,
				where: plug.where,
				accessMin: plug.accessMin,
				...colour,
				usualAccess: assumedAccess(type, { plugs: [plug.name] }),
				usualPlace:
					isKnown(type, `${wholePlug}.where`) && isKnown(type, wholePlug) ? null : `${wholePlug}.where`
			};
			const name = isKnown(type, wholePlug) ? `plug ${plug.name}` : plug.name;
			const words = (side: string) => `${name}, ${side} side`;
			places.push(
				{ node: `${point}:a`, words: words('module'), ...at, toNextM: 0, contactNext: true },
				{ node: `${point}:b`, words: words('wheel'), ...at, toNextM, contactNext: false }
			);
		}
	}
	return places;
}
