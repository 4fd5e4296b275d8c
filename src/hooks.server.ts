import {
	redirect,
	type Handle,
	type HandleServerError,
	type RequestEvent,
	type ServerInit
} from '@sveltejs/kit';
import { sequence } from '@sveltejs/kit/hooks';
import { ulid } from 'ulid';
import { BodyTooLarge, limited, mostBytes, sizeWords } from '$lib/server/bodyLimit';
import { gate } from '$lib/server/gate/handle';
import { notNowWords } from '$lib/server/gate/notNow';
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
	// One promise that nobody waited for ends no shop's day; it is told like everything else that failed.
	process.on('unhandledRejection', (error) => {
		services.log.error({ err: error }, 'something failed that nobody waited for');
		services.metrics.trouble('server');
		const text = error instanceof Error ? error.name : 'error';
		services.troubles.add({
			kind: 'server',
			path: 'nobody waited for it',
			text,
			username: null,
			requestId: null
		});
	});
	const code = await services.firstLead.code();
	// For whoever stands at the server; it is worth nothing once the first lead is made.
	if (code)
		console.log(`This shop has nobody yet. Open ${services.origin}/first-lead and type the code ${code}.`);
	for (const signal of ['SIGTERM', 'SIGINT'] as const) process.once(signal, stopWell);
	// Nobody waits for this, and nothing depends on it.
	warmUp().catch((error: unknown) => services.log.warn({ err: error }, 'papers cannot be made'));
};

/** What of a device our pages may ask for: the camera, for photos. */
const DEVICES = 'camera=(self), microphone=(), geolocation=(), payment=(), usb=(), serial=(), bluetooth=()';

/** An answer that takes longer is told to whoever looks after the server. */
const SLOW_MS = 2_000;

function tell({ locals, route, url }: RequestEvent, kind: 'slow' | 'server', text: string): void {
	const { requestId, member } = locals;
	services.metrics.trouble(kind);
	services.troubles.add({
		kind,
		path: route.id ?? url.pathname.slice(0, 200),
		text,
		username: member?.username ?? null,
		requestId
	});
}

const logged: Handle = async ({ event, resolve }) => {
	const began = performance.now();
	event.locals.requestId = ulid();
	event.locals.services = services;
	event.locals.member = null;
	event.locals.sessionId = null;
	const response = await resolve(event);
	// Set by a later step, which the compiler cannot see from here.
	const member = event.locals.member as Member | null;
	const ms = performance.now() - began;
	services.metrics.answered(event.route.id, event.request.method, response.status, ms / 1000);
	if (ms > SLOW_MS && !response.headers.get('content-type')?.startsWith('text/event-stream'))
		tell(event, 'slow', `${(ms / 1000).toFixed(1)} s`);
	services.log.info(
		{
			requestId: event.locals.requestId,
			method: event.request.method,
			path: event.url.pathname,
			status: response.status,
			ms: Math.round(ms),
			member: member?.username
		},
		'request'
	);
	response.headers.set('x-request-id', event.locals.requestId);
	response.headers.set('x-content-type-options', 'nosniff');
	response.headers.set('referrer-policy', 'same-origin');
	response.headers.set('cross-origin-resource-policy', 'same-origin');
	response.headers.set('permissions-policy', DEVICES);
	if (services.origin.startsWith('https:')) {
		response.headers.set('strict-transport-security', 'max-age=31536000');
		response.headers.set('cross-origin-opener-policy', 'same-origin');
	}
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

/** Asked by whoever watches over the server, by whatever name of this machine. */
const WATCHED = new Set(['/healthz', '/readyz', '/metrics']);

/** Forms are only taken at our own address, so whoever comes by another name of this machine is shown the way. */
const atOurAddress: Handle = ({ event, resolve }) => {
	const host = event.request.headers.get('host');
	const { origin } = services;
	if (event.request.method === 'GET' && !WATCHED.has(event.url.pathname) && host !== new URL(origin).host) {
		redirect(307, origin + event.url.pathname + event.url.search);
	}
	return resolve(event);
};

/** Work that cannot be taken now is no fault of whoever asked: they are told to come again. The error itself was seen below. */
const notNow: Handle = async ({ event, resolve }) => {
	const response = await resolve(event);
	if (!event.locals.notNow || response.status !== 500) return response;
	const headers = new Headers(response.headers);
	headers.set('retry-after', '5');
	return new Response(response.body, { status: 503, headers });
};

export const handle = sequence(logged, atOurAddress, gate, bounded, notNow);

export const handleError: HandleServerError = ({ error, event, status, message }) => {
	const { requestId } = event.locals;
	const words = notNowWords(error, services.db);
	if (words !== null) {
		event.locals.notNow = true;
		return { message: words, requestId };
	}
	if (error instanceof BodyTooLarge) return { message: 'That is more than may come here.', requestId };
	if (status >= 500) {
		services.log.error({ err: error, requestId, path: event.url.pathname }, 'request failed');
		tell(event, 'server', error instanceof Error ? error.name : 'error');
	}
	return {
		message: status >= 500 ? 'Something went wrong on the server. What was saved before is kept.' : message,
		requestId
	};
};
