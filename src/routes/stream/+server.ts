import type { ApiRoute } from '$lib/server/api/apiRoute';
import { error } from '@sveltejs/kit';
import { sessionOf } from '$lib/server/accounts/auth';
import { eventStream } from '$lib/server/eventStream';
import { followCase, followLive } from './follow';

/** Keeps proxies and browsers from giving up on a quiet line, and asks whether its session still stands. */
const HEARTBEAT_MS = 20_000;
/** Cases that one browser may have open. */
const MOST_CASES = 40;

export const _api: ApiRoute = {
	GET: {
		says: 'How cases go on, as it happens.',
		query: {
			case: 'case to follow; may be repeated',
			live: 'case whose recording is followed',
			whole: 'the same, from its beginning'
		},
		gives: { media: 'text/event-stream', says: 'Events head, next, job and rows, each with its case.' }
	}
};

/**
 * Server-sent events for one browser, whatever its tabs show: of each `case` its `head` whenever its thread grows (and at once,
 * so that whoever reconnects learns what was missed), `next` when its next step was worked out, `job` with the progress of work
 * on its vehicle; of each `live` case the `rows` of its running recording, the last two minutes, or of `whole` all of it. The
 * data of each is `{ case, value }`.
 */
export async function GET(event) {
	const { url, request, locals } = event;
	const asked = [...new Set(url.searchParams.getAll('case'))];
	if (asked.length > MOST_CASES) error(400, `At most ${MOST_CASES} cases are followed at once.`);
	const { cases, streams, auth } = locals.services;
	const rows = await Promise.all(asked.map((id) => cases.find(id)));
	const ids = rows.flatMap((row) => (row ? [row.id] : []));
	const live = new Set(url.searchParams.getAll('live').filter((id) => ids.includes(id)));
	const whole = new Set(url.searchParams.getAll('whole').filter((id) => ids.includes(id)));
	const body = eventStream({
		heartbeatMs: HEARTBEAT_MS,
		mayListen: async () => (await sessionOf(auth, request.headers))?.locked === false,
		endable: (end) => streams.add(locals.sessionId ?? '', end),
		signal: request.signal,
		async begin(say, onEnd) {
			const sendOf = (caseId: string) => (name: string, value: unknown) => say(name, { case: caseId, value });
			for (const id of ids) {
				onEnd(await followCase(locals.services, id, sendOf(id)));
				if (live.has(id) || whole.has(id)) onEnd(followLive(locals.services, id, whole.has(id), sendOf(id)));
			}
		}
	});
	return new Response(body, {
		headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' }
	});
}
