import type { Fault } from './faults';
import { sharedPlugsOf } from './sharedPlugs';
import type { PlaceKind } from './repairs';
import type { VehicleType } from './vehicles';
import { chanceOf, familiesAt } from './wheelSensors';

/** Places of this vehicle where a library fault can be. */
export function placesFor(fault: Fault, type: VehicleType): string[] {
	const { harness } = type;
	switch (fault.at) {
		case 'corner':
			return type.wheels
				.map((wheel) => wheel.position)
				.filter((position) => chanceOf(familiesAt(type, position), fault.sensors) > 0);
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
					type.modules.some((module) => module.suppliedBy.some((hanger) => hanger.name === name))
				);
		case 'plug':
			return sharedPlugsOf(type).map(({ name }) => name);
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

/** All places of a kind that a vehicle has. */
export function allPlaces(kind: PlaceKind, type: VehicleType): string[] {
	const { wheels, modules, harness } = type;
	const lists: Record<PlaceKind, string[]> = {
		corner: wheels.map(({ position }) => position),
		module: modules.map(({ role }) => role),
		fuse: harness.fuses.map(({ name }) => name),
		ground: harness.grounds.map(({ name }) => name),
		splice: harness.splices.map(({ name }) => name),
		plug: sharedPlugsOf(type).map(({ name }) => name),
		vehicle: ['vehicle']
	};
	return lists[kind];
}
