import { goto } from '$app/navigation';
import { isKept } from '$lib/away/keepPages';
import { outbox } from '$lib/away/outbox.svelte';

/** Goes on to another page once something was recorded; without the server only where that page is kept here. */
export async function goOn(path: string): Promise<void> {
	if (!outbox.away) await goto(path, { invalidateAll: true });
	else if (await isKept(new URL(path, location.origin).pathname)) await goto(path);
}
