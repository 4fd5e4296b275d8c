import { fail } from '@sveltejs/kit';
import { z } from 'zod';
import { TokenName } from '$lib/server/accounts/apiTokens';
import { memberHere } from '$lib/server/cases/access';
import { clock } from '$lib/server/cases/clock';
import { SCOPES } from '$lib/server/gate/permissions';

const Asked = z.object({
	name: TokenName,
	scopes: z.array(z.enum(SCOPES)).min(1, 'Say what it may do: one of the two at least.')
});

export const load = async ({ locals }) => ({
	tokens: (await locals.services.apiTokens.all()).map((token) => ({
		...token,
		madeAt: clock(token.madeAt),
		lastUsedAt: token.lastUsedAt && clock(token.lastUsedAt)
	}))
});

export const actions = {
	make: async (event) => {
		const form = await event.request.formData();
		const asked = Asked.safeParse({ name: form.get('name'), scopes: form.getAll('scopes') });
		const name = String(form.get('name') ?? '');
		if (!asked.success) return fail(400, { error: asked.error.issues[0]?.message ?? '', name });
		const token = await event.locals.services.apiTokens.make(
			asked.data.name,
			asked.data.scopes,
			memberHere(event)
		);
		return token.ok ? { made: asked.data.name, token: token.value } : fail(409, { error: token.error, name });
	},
	revoke: async (event) => {
		const id = String((await event.request.formData()).get('id') ?? '');
		const done = await event.locals.services.apiTokens.revoke(id, memberHere(event));
		return done.ok ? { revoked: true } : fail(409, { error: done.error });
	}
};
