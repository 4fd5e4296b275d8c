import type { Conductor, Harness, ModuleType, VehicleType } from '../../../../library';
import type { Resistor } from '../../core/electrical/nodalAnalysis';
import { NO_SCATTER, type Scatter } from './scatter';

/**
 * The vehicle's wiring as resistors with names. Names of elements are what faults and hands act on; names of nodes are
 * what probes are put on.
 *
 * - stretch of a conductor between two points: element `W104#0`
 * - cavity of a plug `X20.4`: element of that name between nodes `X20.4:a` (towards the conductor's beginning) and `X20.4:b`
 * - pin of a device `brake.5`: element of that name between node `brake.5` (the device's own) and `brake.5:w` (the wire's)
 * - joint of a conductor at a splice: element `S7.1@W104` between node `S7.1` and `S7.1@W104`
 * - terminator: element `terminator@brake@chassis segment` across the pins of the module it is in
 * - fuse `F14`: element between `F14:in` and `F14`; ground point `G1`: element between `G1` and `body`
 */
export interface Wiring {
	elements: Map<string, Element>;
	/** The part of the elements that carries supply and ground of modules: solved first. */
	power: Set<string>;
}

export interface Element extends Resistor {
	/** What a conductor element belongs to, for words. */
	colour?: string;
}

/** Copper at 20 °C, in Ω·mm²/m (IEC 60228). */
const COPPER_OHM_MM2_PER_M = 0.0175;
export const CONTACT_OHMS = 0.003;
const JOINT_OHMS = 0.001;
const GROUND_OHMS = 0.002;
/** A resistance nobody can tell from a break. */
export const OPEN_OHMS = 1e10;

export const BODY = 'body';
export const BATTERY = 'battery';
export const KEY_FEED = 'key';

const POWER_PINS = new Set(['supply', 'ground', 'pump-supply', 'pump-ground']);

/** Resistance of a stretch of copper, R = ρ·l/A. */
export const copperOhms = (lengthM: number, mm2: number): number => (COPPER_OHM_MM2_PER_M * lengthM) / mm2;

/** Cold resistance of a blade fuse, near enough: a tenth of a volt at its rating. */
const fuseOhms = (amps: number) => 0.1 / amps;

/** Compiles a vehicle's harness to its elements. */
export function wiringOf(type: VehicleType, { wiringOhms }: Scatter = NO_SCATTER): Wiring {
	const elements = new Map<string, Element>();
	const power = new Set<string>();
	const { harness } = type;
	for (const { name, amps, feed } of harness.fuses) {
		const from = feed === 'battery' ? BATTERY : KEY_FEED;
		elements.set(name, { a: from, b: name, ohms: fuseOhms(amps) });
		power.add(name);
	}
	elements.set('key-switch', { a: BATTERY, b: KEY_FEED, ohms: 0.004 });
	power.add('key-switch');
	for (const { name } of harness.grounds) {
		elements.set(name, { a: name, b: BODY, ohms: GROUND_OHMS * wiringOhms });
		power.add(name);
	}
	for (const wire of harness.conductors) {
		const made = conductorElements(wire, harness);
		const carriesPower =
			wire.points.some((point) => POWER_PINS.has(pinDoes(type, point) ?? '')) || isFeeder(wire, type);
		for (const [id, element] of made) {
			elements.set(id, { ...element, ohms: element.ohms * wiringOhms, colour: wire.colour });
			if (carriesPower) power.add(id);
		}
	}
	for (const { segment, at } of harness.terminators) {
		for (const role of at) {
			const module = type.modules.find((m) => m.role === role);
			const second = module?.segment !== segment;
			const a = module && pinFor(module, second ? 'second-high' : 'bus-high');
			const b = module && pinFor(module, second ? 'second-low' : 'bus-low');
			if (a && b) elements.set(terminatorName(role, segment), { a, b, ohms: TERMINATOR_OHMS });
		}
	}
	return { elements, power };
}

const TERMINATOR_OHMS = 120;
/** A terminator stands inside its module, across the pins of a segment. */
export const terminatorName = (role: string, segment: string) => `terminator@${role}@${segment}`;

/** A conductor between fuse and splice feeds modules though no module pin is on it. */
const isFeeder = (wire: Conductor, type: VehicleType) =>
	type.harness.fuses.some((fuse) => fuse.name === wire.points[0]) &&
	type.harness.splices.some((splice) => splice.name === wire.points.at(-1));

/** What a device's pin is for; undefined for points that are no module pin. */
export function pinDoes(type: VehicleType, point: string): string | undefined {
	const [device, pin] = point.split('.');
	return type.modules.find((module) => module.role === device)?.pins[pin ?? ''];
}

/** A module's pin by what it is for: `pinFor(brake, 'feed rear-left')` → `brake.15`. */
export function pinFor(module: ModuleType, does: string): string | null {
	let known = PINS.get(module);
	if (!known) {
		known = new Map(Object.entries(module.pins).map(([pin, purpose]) => [purpose, `${module.role}.${pin}`]));
		PINS.set(module, known);
	}
	return known.get(does) ?? null;
}

const PINS = new WeakMap<ModuleType, Map<string, string>>();

function* conductorElements(wire: Conductor, harness: Harness): Generator<[string, Resistor]> {
	const isSplice = (point: string) => harness.splices.some(({ name }) => name === point.split('.')[0]);
	const isPlug = (point: string) => harness.plugs.some(({ name }) => name === point.split('.')[0]);
	const isEnd = (point: string) =>
		harness.fuses.some(({ name }) => name === point) || harness.grounds.some(({ name }) => name === point);
	/** Nodes at which the conductor arrives at a point and leaves it. */
	const ends = wire.points.map((point) => {
		if (isPlug(point)) return { arrive: `${point}:a`, leave: `${point}:b` };
		if (isSplice(point)) return { arrive: `${point}@${wire.id}`, leave: `${point}@${wire.id}` };
		if (isEnd(point)) return { arrive: point, leave: point };
		return { arrive: `${point}:w`, leave: `${point}:w` };
	});
	for (const [i, point] of wire.points.entries()) {
		if (isPlug(point)) yield [point, { a: `${point}:a`, b: `${point}:b`, ohms: CONTACT_OHMS }];
		else if (isSplice(point)) {
			yield [`${point}@${wire.id}`, { a: point, b: `${point}@${wire.id}`, ohms: JOINT_OHMS }];
		} else if (!isEnd(point)) yield [point, { a: point, b: `${point}:w`, ohms: CONTACT_OHMS }];
		const next = ends[i + 1];
		const here = ends[i];
		if (next && here) {
			const ohms = copperOhms(wire.lengthsM[i] ?? 1, wire.mm2);
			yield [`${wire.id}#${i}`, { a: here.leave, b: next.arrive, ohms }];
		}
	}
}
