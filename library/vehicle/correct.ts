import { z } from 'zod';
import { fail, ok, type Result } from '../../src/lib/core/result';
import { checkDescription } from './check';
import { withPin } from './pins';
import type { Described } from './vehicleType';

const MOST_CORRECTIONS = 500;

/** Things that somebody has looked up or seen, each by its path as `assumed` names it. */
export const Corrections = z
	.array(
		z.object({
			/** `wheels.front-left.ringTeeth`, `modules.brake.accessMin`, `harness.plugs.X11.where`, `chassis.drive`, `volts`. */
			path: z.string().min(1).max(260),
			value: z.union([z.string().max(200), z.number(), z.boolean()])
		})
	)
	.min(1)
	.max(MOST_CORRECTIONS);
type Correction = z.output<typeof Corrections>[number];

const LISTS = {
	wheels: 'position',
	modules: 'role',
	fuses: 'name',
	grounds: 'name',
	plugs: 'name',
	splices: 'name',
	conductors: 'id'
} as const;

const PIN_PATH = /^modules\.(?<role>[a-z-]+)\.pins\.(?<does>.+)$/;
/** A name may itself have full stops in it: it is what stands between its list and the last part. */
const PATH =
	/^(?:(?<list>wheels|modules|harness\.(?<part>fuses|grounds|plugs|splices|conductors))\.(?<name>.+)\.(?<key>\w+)|chassis\.(?<chassis>\w+)|parkingBrake\.(?<brake>by)|(?<own>volts|model|maker|use|sensor|senseResistorOhms|highVoltage|brakes))$/;

/**
 * A description with what is known by now: what was told is no longer assumed, all else stays. The error names the path and what
 * is wrong with it; nothing is taken then.
 */
export function corrected(description: Described, corrections: readonly Correction[]): Result<Described> {
	let next = structuredClone(description) as Described & Record<string, unknown>;
	for (const { path, value } of corrections) {
		const { role, does } = PIN_PATH.exec(path)?.groups ?? {};
		if (!role || !does) continue;
		const told = withPin(next, role, does, String(value).trim());
		if (!told.ok) return fail(`${path}: ${told.error}`);
		next = told.value as typeof next;
	}
	const assumed = new Set(next.assumed);
	for (const { path, value } of corrections.filter((one) => !PIN_PATH.test(one.path))) {
		const { list, part, name, key, chassis, brake, own } = PATH.exec(path)?.groups ?? {};
		if (list && name && key) {
			const kind = (part ?? list) as keyof typeof LISTS;
			const all = (part ? next.harness[part as 'plugs'] : next[list]) as Record<string, unknown>[];
			const thing = all.find((one) => one[LISTS[kind]] === name);
			if (!thing) return fail(`${path}: there is no “${name}” in it`);
			if (key === LISTS[kind] || !(Object.hasOwn(thing, key) || (list === 'wheels' && key === 'sensor')))
				return fail(`${path}: that cannot be put right here`);
			thing[key] = value;
			assumed.delete(path);
			if (part) assumed.delete(`harness.${part}.${name}`);
		} else if (chassis) {
			if (!Object.hasOwn(next.chassis, chassis)) return fail(`${path}: a chassis has no such thing`);
			(next.chassis as Record<string, unknown>)[chassis] = value;
			assumed.delete(path);
		} else if (brake) {
			(next.parkingBrake as Record<string, unknown>)[brake] = value;
			assumed.delete('parkingBrake');
		} else if (own) {
			(next as Record<string, unknown>)[own] = value;
			assumed.delete(path);
		} else return fail(`${path}: that cannot be put right here`);
	}
	const checked = checkDescription({ ...next, assumed: [...assumed] });
	if (checked.ok) return ok(checked.described);
	const [problem] = checked.problems;
	return fail(`${problem?.path || 'the whole'}: ${problem?.reason ?? 'it does not fit'}`);
}
