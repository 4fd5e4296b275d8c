import { KEPT_PAGES, KEPT_PARTS } from '../workers/keptPages';

const PART = /["'(]([^"'()]*\/_app\/immutable\/[^"'()]+)["')]/g;

/** Files that a page names, and those that were fetched for it. */
function partsOf(html: string, address: string): string[] {
	const named = [...html.matchAll(PART)].map(([, part]) => new URL(part ?? '', address));
	const fetched = performance.getEntriesByType('resource').map(({ name }) => new URL(name));
	const own = [...named, ...fetched].filter(
		({ origin, pathname }) => origin === location.origin && pathname.startsWith('/_app/immutable/')
	);
	return [...new Set(own.map(({ href }) => href))];
}

/**
 * Keeps the page that is open on this device, so that it opens again while the server is out of reach. Only where the
 * browser lets it: at an address that it takes for safe.
 *
 * @returns whether it is kept
 */
export async function keepPage(): Promise<boolean> {
	if (!('caches' in window) || !('serviceWorker' in navigator)) return false;
	try {
		const address = location.origin + location.pathname;
		const page = await fetch(address, { headers: { accept: 'text/html' } });
		if (!page.ok || page.redirected) return false;
		const html = await page.clone().text();
		const [pages, parts] = [await caches.open(KEPT_PAGES), await caches.open(KEPT_PARTS)];
		for (const part of partsOf(html, address)) if (!(await parts.match(part))) await parts.add(part);
		await pages.put(address, page);
		await dropUnused(pages, parts);
		return true;
	} catch {
		// The server went away in the middle: what was kept before stays.
		return false;
	}
}

/** Files of earlier versions, and of pages that are kept no more. */
async function dropUnused(pages: Cache, parts: Cache): Promise<void> {
	const used = new Set<string>();
	for (const request of await pages.keys()) {
		const page = await pages.match(request);
		for (const part of partsOf((await page?.text()) ?? '', request.url)) used.add(part);
	}
	for (const request of await parts.keys()) if (!used.has(request.url)) await parts.delete(request);
}

/** Nothing of a case stays on a device for whoever signs in next. */
export async function forgetPages(): Promise<void> {
	if ('caches' in window) await caches.delete(KEPT_PAGES).catch(() => false);
}
