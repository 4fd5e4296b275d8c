/// <reference types="@sveltejs/kit" />
/// <reference lib="webworker" />
import { build, files } from '$service-worker';
import { registerRoute, setCatchHandler } from 'workbox-routing';
import { CacheFirst, NetworkFirst } from 'workbox-strategies';
import { KEPT_PAGES, KEPT_PARTS, mayBeKept, NOT_KEPT, stationsOf } from './lib/away/keptPages';

/**
 * Opens pages again on a tablet that has lost the shop's network: a page comes from the server wherever that answers, and else as
 * it was kept when it was seen last. Only pages that may be kept are ever answered from here, and the files they are made of,
 * which are all put here with the first visit.
 */
const worker = self as unknown as ServiceWorkerGlobalScope;
/** A server that does not answer for this long is taken to be out of reach. */
const PATIENCE_S = 8;
const PART = /["'(]([^"'()]*\/_app\/immutable\/[^"'()]+)["')]/g;
const PARTS = [...build, ...files];

/** A page is kept as it is without anything chosen on it, and neither an error nor the sign-in page in its place. */
const onlyThePage = {
	cacheWillUpdate: ({ request, response }: { request: Request; response: Response }) =>
		Promise.resolve(
			response.status === 200 && !response.redirected && new URL(request.url).search === '' ? response : null
		),
	cacheKeyWillBeUsed: ({ request, mode }: { request: Request; mode: string }) => {
		const { origin, pathname, href } = new URL(request.url);
		return Promise.resolve(mode === 'read' ? origin + pathname : href);
	}
};
registerRoute(
	({ request, url }) => request.mode === 'navigate' && mayBeKept(url.pathname),
	new NetworkFirst({
		cacheName: KEPT_PAGES,
		networkTimeoutSeconds: PATIENCE_S,
		plugins: [onlyThePage]
	})
);
// Their names change with what is in them, or with the version.
registerRoute(
	({ url }) => url.origin === worker.location.origin && PARTS.includes(url.pathname),
	new CacheFirst({ cacheName: KEPT_PARTS })
);
registerRoute(
	({ url }) => url.pathname.startsWith('/_app/immutable/'),
	// Of an earlier version, for a page that was kept with it.
	new CacheFirst({ cacheName: KEPT_PARTS, plugins: [{ cacheWillUpdate: () => Promise.resolve(null) }] })
);
setCatchHandler(async ({ request, url }) => {
	if (request.mode !== 'navigate') return Response.error();
	const pages = await caches.open(KEPT_PAGES);
	// A case's own address leads to where it stands, which only the server knows.
	for (const path of stationsOf(url.pathname))
		if (await pages.match(url.origin + path)) return Response.redirect(url.origin + path);
	return (await caches.match(NOT_KEPT)) ?? Response.error();
});

/** Files of earlier versions that no page that is kept names. */
async function dropUnused(): Promise<void> {
	const [pages, parts] = [await caches.open(KEPT_PAGES), await caches.open(KEPT_PARTS)];
	const used = new Set(PARTS);
	for (const request of await pages.keys()) {
		const html = (await (await pages.match(request))?.text()) ?? '';
		for (const [, part] of html.matchAll(PART)) used.add(new URL(part ?? '', request.url).pathname);
	}
	for (const request of await parts.keys())
		if (!used.has(new URL(request.url).pathname)) await parts.delete(request);
}

worker.addEventListener('install', (event) =>
	event.waitUntil(
		caches
			.open(KEPT_PARTS)
			.then((parts) => parts.addAll(PARTS))
			.then(() => worker.skipWaiting())
	)
);
worker.addEventListener('activate', (event) => event.waitUntil(worker.clients.claim().then(dropUnused)));
