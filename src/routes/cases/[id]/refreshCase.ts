import { invalidate } from '$app/navigation';
import { navigating } from '$app/state';

/**
 * Loads what the thread now says. Not while a navigation is under way: it would be given up for the page that is being left,
 * and the person would stay where they were.
 */
export async function refreshCase(): Promise<void> {
	await navigating.complete?.catch(() => undefined);
	await invalidate('jaldi:case');
}
