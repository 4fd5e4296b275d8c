import { wayFrom } from '../harness';
import { wheelReaderOf } from '../measurePoints';
import { mateOf, type Position } from '../positions';
import type { PlaceKind } from '../repairs';
import { sharedPlugsOf } from '../sharedPlugs';
import type { VehicleType } from '../vehicles';

/**
 * How a place where something is seen stands to the place where a fault is. What a fault does to a sign is kept by this
 * relation and not by name, so that it holds for any vehicle whose network is described.
 */
export type Relation =
	'same' | 'mate' | 'other' | 'reader' | 'read' | 'segment' | 'beyond' | 'hangs' | 'behind' | 'whole';

/** What a faulty module is to the network (a dead gateway hides all), and what a fuse feeds: modules, one part of one alone, or nothing that is known. */
export type FaultClass = PlaceKind | 'gateway' | 'wheel-reader' | `${FedPart['part']}-fuse` | 'spare-fuse';

export function faultClass(kind: PlaceKind, place: string, type: VehicleType): FaultClass {
	if (kind === 'fuse') {
		if (type.modules.some(({ suppliedBy }) => suppliedBy.some(({ name }) => name === place))) return 'fuse';
		const [first] = partsFedOver(place, type);
		return first ? `${first.part}-fuse` : 'spare-fuse';
	}
	if (kind !== 'module') return kind;
	if (place === 'gateway') return 'gateway';
	return place === wheelReaderOf(type)?.role ? 'wheel-reader' : 'module';
}

export function relationOf(
	fault: { kind: PlaceKind; place: string },
	seen: { kind: PlaceKind; place: string },
	type: VehicleType
): Relation {
	if (seen.kind === 'vehicle' || fault.kind === 'vehicle') return 'whole';
	if (fault.kind === seen.kind && fault.place === seen.place) return 'same';
	const reader = wheelReaderOf(type)?.role;
	if (fault.kind === 'corner') {
		if (seen.kind === 'module') return seen.place === reader ? 'reader' : 'other';
		if (seen.kind !== 'corner') return 'other';
		return seen.place === mateOf(fault.place as Position) ? 'mate' : 'other';
	}
	if (fault.kind === 'module') {
		if (seen.kind === 'corner') return fault.place === reader ? 'read' : 'other';
		if (seen.kind !== 'module') return 'other';
		const segment = (role: string) => type.modules.find((one) => one.role === role)?.segment;
		return segment(fault.place) === segment(seen.place) ? 'segment' : 'beyond';
	}
	if (fault.kind === 'plug') {
		if (seen.kind === 'module') return seen.place === reader ? 'reader' : 'other';
		const carried = sharedPlugsOf(type).find(({ name }) => name === fault.place)?.wheels ?? [];
		return seen.kind === 'corner' && carried.some((position) => position === seen.place) ? 'hangs' : 'other';
	}
	// Of what feeds several: who hangs on it.
	const hanging = hangingOn(fault.place, type);
	const hangs = (role: string | undefined) => hanging.some((one) => one.role === role);
	// Behind a dead gateway nothing can be asked, whatever its own feed.
	if (seen.kind === 'corner') return hangs(reader) ? 'read' : hangs('gateway') ? 'behind' : 'other';
	if (seen.kind !== 'module') return 'other';
	if (hangs(seen.place)) return 'hangs';
	if (hangs('gateway')) return 'behind';
	const segment = type.modules.find(({ role }) => role === seen.place)?.segment;
	return hanging.some((one) => one.segment === segment) ? 'segment' : 'beyond';
}

/** Modules that are fed over a fuse, a ground point or a splice, or something of theirs is. */
export function hangingOn(place: string, type: VehicleType): VehicleType['modules'] {
	const parts = partsFedOver(place, type);
	return type.modules.filter(
		({ role, suppliedBy }) =>
			suppliedBy.some(({ name }) => name === place) || parts.some((part) => part.role === role)
	);
}

/** A part of a module that has a feed of its own: its pump, or the switch at the pedal that it reads. */
interface FedPart {
	role: string;
	part: 'pump' | 'switch';
}
const partsByType = new WeakMap<VehicleType, Map<string, FedPart[]>>();

function partsFedOver(place: string, type: VehicleType): readonly FedPart[] {
	let known = partsByType.get(type);
	if (!known) {
		known = new Map();
		for (const { role, pins } of type.modules)
			for (const [pin, does] of Object.entries(pins)) {
				const part = does === 'pump-supply' ? 'pump' : does === 'brake-switch' ? 'switch' : null;
				if (!part) continue;
				// The switch stands between its feed and the module.
				const from = part === 'pump' ? `${role}.${pin}` : `${SWITCH}.${SWITCH_FEED_PIN}`;
				for (const name of wayFrom(type.harness, from))
					known.set(name, [...(known.get(name) ?? []), { role, part }]);
			}
		partsByType.set(type, known);
	}
	return known.get(place) ?? [];
}
const SWITCH = 'brake-switch';
const SWITCH_FEED_PIN = 1;
