import { invalidate, invalidateAll } from '$app/navigation';
import { navigating } from '$app/state';
import { onDestroy } from 'svelte';
import { outbox } from '../away/outbox.svelte';

/** Forms that follow the data of their page: each puts back what was typed into it. */
const typed = new Set<() => void>();

/**
 * Keeps what is typed into a form when its page is loaded anew by itself. To be called while a component is being made.
 *
 * @param putBack puts back what was typed until now, where anything was
 */
export function keepTyped(putBack: () => void): void {
	typed.add(putBack);
	onDestroy(() => typed.delete(putBack));
}

/**
 * Loads anew what a page shows. Not while a navigation is under way: it would be given up for the page that is being left, and the
 * person would stay where they were; nor while the server is out of reach: the page would be given up with what is on it.
 */
async function inTurn(load: () => Promise<void>): Promise<void> {
	// One that was asked for just now has begun by then.
	await new Promise((resolve) => setTimeout(resolve));
	await navigating.complete?.catch(() => undefined);
	if (outbox.away) return;
	await load();
	for (const putBack of typed) putBack();
}

/** What the thread now says. */
export const refreshCase = (): Promise<void> => inTurn(() => invalidate('jaldi:case'));

/** Everything that the page was made of. */
export const refreshAll = (): Promise<void> => inTurn(() => invalidateAll());
