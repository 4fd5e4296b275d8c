import { fail } from '@sveltejs/kit';
import { z } from 'zod';
import { keyName } from '$lib/case/paper/bundleSignature';
import { maySign } from '$lib/server/accounts/members';
import { memberHere } from '$lib/server/cases/access';

const Trusted = z.object({
	name: z.string().trim().min(1, 'What is that shop called?').max(80),
	publicKey: z
		.string()
		.trim()
		.regex(/^[A-Za-z0-9+/]{58,80}={0,2}$/, 'A key is a row of about sixty letters and digits.')
});

export const load = async ({ locals }) => {
	const { shopKeys } = locals.services;
	const { publicKey } = await shopKeys.own();
	return {
		own: { publicKey, short: keyName(publicKey) },
		trusted: (await shopKeys.trusted()).map(({ publicKey: key, name, trustedBy, trustedAt }) => ({
			id: key,
			short: keyName(key),
			name,
			by: trustedBy,
			at: trustedAt.slice(0, 10)
		})),
		mayChange: locals.member !== null && maySign(locals.member)
	};
};

export const actions = {
	trust: async (event) => {
		const member = memberHere(event);
		const told = Trusted.safeParse(Object.fromEntries(await event.request.formData()));
		if (!told.success) return fail(400, { error: told.error.issues[0]?.message ?? 'That is no key.' });
		await event.locals.services.shopKeys.trust(told.data.publicKey, told.data.name, member);
		return { saved: true };
	},
	distrust: async (event) => {
		await event.locals.services.shopKeys.distrust(
			String((await event.request.formData()).get('publicKey') ?? ''),
			memberHere(event)
		);
		return { saved: true };
	}
};
