import { maySign } from '$lib/server/accounts/members';
import { floorAsked, floorPage } from '$lib/server/cases/floorPage';

export const load = async ({ url, depends, locals }) => {
	depends('jaldi:floor');
	const { services, member } = locals;
	const asked = floorAsked(url);
	const mayLook = member !== null && maySign(member);
	const [floor, aside] = await Promise.all([
		floorPage(services, member, asked),
		mayLook ? services.putAside.unseen() : []
	]);
	return { floor, asked, me: member?.id ?? null, aside: aside.length };
};
