import { json, type ApiRoute } from '$lib/server/api/apiRoute';
import { error } from '@sveltejs/kit';
import { z } from 'zod';
import { memberHere } from '$lib/server/cases/access';

const Told = z.object({ path: z.string().max(200), text: z.string().max(2_000) });

export const _api: ApiRoute = {
	POST: { says: 'A page tells what of it failed.', who: 'member', takes: Told, gives: json('Nothing.') }
};

/** A page tells what of it failed. */
export async function POST(event) {
	const member = memberHere(event);
	const told = Told.safeParse(await event.request.json().catch(() => null));
	if (!told.success) error(400, 'Expected a path and what happened.');
	event.locals.services.log.error(
		{ ...told.data, member: member.username },
		'a part of a page failed in a browser'
	);
	return new Response(null, { status: 204 });
}
