import { thingOf } from './harness';
import type { Position } from './positions';
import type { VehicleType } from './vehicles';

/** A plug on the way of several wheels’ leads. */
export interface SharedPlug {
	name: string;
	where: string;
	accessMin: number;
	/** Wheels whose leads go through it. */
	wheels: Position[];
}

const known = new WeakMap<VehicleType, SharedPlug[]>();

/** Plugs through which the leads of two wheels or more go: what is wrong with one of these looks like several faults. */
export function sharedPlugsOf(type: VehicleType): SharedPlug[] {
	const found =
		known.get(type) ??
		type.harness.plugs.flatMap(({ name, where, accessMin }) => {
			const wheels = type.wheels.flatMap(({ position }) =>
				runsThrough(type, position, name) ? [position] : []
			);
			return wheels.length > 1 ? [{ name, where, accessMin, wheels }] : [];
		});
	known.set(type, found);
	return found;
}

const runsThrough = ({ harness }: VehicleType, position: string, plug: string): boolean =>
	harness.conductors.some(({ points }) => {
		const things = points.map(thingOf);
		return things.includes(position) && things.includes(plug);
	});
