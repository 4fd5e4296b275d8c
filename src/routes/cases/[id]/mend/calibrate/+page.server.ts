import type { RequestEvent } from './$types';
import { error } from '@sveltejs/kit';
import { calibrationConditions, shopFunctions } from '$library/calibrations';
import { exposedByCalibration } from '$library/exposedBySteps';
import type { VehicleType } from '$library/index';
import { caseCalibrations, type CaseCalibration } from '$lib/case/mend/calibrations';
import { lowerFirst, upperFirst } from '$lib/case/words';
import { maySign } from '$lib/server/accounts/members';
import { caseHere, loadCase } from '$lib/server/cases/access';
import { cautionsHere, type CautionsHere } from '$lib/server/cases/cautionsHere';
import { clock } from '$lib/server/cases/clock';
import { entryAction, entryFormFor } from '$lib/server/cases/entryForms';
import { ByHandForm, WaiveForm } from './forms';

/** One calibration as the page shows it. */
function shown(
	one: CaseCalibration,
	all: readonly CaseCalibration[],
	owned: ReadonlySet<string>,
	cautions: CautionsHere,
	type: VehicleType | null
) {
	const { calibration, module } = one.placed;
	const { entry } = one;
	const nameOf = (id: string) => all.find((other) => other.id === id)?.placed.calibration.name ?? id;
	return {
		id: one.id,
		name: calibration.name,
		moduleName: module.name,
		does: calibration.does,
		state: one.state,
		because: [...new Set(one.causes.map(({ because }) => upperFirst(because)))],
		waitsFor: one.waitsFor.map((id) => lowerFirst(nameOf(id))),
		minutes: calibration.minutes,
		lacks: calibration.needs.filter((id) => !owned.has(id)).map((id) => shopFunctions.get(id)?.words ?? id),
		way: calibration.way.kind,
		phases: calibration.way.kind === 'drive' ? calibration.way.phases : [],
		conditions: calibration.conditions.flatMap((id) => calibrationConditions.get(id) ?? []),
		cautions: cautions
			.list(type ? exposedByCalibration(calibration, type, module.role) : calibration.exposes)
			.map(({ words }) => words),
		values: entry?.kind === 'calibration' ? entry.payload.values : [],
		detail:
			entry?.kind === 'calibration'
				? entry.payload.detail
				: entry?.kind === 'calibration-waived'
					? entry.payload.why
					: '',
		time: entry ? clock(entry.observedAt) : null,
		by: entry?.authorName ?? null
	};
}

export const load = async ({ params, depends, locals }) => {
	depends('jaldi:case');
	const { row, view, type } = await caseHere({ params, locals });
	const all = caseCalibrations(view.entries);
	const cautions = await cautionsHere(locals.services, type);
	const owned = new Set(await locals.services.settings.read('equipment'));
	return {
		calibrations: all.map((one) => shown(one, all, owned, cautions, type)),
		linkAddress: row.vehicle.linkAddress,
		mayWaive: locals.member !== null && maySign(locals.member),
		handForm: await entryFormFor(ByHandForm, { calibration: '', how: 'by-hand', state: 'done', detail: '' }),
		waiveForm: await entryFormFor(WaiveForm, { calibration: '', reason: '' })
	};
};

/** The calibration of a case by its id; throws 404 where the case has none of that name. */
async function calibrationOf({ locals, params }: RequestEvent, id: string): Promise<CaseCalibration> {
	const { view } = await loadCase(locals.services, params.id);
	const found = caseCalibrations(view.entries).find((one) => one.id === id);
	if (!found) error(404, 'This calibration is not due on this case.');
	return found;
}

const nameOf = ({ placed }: CaseCalibration) =>
	`${placed.calibration.name}, ${lowerFirst(placed.module.name)}`;

export const actions = {
	hand: async (event) =>
		entryAction(
			ByHandForm,
			'calibration',
			async ({ calibration, how, state, detail }) => {
				const one = await calibrationOf(event, calibration);
				const { placed } = one;
				return {
					calibration: placed.calibration.id,
					role: placed.module.role,
					address: placed.module.address,
					name: nameOf(one),
					how,
					state,
					values: [],
					conditions: [],
					detail
				};
			},
			'Saved on the thread.'
		)(event),
	waive: async (event) => {
		return entryAction(
			WaiveForm,
			'calibration-waived',
			async ({ calibration, reason }) => {
				const one = await calibrationOf(event, calibration);
				return {
					calibration: one.placed.calibration.id,
					role: one.placed.module.role,
					name: nameOf(one),
					why: reason
				};
			},
			'Waived; it will stand on the report.'
		)(event);
	}
};
