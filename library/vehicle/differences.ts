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

/** What stands for a thing as a whole. */
const THERE = 'there';

/** Each value of a description by its path; a list of things by their names. */
function* valuesOf(value: unknown, path: string): Generator<[path: string, value: string]> {
	if (Array.isArray(value)) {
		const things = value.filter(
			(one): one is Record<string, unknown> => typeof one === 'object' && one !== null
		);
		if (things.length === 0) return yield [path, value.join(', ')];
		for (const [i, thing] of things.entries()) {
			const key = NAMES.find((name) => typeof thing[name] === 'string');
			const own = `${path}.${key ? String(thing[key]) : i + 1}`;
			yield [own, THERE];
			yield* valuesOf(thing, own);
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
	const onlyIn = (here: Map<string, string>, there: Map<string, string>) =>
		[...here].flatMap(([path, value]) => (value === THERE && !there.has(path) ? [path] : []));
	// Of a thing that is new or gone as a whole, its values are no news of their own.
	const whole = [...onlyIn(after, before), ...onlyIn(before, after)];
	const isTold = (path: string) => !whole.some((thing) => path.startsWith(`${thing}.`));
	return [...new Set([...after.keys(), ...before.keys()])].flatMap((path): Difference[] => {
		const [was, is] = [before.get(path) ?? null, after.get(path) ?? null];
		return was === is || !isTold(path) ? [] : [{ path, before: was, after: is }];
	});
}

/** Paths that were only assumed in the earlier version and are known in the later one. */
export const learned = (earlier: Described, later: Described): string[] => {
	const still = new Set(later.assumed);
	return earlier.assumed.filter((path) => !still.has(path));
};
