import { json, type ApiRoute } from '$lib/server/api/apiRoute';
import { error } from '@sveltejs/kit';
import { z } from 'zod';
import { memberHere } from '$lib/server/cases/access';

const Told = z.object({
	path: z.string().max(200),
	text: z.string().max(2_000),
	/** It did not fail: it took long. */
	slow: z.boolean().default(false)
});

export const _api: ApiRoute = {
	POST: { says: 'A page tells what of it failed.', takes: Told, gives: json('Nothing.') }
};

/** A page tells what of it failed. */
export async function POST(event) {
	const member = memberHere(event);
	const told = Told.safeParse(await event.request.json().catch(() => null));
	if (!told.success) error(400, 'Expected a path and what happened.');
	const { log, troubles, metrics } = event.locals.services;
	const { path, text, slow } = told.data;
	const kind = slow ? ('slow-in-browser' as const) : ('browser' as const);
	troubles.add({ kind, path, text, username: member.username, requestId: null });
	metrics.trouble(kind);
	if (slow) log.warn({ path, text, member: member.username }, 'a page was slow in a browser');
	else log.error({ path, text, member: member.username }, 'a part of a page failed in a browser');
	return new Response(null, { status: 204 });
}
