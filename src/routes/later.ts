/** What a page shows: at hand, or still being worked out. `of` says of what, so that nothing is shown beside the wrong thing. */
export type Later<T> = { of: string; now: T } | { of: string; coming: Promise<T> };

/** Longer than this a page does not wait for its contents: it comes, and they follow. */
const WAIT_MS = 40;

/** What is worked out in a moment comes with the page; anything else follows it. */
export async function orLater<T>(of: string, working: Promise<T>): Promise<Later<T>> {
	let timer: ReturnType<typeof setTimeout> | undefined;
	const waited = new Promise<null>((resolve) => {
		timer = setTimeout(() => resolve(null), WAIT_MS);
	});
	const first = await Promise.race([working.then((now) => ({ now })), waited]);
	clearTimeout(timer);
	return first ? { of, now: first.now } : { of, coming: working };
}
