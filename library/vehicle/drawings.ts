import { thingOf } from '../harness';
import type { VehicleType } from './vehicleType';

/** Drawings of a vehicle in the language of the graph layout: what hangs on what, never where it is. */

/** A graph as it is laid out, in points, y downwards. */
export interface LaidOut {
	width: number;
	height: number;
	nodes: {
		x: number;
		y: number;
		width: number;
		height: number;
		lines: string[];
		boxed: boolean;
		dotted: boolean;
		weight: number;
	}[];
	edges: {
		path: string;
		dotted: boolean;
		weight: number;
		label: { text: string; x: number; y: number } | null;
	}[];
}

const quoted = (text: string) => `"${text.replace(/["\\]/g, '\\$&')}"`;
const HEAD = 'rankdir=LR; bgcolor="transparent"; nodesep=0.12; margin=0;';
const NODE = 'fontname="Atkinson Hyperlegible Next", fontsize=15, margin="0.26,0.08", height=0.42';

/** Paths of what was only assumed are drawn dotted. */
const styleOf = (type: VehicleType, path: string) =>
	type.assumed.includes(path) ? 'style=dotted, penwidth=1.6' : 'style=solid, penwidth=1.6';

/** Modules with the segments that they speak on, the fuses that feed them and the grounds that they return to. */
export function networkDrawing(type: VehicleType): string {
	const { modules, harness } = type;
	const node = (kind: string, name: string, shape: string, label = name) =>
		`${quoted(`${kind}:${name}`)} [label=${quoted(label)}, shape=${shape}, ${NODE}`;
	const of = (kind: 'fuse' | 'ground') =>
		new Set(
			modules.flatMap(({ suppliedBy }) => suppliedBy.filter((s) => s.kind === kind).map((s) => s.name))
		);
	const [fuses, grounds] = [of('fuse'), of('ground')];
	const lines = [
		...harness.fuses
			.filter(({ name }) => fuses.has(name))
			.map(({ name, amps }) => `${node('fuse', name, 'plaintext', `${name}, ${amps} A`)}]`),
		...modules.map(({ role, name, address, doip, can }) => {
			const on = can ?? doip ?? (type.assumed.includes(`modules.${role}.address`) ? null : address);
			const path = on === null ? `modules.${role}.address` : '';
			return `${node('module', role, 'box', on === null ? name : `${name}\n${on}`)}, ${styleOf(type, path)}]`;
		}),
		...harness.segments.map(
			({ name }) =>
				`${node('segment', name, 'box')}, ${styleOf(type, `harness.segments.${name}`)}, penwidth=3.2]`
		),
		...harness.grounds
			.filter(({ name }) => grounds.has(name))
			.map(({ name }) => `${node('ground', name, 'plaintext')}]`)
	];
	const edges = modules.flatMap(({ role, segment, suppliedBy }) => {
		const me = quoted(`module:${role}`);
		// The gateway is what joins the segments.
		const segments = role === 'gateway' ? harness.segments.map(({ name }) => name) : [segment];
		return [
			...suppliedBy.flatMap(({ kind, name }) => {
				if (kind === 'fuse')
					return [`${quoted(`fuse:${name}`)} -> ${me} [${styleOf(type, `harness.fuses.${name}`)}]`];
				if (kind === 'ground')
					return [`${me} -> ${quoted(`ground:${name}`)} [${styleOf(type, `harness.grounds.${name}`)}]`];
				return [];
			}),
			...segments
				.filter((name) => harness.segments.some((one) => one.name === name))
				.map(
					(name) =>
						`${me} -> ${quoted(`segment:${name}`)} [${styleOf(type, `modules.${role}.segment`)}, penwidth=3.2]`
				)
		];
	});
	return `digraph { ${HEAD} ranksep=1.1; edge [arrowhead=none];\n${[...lines, ...edges].join(';\n')}\n}`;
}

/** The wires of one wheel's sensor, from its pins through the plugs to the pins of the module that reads it. */
export function cornerDrawing(type: VehicleType, position: string): string {
	const { harness, modules } = type;
	const wires = harness.conductors.filter(({ points }) =>
		points.some((point) => thingOf(point) === position)
	);
	const nodes = new Set(wires.flatMap(({ points }) => points.map(thingOf)));
	const called = (name: string) =>
		name === position
			? `${position.replace('-', ' ')} sensor`
			: (modules.find(({ role }) => role === name)?.name ?? name);
	const isPlug = new Set(harness.plugs.map(({ name }) => name));
	const lines = [...nodes].map((name) => {
		const path = isPlug.has(name) ? `harness.plugs.${name}` : '';
		return `${quoted(name)} [label=${quoted(called(name))}, shape=box, ${NODE}, ${styleOf(type, path)}]`;
	});
	const edges = wires.flatMap(({ id, colour, points, lengthsM }) => {
		// Drawn from the wheel to the module, however the diagram has it.
		const fromWheel = thingOf(points[0] ?? '') === position;
		const [way, lengths] = fromWheel ? [points, lengthsM] : [points.toReversed(), lengthsM.toReversed()];
		return way.slice(1).map((to, i) => {
			const pin = (point: string) => point.slice(thingOf(point).length + 1);
			const label = `${pin(way[i] ?? '')} – ${pin(to)}: ${colour}, ${lengths[i]} m`;
			return `${quoted(thingOf(way[i] ?? ''))} -> ${quoted(thingOf(to))} [label=${quoted(label)}, fontsize=13, fontname="Atkinson Hyperlegible Next", ${styleOf(type, `harness.conductors.${id}`)}]`;
		});
	});
	return `digraph { ${HEAD} ranksep=0.9; edge [arrowhead=none];\n${[...lines, ...edges].join(';\n')}\n}`;
}
