import { loadCase } from '$lib/server/cases/access';
import { nextStepOf } from '$lib/server/cases/nextStep';
import { casePage } from '$lib/server/cases/page';
import { mayWrite } from '$lib/server/accounts/members';
import { services } from '$lib/server/running';

export const load = async ({ params, depends, locals }) => {
	depends(`jaldi:case`);
	const loaded = await loadCase(params.id);
	return {
		case: { ...casePage(loaded), next: await nextStepOf(loaded) },
		job: services().desk.status(params.id),
		canWrite: locals.member !== null && mayWrite(locals.member)
	};
};
