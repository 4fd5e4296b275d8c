import { fail } from '@sveltejs/kit';
import { z } from 'zod';
import { memberHere } from '$lib/server/cases/access';
import { maySign } from '$lib/server/accounts/members';
import { floorAsked, floorPage } from '$lib/server/cases/floorPage';
import { sayHere } from '$lib/server/cases/hereToday';

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

const Here = z.object({ id: z.string().min(1).max(60), here: z.literal('yes').optional() });

export const actions = {
	/** Somebody is here today, or is not: the day is planned with those who are. */
	here: async (event) => {
		const member = memberHere(event);
		const said = Here.safeParse(Object.fromEntries(await event.request.formData()));
		if (!said.success) return fail(400, { why: z.prettifyError(said.error) });
		const { id, here } = said.data;
		const done = await sayHere(event.locals.services, { id, here: here === 'yes' }, member);
		return done.ok ? { why: null } : fail(404, { why: done.error });
	}
};
