/// <reference types="@sveltejs/kit" />
/// <reference lib="webworker" />
import { registerRoute } from 'workbox-routing';
import { CacheFirst, NetworkFirst } from 'workbox-strategies';
import { KEPT_PAGES, KEPT_PARTS } from './workers/keptPages';

/**
 * Opens a proving drive again on a tablet that has lost the shop's network: the page comes from the server wherever that
 * answers, and else as it was kept when it was open last. Nothing but that page is ever answered from here.
 */
const worker = self as unknown as ServiceWorkerGlobalScope;
const DRIVE = /^\/cases\/[^/]+\/prove\/drive$/;
/** A server that does not answer for this long is taken to be out of reach. */
const PATIENCE_S = 8;

/** Only the page itself: neither an error nor the sign-in page in its place. */
const onlyThePage = {
	cacheWillUpdate: ({ response }: { response: Response }) =>
		Promise.resolve(response.status === 200 && !response.redirected ? response : null)
};
registerRoute(
	({ request, url }) => request.mode === 'navigate' && DRIVE.test(url.pathname),
	new NetworkFirst({ cacheName: KEPT_PAGES, networkTimeoutSeconds: PATIENCE_S, plugins: [onlyThePage] })
);
/** What is kept is chosen by the page that keeps itself, and thrown away by it: nothing piles up here. */
const keepsNothing = { cacheWillUpdate: () => Promise.resolve(null) };
// Their names change with what is in them.
registerRoute(
	({ url }) => url.pathname.startsWith('/_app/immutable/'),
	new CacheFirst({ cacheName: KEPT_PARTS, plugins: [keepsNothing] })
);

worker.addEventListener('install', () => void worker.skipWaiting());
worker.addEventListener('activate', (event) => event.waitUntil(worker.clients.claim()));
