import { error, redirect, type Handle, type RequestEvent } from '@sveltejs/kit';
import { sessionOf, type SignedIn } from '../accounts/auth';
import { RECORDED_BY } from '../../case/entries/recordedHeaders';
import { askedOf, refusal, type Asked } from './gate';
import { notNowWords } from './notNow';

const asksForHtml = ({ request }: RequestEvent): boolean =>
	request.headers.get('accept')?.includes('text/html') ?? false;
/** A page or its data: whoever is not let in is shown the way. Anything else is told. */
const isPage = (event: RequestEvent): boolean =>
	event.isDataRequest || (event.request.method === 'GET' && asksForHtml(event));
const FORM = /^(multipart\/form-data|application\/x-www-form-urlencoded)/i;

/** To a page that lets them in, and back from there to where they were going. */
function shownTheWay(event: RequestEvent, to: string): never {
	const there = event.url.pathname + event.url.search;
	const back = there === '/' ? '' : `?back=${encodeURIComponent(there)}`;
	redirect(303, to + back);
}

const told = (status: number, message: string, headers: Record<string, string> = {}) =>
	Response.json({ message }, { status, headers });

/** A refusal as whoever asked can show it: a page, a form sent by script, or another program. */
function refused(event: RequestEvent, status: number, message: string): Response {
	if (event.isDataRequest || asksForHtml(event)) error(status, message);
	const isForm =
		event.request.method === 'POST' && FORM.test(event.request.headers.get('content-type') ?? '');
	const { requestId } = event.locals;
	return isForm
		? Response.json({ type: 'error', error: { message, requestId } }, { status })
		: told(status, message);
}

function tooOften(event: RequestEvent, waitS: number): Response {
	const response = refused(
		event,
		429,
		`That is more than one person asks for in a minute. Try again in ${waitS} s.`
	);
	response.headers.set('retry-after', String(waitS));
	return response;
}

/** Who asks, by token or by session. A token is for the ways that name its scope, and for nothing else. */
async function admit(event: RequestEvent, asked: Asked | null): Promise<Response | null> {
	const { locals, request } = event;
	const { services } = locals;
	// Another kind of authorization is a proxy's own, and none of ours.
	const authorization = request.headers.get('authorization');
	if (authorization && /^bearer /i.test(authorization)) {
		const bearer = await services.apiTokens.bearer(authorization);
		if (!bearer) return told(401, 'This token does not work here.', { 'www-authenticate': 'Bearer' });
		locals.member = bearer.member;
		if (!asked?.scope) return told(403, 'This is for people: no token opens it.');
		if (!bearer.scopes.includes(asked.scope))
			return told(403, `This token is not for that: it would need “${asked.scope}”.`);
		return null;
	}
	const session = await sessionOf(services.auth, request.headers);
	locals.member = session?.member ?? null;
	locals.sessionId = session?.sessionId ?? null;
	return asked?.permission === 'anybody' ? null : letIn(event, session, asked);
}

function letIn(event: RequestEvent, session: SignedIn | null, asked: Asked | null): Response | null {
	if (!session) return isPage(event) ? shownTheWay(event, '/sign-in') : told(401, 'Sign in first.');
	const by = event.request.headers.get(RECORDED_BY);
	// What waited on a shared tablet never goes under the name of whoever has it in hand now.
	if (by !== null && by !== session.member.id)
		return told(401, 'This was recorded by somebody else: it goes when they are signed in here.');
	if (!session.locked || asked?.permission === 'locked') return null;
	return isPage(event) ? shownTheWay(event, '/locked') : told(401, 'This screen is locked: open it first.');
}

/**
 * The one gate. Every route has a row in the table; what the table does not name is shut, whoever asks. After it `locals.member` is
 * whoever asks, and may.
 */
export const gate: Handle = async ({ event, resolve }) => {
	const { route, request, url, locals } = event;
	const asked = route.id === null ? null : askedOf(route.id, request.method, url);
	const stopped = await admit(event, asked).catch((error: unknown) => {
		const words = notNowWords(error, locals.services.db);
		if (words === null) throw error;
		return refused(event, 503, words);
	});
	if (stopped) return stopped;
	const waitS = await locals.services.pace.waitS(
		locals.member?.id ?? event.getClientAddress(),
		asked?.costs ?? false
	);
	if (waitS > 0) return tooOften(event, waitS);
	// An address that there is not is answered as such to whoever is signed in.
	if (route.id !== null) {
		if (!asked) return refused(event, 405, 'Nothing here takes that.');
		// What a token is for was asked above, and nothing else opens by it.
		const byToken = locals.member !== null && locals.sessionId === null;
		const why = byToken ? null : refusal(asked.permission, locals.member?.role ?? 'viewer');
		if (why !== null) return refused(event, 403, why);
	}
	const theme = event.cookies.get('jaldi-theme') === 'bay' ? 'bay' : 'day';
	const response = await resolve(event, {
		transformPageChunk: ({ html }) =>
			html
				.replace('data-theme="day"', `data-theme="${theme}"`)
				.replace('data-made=""', `data-made="${new Date().toISOString()}"`)
	});
	// After a sign-out the way back shows nothing; what never changes says so itself.
	if (locals.member && !response.headers.has('cache-control'))
		response.headers.set('cache-control', 'no-store');
	return response;
};
