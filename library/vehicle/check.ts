import type { z } from 'zod';
import { thingOf, type Harness } from '../harness';
import { completed } from './complete';
import { Given } from './given';
import { FullDescription, vehicleTypeOf, type Described, type VehicleType } from './vehicleType';

/** Something that is wrong with a description, and where. */
export interface Problem {
	path: string;
	reason: string;
}

export type Checked =
	| { ok: true; described: Described; type: VehicleType }
	| { ok: false; problems: Problem[]; described: Described | null };

/** Reads a description: what does not fit is told whole, each with its path; nothing of such a file is taken. */
export function checkDescription(value: unknown): Checked {
	const given = Given.safeParse(value);
	if (!given.success) return { ok: false, problems: problemsOf(given.error, value), described: null };
	const doubled = repeatedIn(
		'wheels',
		given.data.wheels.map(({ position }) => position)
	).concat(repeatedIn('modules', given.data.modules?.map(({ role }) => role) ?? []));
	if (doubled.length > 0) return { ok: false, problems: doubled, described: null };
	const described = FullDescription.safeParse(completed(given.data));
	if (!described.success)
		return { ok: false, problems: problemsOf(described.error, described.data), described: null };
	const problems = contradictionsIn(described.data);
	return problems.length > 0
		? { ok: false, problems, described: described.data }
		: { ok: true, described: described.data, type: vehicleTypeOf(described.data) };
}

/** Reads the text of a file. */
export function readDescription(text: string): Checked {
	let value: unknown;
	try {
		value = JSON.parse(text);
	} catch (error) {
		return {
			ok: false,
			problems: [{ path: '', reason: `no JSON: ${(error as Error).message}` }],
			described: null
		};
	}
	return checkDescription(value);
}

/** Names in a list are told by name: `modules.brake.accessMin`, as in what is assumed. */
function problemsOf(error: z.ZodError, value: unknown): Problem[] {
	return error.issues.map(({ path, message }) => {
		const names: string[] = [];
		let at: unknown = value;
		for (const key of path) {
			at = (at as Record<PropertyKey, unknown> | undefined)?.[key];
			const { role, position, name, id } = (at ?? {}) as Record<string, unknown>;
			const own =
				typeof key === 'number' ? [role, position, name, id].find((one) => typeof one === 'string') : null;
			names.push(String(own ?? key));
		}
		return { path: names.join('.'), reason: message };
	});
}

function repeatedIn(path: string, names: readonly string[]): Problem[] {
	return [...new Set(names.filter((name, i) => names.indexOf(name) !== i))].map((name) => ({
		path: `${path}.${name}`,
		reason: 'is there more than once'
	}));
}

/** What each part says well and the whole does not: things that are named and not there, and ends that lead nowhere. */
function contradictionsIn({
	wheels,
	modules,
	harness,
	tells,
	gateway,
	parkingBrake,
	assumed
}: Described): Problem[] {
	const problems: Problem[] = [];
	const wrong = (path: string, reason: string) => problems.push({ path, reason });
	const roles = new Set<string>(modules.map(({ role }) => role));
	const segments = new Set(harness.segments.map(({ name }) => name));
	const addresses = modules.map(({ address }) => address);
	problems.push(...repeatedIn('modules (address)', addresses));
	for (const list of ['fuses', 'grounds', 'splices', 'plugs', 'segments'] as const)
		problems.push(
			...repeatedIn(
				`harness.${list}`,
				harness[list].map(({ name }) => name)
			)
		);
	problems.push(
		...repeatedIn(
			'harness.conductors',
			harness.conductors.map(({ id }) => id)
		)
	);
	if (tells === 'link') {
		if (!addresses.includes(gateway)) wrong('gateway', `no module has the address ${gateway}`);
		for (const { role, segment } of modules)
			if (!segments.has(segment))
				wrong(`modules.${role}.segment`, `there is no segment “${segment}” in harness.segments`);
	}
	const axles = new Set(wheels.map(({ axle }) => axle));
	for (const axle of parkingBrake.axles)
		if (!axles.has(axle)) wrong('parkingBrake.axles', `there is no axle ${axle}`);
	for (const { segment, at } of harness.terminators) {
		if (!segments.has(segment)) wrong(`harness.terminators.${segment}`, 'there is no such segment');
		for (const role of at)
			if (!roles.has(role)) wrong(`harness.terminators.${segment}`, `there is no module “${role}”`);
	}
	problems.push(...strayPoints(harness, modules, new Set(wheels.map(({ position }) => position))));
	if (!modules.some(({ pins }) => Object.values(pins).some((does) => does.startsWith('signal '))))
		wrong('modules', 'no module has a pin “signal …” for a wheel: none of them reads the wheels');
	for (const { role, work } of modules)
		if (role === 'restraint' && work !== 'maker-procedure-only')
			wrong(
				'modules.restraint.work',
				'nothing is done at a restraint module here but by its maker’s procedure'
			);
	for (const { role, pins } of modules)
		for (const [pin, does] of Object.entries(pins)) {
			if (pin.includes('.')) wrong(`modules.${role}.pins.${pin}`, 'a pin’s name has no full stop in it');
			const [, of] = /^(?:feed|signal|reference) (.+)$/.exec(does) ?? [];
			if (of !== undefined && !wheels.some(({ position }) => position === of))
				wrong(`modules.${role}.pins.${pin}`, `there is no wheel “${of}”`);
		}
	for (const path of assumed)
		if (/\p{Cc}/u.test(path)) wrong('assumed', 'a path has no control characters in it');
	return problems;
}

/** Devices that are wired and are no modules. */
const DEVICES = new Set(['brake-switch', 'pressure']);

function strayPoints(
	harness: Harness,
	modules: Described['modules'],
	wheels: ReadonlySet<string>
): Problem[] {
	const names = (list: { name: string }[]) => list.map(({ name }) => name);
	const single = new Set([...names(harness.fuses), ...names(harness.grounds)]);
	const parts = new Set([...names(harness.plugs), ...names(harness.splices)]);
	const known = (point: string): boolean => {
		if (single.has(point)) return true;
		const thing = thingOf(point);
		if (wheels.has(thing) || DEVICES.has(thing) || parts.has(thing)) return true;
		const module = modules.find(({ role }) => role === thing);
		return module !== undefined && point.slice(thing.length + 1) in module.pins;
	};
	return harness.conductors.flatMap(({ id, points }) =>
		points
			.filter((point) => !known(point))
			.map((point) => ({
				path: `harness.conductors.${id}`,
				reason: `“${point}” is no fuse, ground, splice, plug, wheel or pin that is described`
			}))
	);
}
