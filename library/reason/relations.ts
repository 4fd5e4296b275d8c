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

/** What a faulty module is to the network; a dead gateway hides all. */
export type FaultClass = PlaceKind | 'gateway' | 'wheel-reader';

export function faultClass(kind: PlaceKind, place: string, type: VehicleType): FaultClass {
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
	const hanging = type.modules.filter(({ suppliedBy }) =>
		suppliedBy.some(({ name }) => name === fault.place)
	);
	const hangs = (role: string | undefined) => hanging.some((one) => one.role === role);
	// Behind a dead gateway nothing can be asked, whatever its own feed.
	if (seen.kind === 'corner') return hangs(reader) ? 'read' : hangs('gateway') ? 'behind' : 'other';
	if (seen.kind !== 'module') return 'other';
	if (hangs(seen.place)) return 'hangs';
	if (hangs('gateway')) return 'behind';
	const segment = type.modules.find(({ role }) => role === seen.place)?.segment;
	return hanging.some((one) => one.segment === segment) ? 'segment' : 'beyond';
}
