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
		const parts = await caches.open(KEPT_PARTS);
		for (const part of partsOf(html, address)) if (!(await parts.match(part))) await parts.add(part);
		await (await caches.open(KEPT_PAGES)).put(address, page);
		return true;
	} catch {
		// The server went away in the middle: what was kept before stays.
		return false;
	}
}

/** Nothing of a case stays on a device for whoever signs in next. */
export async function forgetPages(): Promise<void> {
	if ('caches' in window) await caches.delete(KEPT_PAGES).catch(() => false);
}
