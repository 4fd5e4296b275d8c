import { wheelReaderOf } from '../../../../library/measurePoints';
import type { VehicleType } from '../../../../library';
import { sharedByWheels, type SharedByWheels } from '../../../../library/reason/sharedByWheels';
import { lowerFirst, namesOf, positionWords, upperFirst } from '../words';
import type { NetworkFinding } from './networkFinding';

/** So many things that wheels share are named, the cheapest look first. */
const MOST_TOLD = 5;

/**
 * Wheels whose circuits fail at once: what they share comes before any of them, the cheapest look first. Null for one wheel,
 * or where the vehicle's description shows nothing that they share.
 *
 * @param wheels positions whose own circuit has a code or fails
 * @param looked ids of tests that are done
 */
export function wheelsTogether(
	type: VehicleType,
	wheels: readonly string[],
	looked: ReadonlySet<string> = new Set()
): [NetworkFinding] | null {
	const shared = sharedByWheels(type, wheels).filter(({ test }) => !looked.has(test.id));
	const [first, ...others] = shared.slice(0, MOST_TOLD);
	if (!first) return null;
	const reader = lowerFirst(wheelReaderOf(type)?.name ?? '');
	const told = (one: SharedByWheels) =>
		`${thingWords(one, reader)}${one.where ? ` (${one.where})` : ''}, ${Math.round(one.minutes)} min`;
	const which = wheels.map((wheel) => lowerFirst(positionWords(wheel as never)));
	return [
		{
			title: `${upperFirst(namesOf(which))} fail at once: look first at what they share`,
			todo: `Look at ${told(first)}${others.length > 0 ? `; then ${others.map(told).join('; ')}` : ''}.`,
			text: 'Two sensors on one day are rarely two sensors. Green pins of one plug look like several broken wires.'
		}
	];
}

function thingWords({ kind, place }: SharedByWheels, reader: string): string {
	switch (kind) {
		case 'plug':
			return `plug ${place}`;
		case 'module-plug':
			return `the plug of ${reader}`;
		case 'supply':
			return `the supply of ${reader} under load`;
		case 'ground':
			return `the ground of ${reader} under load`;
	}
}
