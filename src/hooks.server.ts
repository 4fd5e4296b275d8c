import { redirect, type Handle, type HandleServerError, type ServerInit } from '@sveltejs/kit';
import { sequence } from '@sveltejs/kit/hooks';
import { ulid } from 'ulid';
import { sessionOf } from '$lib/server/accounts/auth';
import { BodyTooLarge, limited, mostBytes, sizeWords } from '$lib/server/bodyLimit';
import { isBusy } from '$lib/server/heavy/busy';
import type { Member } from '$lib/server/accounts/members';
import { warmUp } from '$lib/server/report/pdf';
import { optionsFromEnvironment } from '$lib/server/serviceOptions';
import { startServices, type Services } from '$lib/server/services';
import { tidyWhenResting } from '$lib/server/tidyMemory';

/** Made once, before the first request; every request carries it from here on. */
let services: Services;

/** A server that stops has so long for what is under way. */
const STOP_MS = 5_000;

/** Ends streams and recordings, finishes what is being written and closes the database; then the process may go. */
function stopWell(): void {
	const { streams, vehicleJobs, log } = services;
	const late = setTimeout(() => process.exit(1), STOP_MS);
	late.unref();
	streams.endAll();
	void vehicleJobs
		.stop()
		.then(() => services.close())
		.catch((error: unknown) => log.error({ err: error }, 'not everything could be ended well'))
		.finally(() => process.exit(0));
}

export const init: ServerInit = async () => {
	services = await startServices(optionsFromEnvironment(process.env));
	tidyWhenResting();
	const code = await services.firstLead.code();
	// For whoever stands at the server; it is worth nothing once the first lead is made.
	if (code)
		console.log(`This shop has nobody yet. Open ${services.origin}/first-lead and type the code ${code}.`);
	for (const signal of ['SIGTERM', 'SIGINT'] as const) process.once(signal, stopWell);
	// Nobody waits for this, and nothing depends on it.
	warmUp().catch((error: unknown) => services.log.warn({ err: error }, 'papers cannot be made'));
};

const logged: Handle = async ({ event, resolve }) => {
	const began = performance.now();
	event.locals.requestId = ulid();
	event.locals.services = services;
	event.locals.member = null;
	event.locals.sessionId = null;
	const response = await resolve(event);
	// Set by a later step, which the compiler cannot see from here.
	const member = event.locals.member as Member | null;
	services.log.info(
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
	if (services.origin.startsWith('https:'))
		response.headers.set('strict-transport-security', 'max-age=31536000');
	return response;
};

const tooLarge = (most: number) =>
	Response.json({ message: `That is more than may come here: at most ${sizeWords(most)}.` }, { status: 413 });

/** Nobody sends more than a page could ask for, and a form that cannot be read is no error of ours. */
const bounded: Handle = async ({ event, resolve }) => {
	const { request, url } = event;
	if (request.method === 'GET' || request.method === 'HEAD') return resolve(event);
	const most = mostBytes(url.pathname);
	if (Number(request.headers.get('content-length') ?? 0) > most) return tooLarge(most);
	event.request = limited(request, most);
	if (isForm(request) && most <= LARGEST_FORM) {
		const body = await event.request.arrayBuffer().catch(() => null);
		if (body === null) return tooLarge(most);
		const read = () => new Request(url, { method: request.method, headers: request.headers, body });
		const readable = await read()
			.formData()
			.then(isPlain, () => false);
		if (!readable) return Response.json({ message: 'This form cannot be read.' }, { status: 400 });
		event.request = read();
	}
	return resolve(event);
};
const LARGEST_FORM = 1024 * 1024;
const isForm = ({ headers }: Request): boolean =>
	/^(multipart\/form-data|application\/x-www-form-urlencoded)/i.test(headers.get('content-type') ?? '');
/** Names of fields that would reach into objects are none of ours. */
const isPlain = (form: FormData): boolean =>
	[...form.keys()].every(
		(name) => name.length < 200 && !/(^|[.[\]])(__proto__|constructor|prototype)($|[.[\]])/.test(name)
	);

/** Forms are only taken at our own address, so whoever comes by another name of this machine is shown the way. */
const atOurAddress: Handle = ({ event, resolve }) => {
	const host = event.request.headers.get('host');
	const { origin } = services;
	if (event.request.method === 'GET' && event.url.pathname !== '/healthz' && host !== new URL(origin).host) {
		redirect(307, origin + event.url.pathname + event.url.search);
	}
	return resolve(event);
};

const OPEN_PATHS = new Set(['/sign-in', '/first-lead', '/healthz']);

const signedIn: Handle = async ({ event, resolve }) => {
	const session = await sessionOf(services.auth, event.request.headers);
	event.locals.member = session?.member ?? null;
	event.locals.sessionId = session?.sessionId ?? null;
	if (session || OPEN_PATHS.has(event.url.pathname)) {
		const theme = event.cookies.get('jaldi-theme') === 'bay' ? 'bay' : 'day';
		const response = await resolve(event, {
			transformPageChunk: ({ html }) => html.replace('data-theme="day"', `data-theme="${theme}"`)
		});
		// After a sign-out the way back shows nothing; what never changes says so itself.
		if (session && !response.headers.has('cache-control')) response.headers.set('cache-control', 'no-store');
		return response;
	}
	if (event.request.method === 'GET' && event.request.headers.get('accept')?.includes('text/html')) {
		const there = event.url.pathname + event.url.search;
		const back = there === '/' ? '' : `?back=${encodeURIComponent(there)}`;
		redirect(303, `/sign-in${back}`);
	}
	if (event.isDataRequest) redirect(303, '/sign-in');
	return Response.json({ message: 'Sign in first.' }, { status: 401 });
};

/** Work that cannot be taken now is no fault of whoever asked: they are told to come again. */
const notTooBusy: Handle = async ({ event, resolve }) => {
	try {
		return await resolve(event);
	} catch (error) {
		if (!isBusy(error)) throw error;
		return Response.json({ message: error.message }, { status: 503, headers: { 'retry-after': '2' } });
	}
};

export const handle = sequence(logged, atOurAddress, signedIn, bounded, notTooBusy);

export const handleError: HandleServerError = ({ error, event, status, message }) => {
	const { requestId } = event.locals;
	if (isBusy(error)) return { message: error.message, requestId };
	if (error instanceof BodyTooLarge) return { message: 'That is more than may come here.', requestId };
	if (status >= 500)
		services.log.error({ err: error, requestId, path: event.url.pathname }, 'request failed');
	return {
		message: status >= 500 ? 'Something went wrong on the server. What was saved before is kept.' : message,
		requestId
	};
};
