import { error, fail } from '@sveltejs/kit';
import { namingSection, vehicleSections } from '$lib/case/thread/vehicleView';
import { mayEditCodes } from '$lib/server/accounts/members';
import { memberHere } from '$lib/server/cases/access';
import { clock } from '$lib/server/cases/clock';
import type { VehicleDescriptions } from '$lib/server/db/vehicleDescriptions';
import { laidOut } from '$lib/server/vehicleDrawing';
import { vehicleTypes } from '$library/index';
import { differences, learned } from '$library/vehicle/differences';
import { cornerDrawing, networkDrawing } from '$library/vehicle/drawings';
import { stillAssumed } from '$library/vehicle/known';
import { usualModule } from '$library/vehicle/templates';
import {
	descriptionOf,
	MODULE_ROLES,
	ModuleRole,
	vehicleName,
	vehicleTypeOf,
	type Described
} from '$library/vehicle/vehicleType';
import { withRoles } from '$library/vehicle/withModules';

const MOST_DIFFERENCES = 200;

/** The description as it stands: the shop's newest, or as it is shipped. */
async function standing(descriptions: VehicleDescriptions, id: string): Promise<Described> {
	const shipped = vehicleTypes.get(id);
	const newest = (await descriptions.newest(id)) ?? (shipped ? descriptionOf(shipped) : null);
	if (!newest) error(404, 'No vehicle is described under this name.');
	return newest;
}

export const load = async (event) => {
	const { vehicleDescriptions } = event.locals.services;
	const { id } = event.params;
	const described = await standing(vehicleDescriptions, id);
	const type = vehicleTypeOf(described);
	const wheel =
		type.wheels.find(({ position }) => position === event.url.searchParams.get('wheel')) ?? type.wheels[0];
	const kept = await vehicleDescriptions.versions(id);
	const against = Number(event.url.searchParams.get('against'));
	const earlier = Number.isInteger(against) && against > 0 ? await vehicleDescriptions.at(id, against) : null;
	const changed = earlier ? differences(earlier, described) : [];
	return {
		id,
		name: vehicleName(type),
		version: described.version,
		assumed: stillAssumed(type).length,
		mayEdit: mayEditCodes(memberHere(event)),
		sections: [namingSection(type), ...vehicleSections(type)],
		network: await laidOut(networkDrawing(type)),
		wheels: type.wheels.map(({ position }) => position),
		corner: wheel
			? { position: wheel.position, drawing: await laidOut(cornerDrawing(type, wheel.position)) }
			: null,
		roles: MODULE_ROLES.map((role) => ({
			role,
			name: type.modules.find((one) => one.role === role)?.name ?? usualModule(role, 'car').name,
			has: type.modules.some((one) => one.role === role)
		})),
		versions: [
			...kept.map(({ version, because, madeAt }) => ({
				version,
				because,
				made: `${madeAt.slice(0, 10)} ${clock(madeAt)}`
			})),
			...(vehicleTypes.has(id) ? [{ version: 1, because: '', made: 'comes with Jaldi' }] : [])
		],
		compared: earlier && {
			with: earlier.version,
			rows: changed.slice(0, MOST_DIFFERENCES),
			more: Math.max(0, changed.length - MOST_DIFFERENCES),
			learned: learned(earlier, described).length
		}
	};
};

export const actions = {
	/** Which modules it has. */
	roles: async (event) => {
		const member = memberHere(event);
		const { vehicleDescriptions } = event.locals.services;
		const described = await standing(vehicleDescriptions, event.params.id);
		const asked = (await event.request.formData()).getAll('role').map((role) => ModuleRole.safeParse(role));
		const roles = asked.flatMap((role) => (role.success ? [role.data] : []));
		if (roles.length !== asked.length) return fail(400, { refused: 'There is no such module.' });
		const next = withRoles(described, roles);
		if (!next.ok) return fail(400, { refused: `That does not fit: ${next.error}.` });
		const { version } = await vehicleDescriptions.keep(next.value, member, 'Its modules were named');
		return { kept: version };
	},
	/** Takes an earlier version up again, as a further one: nothing is lost by it. */
	restore: async (event) => {
		const member = memberHere(event);
		const { vehicleDescriptions } = event.locals.services;
		const version = Number((await event.request.formData()).get('version'));
		const earlier = Number.isInteger(version) ? await vehicleDescriptions.at(event.params.id, version) : null;
		if (!earlier) return fail(404, { refused: 'There is no such version.' });
		const kept = await vehicleDescriptions.keep(earlier, member, `Version ${version} taken up again`);
		return { kept: kept.version };
	}
};
