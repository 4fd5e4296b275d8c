import { fail } from '@sveltejs/kit';
import { maySign } from '$lib/server/accounts/members';
import { memberHere } from '$lib/server/cases/access';
import { cautionsOf, exposures, NO_DANGER } from '$library/safety';

const MOST_LETTERS = 300;

export const load = async ({ locals }) => {
	const ofShop = await locals.services.settings.read('cautions');
	return {
		exposures: [...exposures]
			.filter(([id]) => id !== NO_DANGER)
			.map(([id, { what }]) => ({
				id,
				what,
				cautions: cautionsOf([id]).map(({ words }) => words),
				own: ofShop[id] ?? ''
			})),
		mayChange: locals.member !== null && maySign(locals.member),
		mostLetters: MOST_LETTERS
	};
};

export const actions = {
	save: async (event) => {
		const member = memberHere(event);
		const form = await event.request.formData();
		const id = String(form.get('exposure') ?? '');
		const words = String(form.get('words') ?? '').trim();
		if (!exposures.has(id)) return fail(400, { error: 'There is no such danger in the library.' });
		if (words.length > MOST_LETTERS)
			return fail(400, { error: `At most ${MOST_LETTERS} letters: a caution has to be read.`, id });
		const { settings } = event.locals.services;
		const { [id]: _before, ...others } = await settings.read('cautions');
		await settings.write('cautions', words === '' ? others : { ...others, [id]: words }, member);
		return { saved: id };
	}
};
