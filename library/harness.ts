import { z } from 'zod';

export const BUS_KINDS = ['high-speed', 'fault-tolerant'] as const;
export type BusKind = (typeof BUS_KINDS)[number];

/**
 * The wiring of a vehicle as its diagrams show it. A conductor runs through points: a fuse `F14`, a ground point `G1`, a
 * splice `S7` (of a pair `S7.1`, `S7.2`), a cavity of a plug `X20.4`, a pin of a device `brake.16` or `rear-left.1`.
 */
const Name = z.string().min(1).max(120);
/** Of what is longer no diagram was ever drawn. */
const MOST = 400;
const listOf = <T extends z.ZodType>(one: T) => z.array(one).max(MOST);

export const Harness = z.object({
	fuses: listOf(
		z.object({
			name: Name,
			amps: z.number().positive(),
			/** What feeds it: the battery always, or the key. */
			feed: z.enum(['battery', 'key']),
			where: Name
		})
	),
	grounds: listOf(z.object({ name: Name, where: Name })),
	splices: listOf(z.object({ name: Name, where: Name })),
	plugs: listOf(
		z.object({
			name: Name,
			where: Name,
			/** Minutes until a probe can be put on it. */
			accessMin: z.number().nonnegative(),
			pins: z.number().int().positive()
		})
	),
	segments: listOf(
		z.object({
			name: Name,
			where: Name,
			/** How its lines rest and end: ISO 11898-2, or ISO 11898-3 with its termination spread over the modules. */
			kind: z.enum(BUS_KINDS).default('high-speed')
		})
	),
	terminators: listOf(z.object({ segment: Name, at: z.array(Name).max(4) })),
	conductors: listOf(
		z
			.object({
				id: Name,
				colour: Name,
				mm2: z.number().positive(),
				points: z.array(Name).min(2).max(40),
				/** Of each stretch between two points. */
				lengthsM: z.array(z.number().positive().max(100)).max(40)
			})
			.refine((wire) => wire.lengthsM.length === wire.points.length - 1, {
				error: 'a conductor has one length between each two points'
			})
	)
});
export type Harness = z.infer<typeof Harness>;
export type Conductor = Harness['conductors'][number];

/** Something that modules hang on, by the name the vehicle's diagrams give it. */
export interface Supply {
	kind: 'fuse' | 'ground' | 'splice' | 'segment';
	name: string;
	where: string;
}

/** `S7.2` → `S7`: the thing a point belongs to. */
export const thingOf = (point: string): string => point.split('.')[0] ?? point;

/** What a pin's wire leads to, over splices: the last is a fuse, a ground point or another pin. @param from `brake.1` */
export function wayFrom(harness: Harness, from: string): string[] {
	const way: string[] = [];
	let at = from;
	let wire = harness.conductors.find(({ points }) => [points[0], points.at(-1)].includes(at));
	while (wire) {
		const { points }: Conductor = wire;
		const end: string = (points[0] === at ? points.at(-1) : points[0]) ?? at;
		way.push(thingOf(end));
		if (!harness.splices.some(({ name }) => name === thingOf(end))) break;
		// Diagrams draw what feeds a splice first.
		const before: Conductor = wire;
		at = end;
		wire = harness.conductors.find((next) => next !== before && next.points.at(-1) === end);
	}
	return way;
}

/**
 * What a device hangs on, from the source to the device: its fuses, ground points, bus segments, then the splices on the
 * way to them. Splices of the trunk are left out for the bus: a trunk passes everybody.
 */
export function suppliesOf(
	harness: Harness,
	device: string,
	pins: Record<string, string>,
	segments: string[]
): Supply[] {
	const ends = (pin: string) =>
		harness.conductors.filter((wire) => [wire.points[0], wire.points.at(-1)].includes(`${device}.${pin}`));
	const otherEnd = (wire: Conductor, from: string) =>
		(wire.points[0] === from ? wire.points.at(-1) : wire.points[0]) ?? from;
	const found: Record<Supply['kind'], Set<string>> = {
		fuse: new Set(),
		ground: new Set(),
		segment: new Set(segments),
		splice: new Set()
	};
	const isA = (list: { name: string }[], name: string) => list.some((item) => item.name === name);
	for (const [pin, does] of Object.entries(pins)) {
		if (does !== 'supply' && does !== 'ground') continue;
		for (const name of wayFrom(harness, `${device}.${pin}`)) {
			if (isA(harness.fuses, name)) found.fuse.add(name);
			if (isA(harness.grounds, name)) found.ground.add(name);
			if (isA(harness.splices, name)) found.splice.add(name);
		}
	}
	for (const [pin, does] of Object.entries(pins)) {
		if (does !== 'bus-high') continue;
		for (const wire of ends(pin)) {
			const splice = otherEnd(wire, `${device}.${pin}`);
			if (isA(harness.splices, thingOf(splice)) && isBranch(harness, splice))
				found.splice.add(thingOf(splice));
		}
	}
	const listed = (kind: Supply['kind'], list: { name: string; where: string }[]): Supply[] =>
		list.filter(({ name }) => found[kind].has(name)).map(({ name, where }) => ({ kind, name, where }));
	return [
		...listed('fuse', harness.fuses),
		...listed('ground', harness.grounds),
		...listed('segment', harness.segments),
		...listed('splice', harness.splices)
	];
}

/** Whether a splice stands on a branch: none of what hangs on it leads on to a terminator or a further splice. */
function isBranch(harness: Harness, splice: string): boolean {
	const terminated = harness.terminators.flatMap((t) => t.at);
	const leadsOn = harness.conductors
		.filter((wire) => wire.points.includes(splice))
		.map((wire) => wire.points);
	const splices = leadsOn
		.flat()
		.filter((p) => p !== splice && harness.splices.some((s) => s.name === thingOf(p)));
	const ends = leadsOn.flat().some((point) => terminated.includes(thingOf(point)));
	return !ends && splices.length <= 1;
}
