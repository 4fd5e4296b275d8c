import { fail, ok, type Result } from '../../src/lib/core/result';
import { idText } from '../../src/lib/core/bus/frameLog';
import { routeOfAddress } from '../../src/lib/core/can/canRoute';
import { checkDescription } from './check';
import { completed, harnessPaths } from './complete';
import { corrected } from './correct';
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
	const isTold = (role: ModuleRole) => told.some((one) => one.role === role);
	const kept = described.modules.filter(
		(module) => !isTold(module.role) && (isDrawn(described) || isReached(module, assumed))
	);
	const answered = told.map(({ role, address, name }): GivenModule => {
		const known: GivenModule = described.modules.find((one) => one.role === role) ?? { role };
		if (name) assumed.delete(`modules.${role}.name`);
		return { ...known, ...reached(over, address), ...(name ? { name } : {}) };
	});
	return rebuilt({ ...described, assumed: [...assumed] }, [...kept, ...answered], volts);
}

/**
 * A description with the tyre and the ring that a module is coded with, at its first axle, as far as nobody has told them. They stay
 * assumed: what a module is coded with can be the fault itself. The error says what does not fit.
 */
export function withCoding(
	described: Described,
	{ circumferenceMm, teeth }: { circumferenceMm: number | null; teeth: number | null }
): Result<Described> {
	const [first] = described.wheels;
	const told = described.wheels
		.filter(({ axle }) => axle === first?.axle)
		.flatMap(({ position }) => [
			{ path: `wheels.${position}.circumferenceM`, value: circumferenceMm && circumferenceMm / 1000 },
			{ path: `wheels.${position}.ringTeeth`, value: teeth }
		])
		.flatMap(({ path, value }) => (value && described.assumed.includes(path) ? [{ path, value }] : []));
	const coded = corrected(described, told);
	return coded.ok ? ok({ ...coded.value, assumed: described.assumed }) : coded;
}

/**
 * A description with these modules and no others, as somebody who knows the vehicle says; what was known of those that stay is
 * kept, and where the wiring was only assumed it follows. The error says what does not fit.
 */
export function withRoles(described: Described, roles: readonly ModuleRole[]): Result<Described> {
	if (roles.length === 0) return fail('a vehicle has at least one module');
	const modules = [...new Set(roles)].map(
		(role): GivenModule => described.modules.find((one) => one.role === role) ?? { role }
	);
	return rebuilt(described, modules, null);
}

/** Whether anything of the wiring is known, and not only usual. */
function isDrawn({ harness, assumed }: Described): boolean {
	const only = new Set(assumed);
	return harnessPaths(harness).some((path) => !only.has(path));
}

const isReached = ({ role, doip, can }: Described['modules'][number], assumed: ReadonlySet<string>) =>
	doip !== undefined || can !== undefined || !assumed.has(`modules.${role}.address`);

/** The description around another list of modules. */
function rebuilt(
	described: Described,
	modules: readonly GivenModule[],
	volts: 12 | 24 | null
): Result<Described> {
	const drawn = isDrawn(described);
	const assumed = new Set(described.assumed);
	for (const path of ['modules', ...(volts ? ['volts'] : [])]) assumed.delete(path);
	const there = new Set<string>(modules.map(({ role }) => role));
	const { harness, gateway, ...rest } = described;
	const isStill = (path: string) => {
		const role = /^modules\.([^.]+)\./.exec(path)?.[1];
		return (drawn || !path.startsWith('harness.')) && (role === undefined || there.has(role));
	};
	const checked = checkDescription(
		completed({
			...rest,
			// Pins that were only assumed follow from what else the vehicle has.
			modules: modules.map(({ pins, ...module }) =>
				pins && !assumed.has(`modules.${module.role}.pins`) ? { ...module, pins } : module
			),
			...(modules.some(({ address }) => address === gateway) ? { gateway } : {}),
			...(volts ? { volts } : {}),
			...(drawn ? { harness } : {}),
			assumed: [...assumed].filter(isStill)
		})
	);
	if (checked.ok) return ok(checked.described);
	const [problem] = checked.problems;
	return fail(`${problem?.path || 'the whole'}: ${problem?.reason ?? 'it does not fit'}`);
}
