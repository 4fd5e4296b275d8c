import {
	redirect,
	type Handle,
	type HandleServerError,
	type RequestEvent,
	type ServerInit
} from '@sveltejs/kit';
import { sequence } from '@sveltejs/kit/hooks';
import pino from 'pino';
import { ulid } from 'ulid';
import { BodyTooLarge, limited, mostBytes, sizeWords } from '$lib/server/bodyLimit';
import { shopsInFile } from '$lib/server/chain/shopsFile';
import { ShopIsShut, Shops, type Doorkeeper } from '$lib/server/chain/shops';
import { healthOf } from '$lib/server/db/open';
import { gate } from '$lib/server/gate/handle';
import { notNowWords } from '$lib/server/gate/notNow';
import type { Member } from '$lib/server/accounts/members';
import { warmUp } from '$lib/server/report/pdf';
import { optionsFromEnvironment } from '$lib/server/serviceOptions';
import type { Services } from '$lib/server/services';
import { tidyWhenResting } from '$lib/server/tidyMemory';

/** Made once, before the first request; every request carries its own shop's services from here on. */
let shops: Shops;

/** A server that stops has so long for what is under way. */
const STOP_MS = 5_000;

/** Ends streams and recordings, finishes what is being written and closes the databases; then the process may go. */
function stopWell(): void {
	const late = setTimeout(() => process.exit(1), STOP_MS);
	late.unref();
	const log = shops.open[0]?.log ?? pino();
	void shops
		.stop()
		.catch((error: unknown) => log.error({ err: error }, 'not everything could be ended well'))
		.finally(() => process.exit(0));
}

/** One promise that nobody waited for ends no shop's day; it is told like everything else that failed. */
function tellUnawaited(error: unknown): void {
	for (const { log, metrics, troubles } of shops.open) {
		log.error({ err: error }, 'something failed that nobody waited for');
		metrics.trouble('server');
		const text = error instanceof Error ? error.name : 'error';
		troubles.add({ kind: 'server', path: 'nobody waited for it', text, username: null, requestId: null });
	}
}

/** For whoever stands at the server; it is worth nothing once the first lead is made. */
async function sayFirstLead({ firstLead, origin }: Services): Promise<void> {
	const code = await firstLead.code();
	if (code)
		console.log(`The shop at ${origin} has nobody yet. Open ${origin}/first-lead and type the code ${code}.`);
}

const AT_THE_DOOR: Doorkeeper = {
	opened: sayFirstLead,
	shut: (shop, error) => pino().error({ err: error, shop }, 'this shop could not be opened')
};

export const init: ServerInit = async () => {
	const { env } = process;
	shops = env.JALDI_SHOPS
		? Shops.chain(shopsInFile(env.JALDI_SHOPS, env), AT_THE_DOOR)
		: Shops.one(optionsFromEnvironment(env), AT_THE_DOOR);
	tidyWhenResting();
	process.on('unhandledRejection', tellUnawaited);
	for (const signal of ['SIGTERM', 'SIGINT'] as const) process.once(signal, stopWell);
	const opening = shops.openAll();
	// Whoever asks for a shop of a chain before its turn opens it; a server without its only shop is none.
	if (!shops.isChain) await opening;
	// Nobody waits for this, and nothing depends on it.
	warmUp().catch((error: unknown) => pino().warn({ err: error }, 'papers cannot be made'));
};

/** Asked of the whole process, by whatever name of this machine, by whoever watches over it. */
const OF_ALL: Record<string, () => Response> = {
	'/healthz': () => Response.json({ status: 'ok' }),
	'/readyz': () => {
		const { count, open } = shops;
		const ready = open.filter(({ db }) => healthOf(db).state() === null).length;
		return ready === count
			? Response.json({ status: 'ready', shops: count })
			: Response.json({ status: 'not all', shops: count, ready }, { status: 503 });
	}
};

const plainly = (status: number, text: string, headers: Record<string, string> = {}) =>
	new Response(`${text}\n`, { status, headers: { 'content-type': 'text/plain; charset=utf-8', ...headers } });

/** Nothing of a request is looked at before it is known which shop it is for. */
const inItsShop: Handle = async ({ event, resolve }) => {
	const opening = shops.at(event.url);
	if (opening === null) return OF_ALL[event.url.pathname]?.() ?? plainly(421, 'No shop is at this address.');
	try {
		event.locals.services = await opening;
	} catch (error) {
		if (error instanceof ShopIsShut) return plainly(503, error.message, { 'retry-after': '15' });
		throw error;
	}
	return resolve(event);
};

/** What of a device our pages may ask for: the camera, for photos. */
const DEVICES = 'camera=(self), microphone=(), geolocation=(), payment=(), usb=(), serial=(), bluetooth=()';

/** An answer that takes longer is told to whoever looks after the server. */
const SLOW_MS = 2_000;

function tell({ locals, route, url }: RequestEvent, kind: 'slow' | 'server', text: string): void {
	const { requestId, member, services } = locals;
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
	const { services } = event.locals;
	event.locals.requestId = ulid();
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
	const { origin } = event.locals.services;
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

export const handle = sequence(inItsShop, logged, atOurAddress, gate, bounded, notNow);

export const handleError: HandleServerError = ({ error, event, status, message }) => {
	const { requestId, services } = event.locals;
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
