import { typeOf } from '$lib/case/codes';
import type { JobStatus } from '$lib/case/jobStatus';
import { caseHere } from '$lib/server/cases/access';
import { cautionsHere } from '$lib/server/cases/cautionsHere';
import { nextAsReasoned } from '$lib/server/cases/nextAsReasoned';
import { casePage } from '$lib/server/cases/page';
import { mayWrite } from '$lib/server/accounts/members';
import { services } from '$lib/server/running';
import { exposedByVehicle } from '$library/exposed';

/** Work on this vehicle that was begun on another case. */
const elsewhereOf = (job: JobStatus | null, caseId: string): JobStatus | null =>
	job && job.caseId !== caseId ? job : null;

export const load = async ({ params, depends, locals }) => {
	depends(`jaldi:case`);
	const loaded = await caseHere({ params, locals });
	const type = typeOf(loaded.view.entries);
	const cautions = await cautionsHere(type);
	return {
		case: { ...casePage(loaded), next: await nextAsReasoned(loaded) },
		/** What this vehicle exposes whatever is done to it; empty = nothing beyond the step’s own. */
		vehicleCautions: type ? cautions.words(exposedByVehicle(type)) : '',
		job: services().desk.status(params.id),
		elsewhere: elsewhereOf(services().desk.runningOn(loaded.row.vehicle.linkAddress), params.id),
		canWrite: locals.member !== null && mayWrite(locals.member)
	};
};
