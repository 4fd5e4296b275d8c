import { fail } from '@sveltejs/kit';
import { shopFunctions } from '$library/calibrations';
import { maySign } from '$lib/server/accounts/members';
import { memberHere } from '$lib/server/cases/access';
import { services } from '$lib/server/running';

export const load = async ({ locals }) => {
	const owned = new Set(await services().settings.read('equipment'));
	return {
		functions: [...shopFunctions.values()].map((one) => ({ ...one, owned: owned.has(one.id) })),
		mayChange: locals.member !== null && maySign(locals.member)
	};
};

export const actions = {
	save: async (event) => {
		const member = memberHere(event);
		if (!maySign(member)) return fail(403, { error: 'A lead says what the shop can do.' });
		const form = await event.request.formData();
		const owned = form.getAll('owned').map(String);
		const unknown = owned.find((id) => !shopFunctions.has(id));
		if (unknown !== undefined) return fail(400, { error: `There is no function "${unknown}".` });
		await services().settings.write('equipment', owned, member.id);
		return { saved: true };
	}
};
