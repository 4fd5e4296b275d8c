import { type VehicleType } from '../../../../library';
import { faults, type Fault } from '../../../../library/faults';

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

/** Places of this vehicle where a library fault can be. */
export function placesFor(fault: Fault, type: VehicleType): string[] {
	if (fault.sensors && !fault.sensors.includes(type.sensor)) return [];
	const { harness } = type;
	switch (fault.at) {
		case 'corner':
			return type.wheels.map((wheel) => wheel.position);
		case 'module':
			return type.modules
				.filter((module) => modulePossible(fault, type, module.role))
				.map((module) => module.role);
		case 'fuse':
			return harness.fuses.map(({ name }) => name);
		case 'ground':
			return harness.grounds.map(({ name }) => name);
		case 'splice':
			// A splice within a trunk has no branch of its own to lose.
			return harness.splices
				.map(({ name }) => name)
				.filter((name) =>
					type.modules.some((module) => module.hangsOn.some((hanger) => hanger.name === name))
				);
		case 'vehicle':
			return ['vehicle'];
	}
}

function modulePossible(fault: Fault, type: VehicleType, role: string): boolean {
	if (fault.only && !fault.only.some((only) => only === role)) return false;
	const pins = Object.values(type.modules.find((module) => module.role === role)?.pins ?? {});
	return fault.effects.every((effect) => {
		if (effect.do === 'terminator') return type.harness.terminators.some(({ at }) => at.includes(role));
		if (effect.do === 'pin') return pins.includes(effect.pin);
		if (effect.do === 'bus-short') return pins.includes(effect.from);
		return true;
	});
}

/** Why a fault cannot be at its place on this vehicle; null where it can. */
export function whyNot({ id, at }: BenchFault, type: VehicleType): string | null {
	const places = placesFor(libraryFault(id), type);
	if (places.length === 0) return `this vehicle cannot have ${id}`;
	return places.includes(at) ? null : `${id} can be at ${places.join(', ')}`;
}
