import { json as jsonOf, type ApiRoute } from '$lib/server/api/apiRoute';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { FrameSignalShape } from '$lib/case/entries/frameSignalShape';
import { memberHere } from '$lib/server/cases/access';

const Sent = z.discriminatedUnion('do', [
	z.object({ do: z.literal('keep'), id: z.string().min(1).max(40), rule: FrameSignalShape }),
	z.object({ do: z.literal('forget'), id: z.string().min(1).max(40) })
]);

export const _api: ApiRoute = {
	GET: {
		says: 'The signals that this shop knows in frames of the bus.',
		gives: jsonOf('The signals.')
	},
	POST: {
		says: 'Keeps or forgets a signal in frames.',
		takes: Sent,
		gives: jsonOf('The signals.')
	}
};

/** The shop's signals in broadcast frames. */
export async function GET(event) {
	return json({ signals: await event.locals.services.frameSignals.all() });
}

export async function POST(event) {
	const member = memberHere(event);
	const sent = Sent.safeParse(await event.request.json().catch(() => null));
	if (!sent.success) error(400, z.prettifyError(sent.error));
	const { frameSignals } = event.locals.services;
	if (sent.data.do === 'keep') await frameSignals.keep(sent.data.id, sent.data.rule, member.name);
	else await frameSignals.forget(sent.data.id);
	return json({ signals: await frameSignals.all() });
}
