import { fail, ok, type Result } from '../../src/lib/core/result';
import { idText } from '../../src/lib/core/bus/frameLog';
import { routeOfAddress } from '../../src/lib/core/can/canRoute';
import { checkDescription } from './check';
import { completed, harnessPaths } from './complete';
import type { Given } from './given';
import type { Over } from './linkRoutes';
import type { Described, ModuleRole } from './vehicleType';

/** A module that answered, and what somebody says that it is. */
export interface ToldModule {
	role: ModuleRole;
	/** Where it answers: two bytes on the network; on CAN its address of 29 bits or the identifier that it is asked on. */
	address: string;
	/** What it calls itself. */
	name?: string | undefined;
}

type GivenModule = NonNullable<Given['modules']>[number];

/** Where a module answers, as a description writes it. */
function reached(over: Over, address: string): Pick<GivenModule, 'doip' | 'can'> {
	if (over === 'network') return { doip: address };
	const route = routeOfAddress(parseInt(address, 16));
	if (!route) return {};
	const { request, response, extended } = route;
	return { can: `${idText(request, extended)}:${idText(response, extended)}` };
}

/**
 * A description with the modules that answered: where they answer is known from here on, those that were only assumed to be
 * there and did not answer are gone, and where the wiring was only assumed it follows the modules. The error says what does
 * not fit.
 *
 * @param volts of the supply, where the modules told it
 */
export function withModules(
	described: Described,
	over: Over,
	told: readonly ToldModule[],
	volts: 12 | 24 | null = null
): Result<Described> {
	if (told.length === 0) return fail('say of at least one module what it is');
	const twice = told.find(({ role }, i) => told.findIndex((one) => one.role === role) !== i);
	if (twice) return fail(`two modules cannot both be the ${twice.role.replace('-', ' ')} module`);
	const assumed = new Set(described.assumed);
	const paths = harnessPaths(described.harness);
	const isDrawn = paths.some((path) => !assumed.has(path));
	const isTold = (role: ModuleRole) => told.some((one) => one.role === role);
	const kept = described.modules.filter(
		({ role, doip, can }) =>
			!isTold(role) &&
			(isDrawn || doip !== undefined || can !== undefined || !assumed.has(`modules.${role}.address`))
	);
	const answered = told.map(({ role, address, name }): GivenModule => {
		const { pins, ...known }: GivenModule = described.modules.find((one) => one.role === role) ?? { role };
		if (name) assumed.delete(`modules.${role}.name`);
		return {
			...known,
			...reached(over, address),
			...(name ? { name } : {}),
			...(pins && !assumed.has(`modules.${role}.pins`) ? { pins } : {})
		};
	});
	const modules = [...kept, ...answered];
	const there = new Set(modules.map(({ role }) => role));
	for (const path of ['modules', ...(volts ? ['volts'] : [])]) assumed.delete(path);
	const { harness, gateway, ...rest } = described;
	const isStill = (path: string) => {
		const role = /^modules\.([^.]+)\./.exec(path)?.[1];
		return (isDrawn || !path.startsWith('harness.')) && (role === undefined || there.has(role as ModuleRole));
	};
	const checked = checkDescription(
		completed({
			...rest,
			modules,
			...(modules.some(({ address }) => address === gateway) ? { gateway } : {}),
			...(volts ? { volts } : {}),
			...(isDrawn ? { harness } : {}),
			assumed: [...assumed].filter(isStill)
		})
	);
	if (checked.ok) return ok(checked.described);
	const [problem] = checked.problems;
	return fail(`${problem?.path || 'the whole'}: ${problem?.reason ?? 'it does not fit'}`);
}
