import { KEPT_PAGES, mayBeKept } from './keptPages';

/** More would be of days that nobody goes back to. */
const MOST_PAGES = 400;
/** A page that was kept within this is as good as new; one whose case has not grown since is, for this long. */
const FRESH_MS = 10 * 60_000;
const UNCHANGED_MS = 60 * 60_000;
/** Between two pages that nobody waits for: whoever does goes first. */
const PAUSE_MS = 250;

const canKeep = (): boolean => 'caches' in window && 'serviceWorker' in navigator;
/** A tablet or a phone, or the app on a screen of its own: what is carried out of the network's reach. */
const goesOut = (): boolean => matchMedia('(pointer: coarse), (display-mode: standalone)').matches;

/**
 * Keeps a page on this device as the server draws it now, so that it opens again while the server is out of reach. Only where
 * the browser lets it: at an address that it takes for safe.
 *
 * @returns whether it is kept
 */
export async function keepPage(path: string): Promise<boolean> {
	if (!canKeep() || !mayBeKept(path)) return false;
	const address = location.origin + path;
	try {
		const page = await fetch(address, { headers: { accept: 'text/html' } });
		if (!page.ok || page.redirected) return false;
		const pages = await caches.open(KEPT_PAGES);
		// In the place of what was kept before, and last in the row: the oldest go first.
		await pages.put(address, page);
		return true;
	} catch {
		// The server went away in the middle: what was kept before stays.
		return false;
	}
}

/** When each page was kept in this tab, and of what: a case by the length of its thread. */
const kept = new Map<string, { at: number; of: string }>();
let queue: { path: string; of: string }[] = [];
let busy = false;

/**
 * Keeps pages one after the other while nobody waits for anything, those that are asked for last first: on what is carried about.
 *
 * @param of what they show, where that grows: they are kept anew when it has
 */
export function keepInTime(paths: readonly string[], of = ''): void {
	if (!canKeep() || !goesOut()) return;
	const now = Date.now();
	const wanted = paths.filter((path) => {
		const before = kept.get(path);
		return !before || now - before.at > (of !== '' && before.of === of ? UNCHANGED_MS : FRESH_MS);
	});
	queue = [...wanted.map((path) => ({ path, of })), ...queue.filter((one) => !wanted.includes(one.path))];
	if (!busy) void work();
}

async function work(): Promise<void> {
	busy = true;
	for (let one = queue.shift(); one; one = queue.shift()) {
		await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
		if (document.hidden || !(await keepPage(one.path))) continue;
		kept.set(one.path, { at: Date.now(), of: one.of });
	}
	busy = false;
	await dropOld().catch(() => undefined);
}

/** The oldest pages beyond the most. */
async function dropOld(): Promise<void> {
	const pages = await caches.open(KEPT_PAGES);
	const all = await pages.keys();
	for (const old of all.slice(0, Math.max(0, all.length - MOST_PAGES))) await pages.delete(old);
}

/** Whether a page opens without the server. */
export async function isKept(path: string): Promise<boolean> {
	if (!canKeep()) return false;
	const pages = await caches.open(KEPT_PAGES).catch(() => null);
	return Boolean(await pages?.match(location.origin + path));
}

/** Nothing of a case stays on a device for whoever signs in next. */
export async function forgetPages(): Promise<void> {
	queue = [];
	kept.clear();
	if ('caches' in window) await caches.delete(KEPT_PAGES).catch(() => false);
}
