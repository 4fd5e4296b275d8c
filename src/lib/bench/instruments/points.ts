import type { VehicleType } from '../../../../library';
import { thingOf } from '../../../../library/harness';
import { BATTERY, BODY, KEY_FEED } from '../physics/wiring';

/** A place where a probe, a clip or a jumper can be put. */
export interface ProbePoint {
	/** What instruments call it. */
	node: string;
	/** In words: `plug X21, cavity 1, towards brake 15`. */
	words: string;
	where: string;
	/** Minutes until a hand is there. */
	accessMin: number;
	/** Colour of the wire there; null on metal that is no wire. */
	colour: string | null;
	/** The plug that has to be open for a probe to reach it alone; null where nothing has to be. */
	plug: string | null;
}

/** Minutes to a sensor's own plug, to a fuse, to a ground point or a splice that has no plug of its own. */
const SENSOR_MIN = 3;
const FUSE_MIN = 2;
const GROUND_MIN = 5;
const SPLICE_MIN = 15;

/** Every point of a vehicle's wiring that a probe can be put on, each once. */
export function probePoints(type: VehicleType): ProbePoint[] {
	const { harness } = type;
	const found = new Map<string, ProbePoint>();
	const add = (point: ProbePoint) => {
		if (!found.has(point.node)) found.set(point.node, point);
	};
	add({ node: BATTERY, words: 'battery plus', where: 'battery', accessMin: 1, colour: null, plug: null });
	add({
		node: BODY,
		words: 'metal of the vehicle',
		where: 'anywhere bare',
		accessMin: 1,
		colour: null,
		plug: null
	});
	add({
		node: KEY_FEED,
		words: 'what the key switches',
		where: 'fuse box',
		accessMin: FUSE_MIN,
		colour: null,
		plug: null
	});
	for (const { name, where } of harness.fuses) {
		add({ node: name, words: `fuse ${name}, output`, where, accessMin: FUSE_MIN, colour: null, plug: null });
	}
	for (const { name, where } of harness.grounds) {
		add({
			node: name,
			words: `ground point ${name}`,
			where,
			accessMin: GROUND_MIN,
			colour: null,
			plug: null
		});
	}
	for (const wire of harness.conductors) {
		const { colour, points } = wire;
		const ends = `${points[0]} to ${points.at(-1)}`;
		for (const point of points) {
			const thing = thingOf(point);
			const pin = point.slice(thing.length + 1);
			const plug = harness.plugs.find(({ name }) => name === thing);
			const module = type.modules.find(({ role }) => role === thing);
			if (plug) {
				for (const [side, towards] of [
					[':a', points[0]],
					[':b', points.at(-1)]
				] as const) {
					add({
						node: point + side,
						words: `plug ${thing}, cavity ${pin}, towards ${towards}`,
						where: plug.where,
						accessMin: plug.accessMin,
						colour,
						plug: thing
					});
				}
			} else if (harness.splices.some(({ name }) => name === thing)) {
				const where = harness.splices.find(({ name }) => name === thing)?.where ?? '';
				add({ node: point, words: `splice ${point}`, where, accessMin: SPLICE_MIN, colour, plug: null });
			} else if (pin !== '') {
				const where = module ? `plug of ${module.name}` : `plug of the sensor or switch ${thing}`;
				const accessMin = module?.accessMin ?? SENSOR_MIN;
				const does = module?.pins[pin];
				add({
					node: point,
					words: `${thing}, pin ${pin}${does ? ` (${does})` : ''}`,
					where,
					accessMin,
					colour: null,
					plug: thing
				});
				add({
					node: `${point}:w`,
					words: `wire at ${thing}, pin ${pin}, ${ends}`,
					where,
					accessMin,
					colour,
					plug: thing
				});
			}
		}
	}
	return [...found.values()];
}
