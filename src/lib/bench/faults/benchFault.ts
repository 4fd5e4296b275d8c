import { type VehicleType } from '../../../../library';
import { placesFor } from '../../../../library/faultPlaces';
import { faults, type Fault } from '../../../../library/faults';
import { undescribed } from './undescribed';

/** One fault of the library put into one place of a vehicle. Only the simulation knows which are present. */
export interface BenchFault {
	id: string;
	/** `rear-left`, `brake`, `F14`, `G1`, `S7`; `vehicle` for the whole. */
	at: string;
	/** 0 just there … 1 as bad as it gets. */
	severity: number;
	/** Mean distance between two times it shows; null = as its library entry says. */
	everyKm: number | null;
}

const USUAL_SEVERITY = 0.6;

/** Puts a library fault in a place. Throws for one that is not in the library. */
export function benchFault(
	id: string,
	at: string,
	severity = USUAL_SEVERITY,
	everyKm: number | null = null
): BenchFault {
	libraryFault(id);
	return { id, at, severity, everyKm };
}

export function libraryFault(id: string): Fault {
	const fault = faults.get(id);
	if (!fault)
		throw new RangeError(`"${id}" is no fault of the library. There are: ${[...faults.keys()].join(', ')}`);
	return fault;
}

/** What a bench fault is, described in the library or not. Throws where it is neither. */
export const faultOf = ({ id }: Pick<BenchFault, 'id'>): Fault => undescribed.get(id) ?? libraryFault(id);

/**
 * `ID`, `ID:PLACE`, `ID:PLACE:SEVERITY` or `ID:PLACE:SEVERITY:KM` → a fault on this vehicle. Throws saying what was expected.
 *
 * @param random chooses the place where none is named, from 0 up to 1
 */
export function parseFault(text: string, type: VehicleType, random: () => number = () => 0): BenchFault {
	const [id = '', named = '', severityText, kmText, ...more] = text.split(':');
	const places = placesFor(libraryFault(id), type);
	const at = named || (places[Math.floor(random() * places.length)] ?? '');
	const severity = severityText === undefined ? USUAL_SEVERITY : Number(severityText);
	const everyKm = kmText === undefined ? null : Number(kmText);
	if (more.length > 0 || !(severity >= 0 && severity <= 1) || (everyKm !== null && !(everyKm > 0))) {
		throw new RangeError(
			`"${text}" is no fault: expected ID:PLACE, ID:PLACE:SEVERITY or ID:PLACE:SEVERITY:KM, severity 0–1`
		);
	}
	const fault = benchFault(id, at, severity, everyKm);
	const reason = whyNot(fault, type);
	if (reason) throw new RangeError(`"${text}": ${reason}`);
	return fault;
}

/** Why a fault cannot be at its place on this vehicle; null where it can. */
export function whyNot({ id, at }: BenchFault, type: VehicleType): string | null {
	const places = placesFor(libraryFault(id), type);
	if (places.length === 0) return `this vehicle cannot have ${id}`;
	return places.includes(at) ? null : `${id} can be at ${places.join(', ')}`;
}
