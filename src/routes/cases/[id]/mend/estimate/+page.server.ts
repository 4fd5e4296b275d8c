import { mayTakeIn } from '$lib/server/accounts/members';
import { caseHere } from '$lib/server/cases/access';
import { estimatePage } from '$lib/server/cases/estimatePage';

export const load = async ({ params, depends, url, locals }) => {
	depends('jaldi:case');
	const loaded = await caseHere({ params, locals });
	const asked = { kind: url.searchParams.get('does'), place: url.searchParams.get('place') };
	const mayMake = locals.member !== null && mayTakeIn(locals.member) && !loaded.row.signed;
	return { ...(await estimatePage(locals.services, loaded, asked, mayMake)), mayMake };
};
