import { fail } from '@sveltejs/kit';
import { message, setError, superValidate } from 'sveltekit-superforms';
import { zod4 } from 'sveltekit-superforms/adapters';
import { z } from 'zod';
import { Currency, MOST_MONEY } from '$lib/case/entries/estimate/payload';
import { moneyRead, moneyTyped } from '$lib/core/money/money';
import { Choice } from '$lib/server/accounts/ownUnits';
import { memberHere } from '$lib/server/cases/access';
import { markOf, MOST_PHOTO_BYTES } from '$lib/server/db/photos';

const BASIS_POINTS = 100;

const Papers = z.object({
	shopName: z.string().trim().min(1, 'The shop has a name.').max(80),
	shopAddress: z.string().trim().max(300),
	paperFooter: z.string().trim().max(300),
	units: Choice,
	currency: Currency,
	rate: z.string().trim().max(20),
	taxPercent: z.number('A number of per cent.').min(0).max(100).multipleOf(0.01, 'Hundredths at most.')
});

export const load = async ({ locals }) => {
	const { settings } = locals.services;
	const terms = await settings.read('terms');
	return {
		hasLogo: (await settings.read('shopLogo')) !== '',
		form: await superValidate(
			{
				shopName: await settings.read('shopName'),
				shopAddress: await settings.read('shopAddress'),
				paperFooter: await settings.read('paperFooter'),
				units: await settings.read('units'),
				currency: terms?.currency ?? 'EUR',
				rate: terms ? moneyTyped(terms.ratePerHour, terms.currency) : '',
				taxPercent: (terms?.taxBasisPoints ?? 0) / BASIS_POINTS
			},
			zod4(Papers),
			{ errors: false }
		),
		currencies: Intl.supportedValuesOf('currency')
	};
};

export const actions = {
	save: async (event) => {
		const form = await superValidate(event.request, zod4(Papers));
		if (!form.valid) return fail(400, { form });
		const { currency, rate, taxPercent, ...paper } = form.data;
		const ratePerHour = moneyRead(rate, currency);
		if (ratePerHour === null || ratePerHour > MOST_MONEY)
			return setError(form, 'rate', `An amount in ${currency}, as 89.50.`);
		const { settings } = event.locals.services;
		const by = memberHere(event);
		await settings.write('shopName', paper.shopName, by);
		await settings.write('shopAddress', paper.shopAddress, by);
		await settings.write('paperFooter', paper.paperFooter, by);
		await settings.write('units', paper.units, by);
		const taxBasisPoints = Math.round(taxPercent * BASIS_POINTS);
		await settings.write('terms', { currency, ratePerHour, taxBasisPoints }, by);
		return message(form, 'Saved; papers from now on have it.');
	},
	logo: async (event) => {
		const sent = (await event.request.formData()).get('logo');
		if (!(sent instanceof File) || sent.size === 0) return fail(400, { logoError: 'Choose a picture.' });
		if (sent.size > MOST_PHOTO_BYTES) return fail(413, { logoError: 'A picture of up to 25 MB.' });
		const mark = await markOf(new Uint8Array(await sent.arrayBuffer()));
		if (!mark.ok) return fail(400, { logoError: mark.error });
		await event.locals.services.settings.write(
			'shopLogo',
			Buffer.from(mark.value).toString('base64'),
			memberHere(event)
		);
		return { logoSaved: true };
	},
	noLogo: async (event) => {
		await event.locals.services.settings.write('shopLogo', '', memberHere(event));
		return { logoSaved: true };
	}
};
