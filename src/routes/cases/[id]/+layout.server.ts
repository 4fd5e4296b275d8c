import type { JobStatus } from '$lib/case/jobStatus';
import { loadCase } from '$lib/server/cases/access';
import { nextAsReasoned } from '$lib/server/cases/nextAsReasoned';
import { casePage } from '$lib/server/cases/page';
import { mayWrite } from '$lib/server/accounts/members';
import { services } from '$lib/server/running';

/** Work on this vehicle that was begun on another case. */
const elsewhereOf = (job: JobStatus | null, caseId: string): JobStatus | null =>
	job && job.caseId !== caseId ? job : null;

export const load = async ({ params, depends, locals }) => {
	depends(`jaldi:case`);
	const loaded = await loadCase(params.id);
	return {
		case: { ...casePage(loaded), next: await nextAsReasoned(loaded) },
		job: services().desk.status(params.id),
		elsewhere: elsewhereOf(services().desk.runningOn(loaded.row.vehicle.linkAddress), params.id),
		canWrite: locals.member !== null && mayWrite(locals.member)
	};
};
