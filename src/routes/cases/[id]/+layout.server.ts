import { agreementOf, openWithCustomer } from '$lib/case/progress/agreed';
import type { JobStatus } from '$lib/case/progress/jobStatus';
import { planIn } from '$lib/case/progress/summary';
import { inTheWayNow } from '$lib/case/thread/inTheWay';
import { caseHere } from '$lib/server/cases/access';
import { cautionsHere } from '$lib/server/cases/cautionsHere';
import { promiseShown } from '$lib/server/cases/floorPage';
import type { LoadedCase } from '$lib/server/cases/loadedCase';
import { nextAsReasoned } from '$lib/server/cases/nextAsReasoned';
import { casePage } from '$lib/server/cases/page';
import { mayTakeIn, mayWrite } from '$lib/server/accounts/members';
import { exposedByVehicle } from '$library/exposed';

/** Work on this vehicle that was begun on another case. */
const elsewhereOf = (job: JobStatus | null, caseId: string): JobStatus | null =>
	job && job.caseId !== caseId ? job : null;

/** When it is promised, who has it, and what it waits for. */
function plannedOf({ row, view }: LoadedCase) {
	const { number, vehicleName, vehicle, wanted } = row;
	const plan = planIn(view.entries);
	return {
		...plan,
		...promiseShown(plan.promise, wanted, new Date()),
		id: row.id,
		name: `${number}, ${vehicleName}, ${vehicle.nickname}`
	};
}

export const load = async ({ params, depends, locals }) => {
	depends(`jaldi:case`);
	const { services } = locals;
	const loading = caseHere({ params, locals });
	const [loaded, cautions, next, people, closesAtHour] = await Promise.all([
		loading,
		cautionsHere(
			services,
			loading.then(({ type }) => type)
		),
		nextAsReasoned(services, params.id, loading),
		services.people.atWork(),
		services.settings.read('closesAtHour')
	]);
	const { type } = loaded;
	return {
		case: { ...casePage(loaded), ...next },
		/** What this vehicle exposes whatever is done to it; empty = nothing beyond the step’s own. */
		vehicleCautions: type ? cautions.words(exposedByVehicle(type)) : '',
		/** Signals of ours that stand in for a sensor: what is read there is no evidence until they are off. */
		held: [...inTheWayNow(loaded.view.entries).held.values()],
		planned: plannedOf(loaded),
		/** What stands between the work and the customer’s yes; null = nothing. */
		openWithCustomer: openWithCustomer(agreementOf(loaded.view.entries)),
		planning: { people: people.map(({ id, name }) => ({ id, name })), closesAtHour },
		job: services.vehicleJobs.status(params.id),
		elsewhere: elsewhereOf(services.vehicleJobs.runningOn(loaded.row.vehicle.linkAddress), params.id),
		canWrite: locals.member !== null && mayWrite(locals.member),
		/** The office too: what customers say and are told. */
		canTakeIn: locals.member !== null && mayTakeIn(locals.member)
	};
};
