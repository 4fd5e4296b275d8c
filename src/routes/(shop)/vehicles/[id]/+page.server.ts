import { error } from '@sveltejs/kit';
import { codesOver, kmPerYear, visitOf } from '$lib/case/progress/vehicleHistory';
import { loadCase } from '$lib/server/cases/access';
import { dayOf } from '$lib/server/cases/clock';
import { typeName } from '$lib/server/db/cases';

/** Visits that are shown; older ones are found by search. */
const MOST_VISITS = 20;

export const load = async ({ params, locals }) => {
	const { services } = locals;
	const vehicle = await services.cases.vehicle(params.id);
	if (!vehicle) error(404, 'No such vehicle was ever here.');
	const ids = await services.cases.idsOfVehicle(vehicle.id, MOST_VISITS);
	const loaded = await Promise.all(ids.map((id) => loadCase(services, id)));
	const visits = loaded.map(({ row, thread, view }) =>
		visitOf({ id: row.id, number: row.number, signed: row.signed, at: thread[0]?.observedAt ?? '' }, view)
	);
	const vins = new Set(
		loaded.flatMap(({ view }) =>
			view.entries.flatMap((entry) => (entry.kind === 'vehicle-checked' ? [entry.payload.vin] : []))
		)
	);
	return {
		vehicle: {
			name: typeName(vehicle.typeId, vehicle.typeName),
			nickname: vehicle.nickname,
			plate: vehicle.plate,
			vins: [...(vins.size > 0 ? vins : new Set(vehicle.vin ? [vehicle.vin] : []))]
		},
		visits: visits.map((visit) => ({ ...visit, day: visit.at === '' ? '' : dayOf(visit.at) })),
		codes: codesOver(visits),
		kmPerYear: kmPerYear(visits),
		isAll: ids.length < MOST_VISITS
	};
};
