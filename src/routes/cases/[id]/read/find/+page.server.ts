import { fail, redirect } from '@sveltejs/kit';
import { ulid } from 'ulid';
import { z } from 'zod';
import { Ulid } from '$lib/case/entries/fields';
import { modulesInLog } from '$lib/case/codes/modulesInLog';
import type { FoundModule } from '$lib/case/entries/modules-found/payload';
import { ofKind } from '$lib/case/thread/thread';
import { serialDevices } from '$lib/link/adapterPort';
import { whoIsThere } from '$lib/link/whoIsThere';
import { addEntry } from '$lib/server/cases/addEntry';
import { upperFirst } from '$lib/case/words';
import { caseHere, caseRowHere, loadCase, memberHere } from '$lib/server/cases/access';
import { clock } from '$lib/server/cases/clock';
import { describeVehicle } from '$lib/server/cases/describeVehicle';
import { adaptersAt, placesToAsk, refusedLink } from '$lib/server/cases/linkRules';
import { roleOfModule } from '$library/vehicle/roleOfModule';
import { usualModule } from '$library/vehicle/templates';
import { descriptionOf, MODULE_ROLES, ModuleRole } from '$library/vehicle/vehicleType';
import { withCoding, withModules } from '$library/vehicle/withModules';

/** What each module probably is: what it was said to be before, or what it says of itself; nothing twice. */
function proposed(modules: readonly FoundModule[], known: ReadonlyMap<string, ModuleRole>) {
	const taken = new Set<ModuleRole>();
	return modules.map((module) => {
		const role = known.get(module.address) ?? roleOfModule(module);
		const free = role !== null && !taken.has(role) ? role : null;
		if (free) taken.add(free);
		return free;
	});
}

export const load = async ({ params, depends, locals }) => {
	depends('jaldi:case');
	const { row, view, type } = await caseHere({ params, locals });
	if (!type || type.tells === 'lamp') redirect(303, `/cases/${params.id}/read`);
	const found = ofKind(view.entries, 'modules-found').at(-1) ?? null;
	const known = new Map(
		type.modules.flatMap(({ role, doip, can }) => {
			const on = found?.payload.over === 'can' ? can?.split(':')[0] : doip;
			const address = on && on.length === 8 ? on.slice(4, 6) : on;
			return address ? [[address.padStart(4, '0'), role] as const] : [];
		})
	);
	const there = found?.payload.modules.filter(({ silent }) => silent === null) ?? [];
	const roles = proposed(there, known);
	const recorded = ofKind(view.entries, 'vehicle-checked').at(-1)?.payload.vin ?? row.vehicle.vin;
	const vin = there.find((module) => module.vin !== null)?.vin ?? null;
	return {
		linkAddress: row.vehicle.linkAddress,
		/** Frame logs of this case in which modules answered. */
		logs: ofKind(view.entries, 'frame-log').flatMap(({ id, payload }) => {
			const inLog = modulesInLog(payload);
			return inLog ? [{ id, fileName: payload.fileName, modules: inLog.modules.length }] : [];
		}),
		roles: MODULE_ROLES.map((role) => ({ role, name: usualModule(role, 'car').name })),
		found: found && {
			id: found.id,
			time: clock(found.observedAt),
			by: found.authorName,
			vin,
			vinDiffers: vin !== null && recorded !== null && vin !== recorded,
			stoppedBecause: found.payload.stoppedBecause,
			silent: found.payload.modules.flatMap(({ address, silent }) => (silent ? [{ address, silent }] : [])),
			modules: there.map(({ address, name, software, part, knows, tells, coded }, i) => ({
				address,
				name,
				software,
				part,
				codes: knows.length,
				tells: tells.length,
				coded: [
					coded?.circumferenceMm ? `tyre ${coded.circumferenceMm} mm round` : '',
					coded?.teeth ? `${coded.teeth} teeth` : ''
				]
					.filter(Boolean)
					.join(', '),
				role: roles[i] ?? ''
			}))
		},
		/** Whether the description has them already. */
		described: there.length > 0 && there.every(({ address }) => known.has(address)),
		entryId: ulid()
	};
};

/** Volts of the supply as the modules measured them: which kind of supply that is; null where it could be either. */
function supplyOf(modules: readonly FoundModule[]): 12 | 24 | null {
	const told = modules.flatMap(({ volts }) => (volts === null ? [] : [volts])).sort((a, b) => a - b);
	const middle = told[Math.floor(told.length / 2)];
	if (middle === undefined || middle < 9 || middle > 32) return null;
	return middle < 16 ? 12 : middle > 20 ? 24 : null;
}

/** Modules that are coded with tyre and ring. */
const READS_WHEELS: ReadonlySet<string> = new Set<ModuleRole>(['brake', 'trailer-brake']);

const Named = z.object({ entryId: Ulid, foundId: Ulid });
const FromLog = z.object({ entryId: Ulid, logId: Ulid });

export const actions = {
	/** Asks the networks that the shop allows which vehicles are there, and looks which of its adapters are plugged in here. */
	look: async (event) => {
		const { settings } = event.locals.services;
		const rules = await settings.read('linkRules');
		const [vehicles, devices] = await Promise.all([whoIsThere(placesToAsk(rules)), serialDevices()]);
		return {
			noVehicle: vehicles.length === 0,
			there: [
				...vehicles.map(({ vin, at }) => ({ at, says: vin || 'tells no number' })),
				...adaptersAt(rules, devices).map((at) => ({ at, says: 'CAN adapter' }))
			]
		};
	},
	/** From here on this vehicle is reached there. */
	use: async (event) => {
		const { services } = event.locals;
		const address = String((await event.request.formData()).get('address') ?? '');
		const refused = refusedLink(address, await services.settings.read('linkRules'));
		if (refused) return fail(400, { lookError: refused });
		const { vehicle } = await caseRowHere(services, event.params.id);
		await services.vehicles.setLinkAddress(vehicle.id, address);
		return { used: true };
	},
	/** Takes over who answered in a frame log of this case. */
	fromLog: async (event) => {
		const member = memberHere(event);
		const { services } = event.locals;
		const asked = FromLog.safeParse(Object.fromEntries(await event.request.formData()));
		if (!asked.success) return fail(400, { logError: 'Load the page again: it is out of date.' });
		const { view } = await loadCase(services, event.params.id);
		const log = ofKind(view.entries, 'frame-log').find(({ id }) => id === asked.data.logId);
		const inLog = log && modulesInLog(log.payload);
		if (!inLog) return fail(409, { logError: 'No module answers in that log.' });
		const stored = await addEntry(
			services,
			{ id: asked.data.entryId, caseId: event.params.id, kind: 'modules-found', payload: inLog },
			member
		);
		return stored.ok ? { taken: true } : fail(409, { logError: stored.error });
	},
	describe: async (event) => {
		const member = memberHere(event);
		const { services } = event.locals;
		const form = await event.request.formData();
		const asked = Named.safeParse(Object.fromEntries(form));
		if (!asked.success) return fail(400, { error: 'Load the page again: it is out of date.' });
		const { row, type, view } = await loadCase(services, event.params.id);
		if (view.signature) return fail(409, { error: 'This case is signed: its thread is closed.' });
		const found = ofKind(view.entries, 'modules-found').find(({ id }) => id === asked.data.foundId);
		if (!type || !found) return fail(409, { error: 'Search its modules first.' });
		const { over, modules } = found.payload;
		const told = modules.flatMap(({ address, name }) => {
			const role = ModuleRole.safeParse(form.get(`role:${address}`));
			return role.success ? [{ role: role.data, address, ...(name ? { name } : {}) }] : [];
		});
		const newest = await services.vehicleDescriptions.newest(type.id);
		const next = withModules(newest ?? descriptionOf(type), over, told, supplyOf(modules));
		if (!next.ok) return fail(400, { error: upperFirst(`${next.error}.`) });
		const coded = modules.find(
			({ address, coded: by }) => by && READS_WHEELS.has(String(form.get(`role:${address}`)))
		)?.coded;
		// What a module is coded with may be no tyre at all: then the description stays without it.
		const whole = coded ? withCoding(next.value, coded) : next;
		const stored = await describeVehicle(
			services,
			{ caseId: row.id, entryId: asked.data.entryId, because: 'Its modules answered' },
			whole.ok ? whole.value : next.value,
			member
		);
		if (!stored.ok) return fail(409, { error: stored.error });
		redirect(303, `/cases/${row.id}/read`);
	}
};
