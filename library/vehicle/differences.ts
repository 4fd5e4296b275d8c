import type { Described } from './vehicleType';

/** Something that two versions of a description say differently. */
export interface Difference {
	/** As `assumed` names it: `wheels.front-left.ringTeeth`. */
	path: string;
	/** Null = there is no such thing. */
	before: string | null;
	after: string | null;
}

/** What tells the things of a list apart. */
const NAMES = ['position', 'role', 'name', 'id', 'segment'] as const;

/** Each value of a description by its path; a list of things by their names. */
function* valuesOf(value: unknown, path: string): Generator<[path: string, value: string]> {
	if (Array.isArray(value)) {
		const things = value.filter(
			(one): one is Record<string, unknown> => typeof one === 'object' && one !== null
		);
		if (things.length === 0) return yield [path, value.join(', ')];
		for (const [i, thing] of things.entries()) {
			const key = NAMES.find((name) => typeof thing[name] === 'string');
			yield* valuesOf(thing, `${path}.${key ? String(thing[key]) : i + 1}`);
		}
	} else if (typeof value === 'object' && value !== null)
		for (const [key, one] of Object.entries(value)) yield* valuesOf(one, path ? `${path}.${key}` : key);
	else if (value !== undefined) yield [path, String(value)];
}

/**
 * What the later version says otherwise than the earlier one: values, and what was assumed and is known by now. In the order of
 * the later version, what is gone at the end.
 */
export function differences(earlier: Described, later: Described): Difference[] {
	const of = ({ version: _, assumed: __, ...rest }: Described) => new Map(valuesOf(rest, ''));
	const [before, after] = [of(earlier), of(later)];
	const changed = [...after].flatMap(([path, value]): Difference[] =>
		before.get(path) === value ? [] : [{ path, before: before.get(path) ?? null, after: value }]
	);
	const gone = [...before].flatMap(([path, value]): Difference[] =>
		after.has(path) ? [] : [{ path, before: value, after: null }]
	);
	return [...changed, ...gone];
}

/** Paths that were only assumed in the earlier version and are known in the later one. */
export const learned = (earlier: Described, later: Described): string[] => {
	const still = new Set(later.assumed);
	return earlier.assumed.filter((path) => !still.has(path));
};
