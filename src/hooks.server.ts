import { redirect, type Handle, type HandleServerError, type ServerInit } from '@sveltejs/kit';
import { sequence } from '@sveltejs/kit/hooks';
import { ulid } from 'ulid';
import { memberOf } from '$lib/server/accounts/auth';
import type { Member } from '$lib/server/accounts/members';
import { warmUp } from '$lib/server/report/pdf';
import { services, startRunning } from '$lib/server/running';

export const init: ServerInit = async () => {
	await startRunning();
	// Nobody waits for this, and nothing depends on it.
	warmUp().catch((error: unknown) => services().log.warn({ err: error }, 'papers cannot be made'));
};

const logged: Handle = async ({ event, resolve }) => {
	const began = performance.now();
	event.locals.requestId = ulid();
	event.locals.member = null;
	const response = await resolve(event);
	// Set by a later step, which the compiler cannot see from here.
	const member = event.locals.member as Member | null;
	services().log.info(
		{
			requestId: event.locals.requestId,
			method: event.request.method,
			path: event.url.pathname,
			status: response.status,
			ms: Math.round(performance.now() - began),
			member: member?.username
		},
		'request'
	);
	response.headers.set('x-request-id', event.locals.requestId);
	response.headers.set('x-content-type-options', 'nosniff');
	response.headers.set('referrer-policy', 'same-origin');
	return response;
};

/** Forms are only taken at our own address, so whoever comes by another name of this machine is shown the way. */
const atOurAddress: Handle = ({ event, resolve }) => {
	const host = event.request.headers.get('host');
	const { origin } = services();
	if (event.request.method === 'GET' && event.url.pathname !== '/healthz' && host !== new URL(origin).host) {
		redirect(307, origin + event.url.pathname + event.url.search);
	}
	return resolve(event);
};

const OPEN_PATHS = new Set(['/sign-in', '/healthz']);

const signedIn: Handle = async ({ event, resolve }) => {
	event.locals.member = await memberOf(services().auth, event.request.headers);
	if (event.locals.member || OPEN_PATHS.has(event.url.pathname)) {
		const theme = event.cookies.get('jaldi-theme') === 'bay' ? 'bay' : 'day';
		return resolve(event, {
			transformPageChunk: ({ html }) => html.replace('data-theme="day"', `data-theme="${theme}"`)
		});
	}
	if (event.request.method === 'GET' && event.request.headers.get('accept')?.includes('text/html')) {
		const back = event.url.pathname === '/' ? '' : `?back=${encodeURIComponent(event.url.pathname)}`;
		redirect(303, `/sign-in${back}`);
	}
	if (event.isDataRequest) redirect(303, '/sign-in');
	return Response.json({ message: 'Sign in first.' }, { status: 401 });
};

export const handle = sequence(logged, atOurAddress, signedIn);

export const handleError: HandleServerError = ({ error, event, status, message }) => {
	const { requestId } = event.locals;
	if (status >= 500)
		services().log.error({ err: error, requestId, path: event.url.pathname }, 'request failed');
	return {
		message: status >= 500 ? 'Something went wrong on the server. What was saved before is kept.' : message,
		requestId
	};
};
