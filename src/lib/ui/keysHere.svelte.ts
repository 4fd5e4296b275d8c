import { SvelteMap } from 'svelte/reactivity';

/** What the keys of the page that is open do, by key, for whoever asks with `?`. */
export const keysHere = new SvelteMap<string, string>();

/** Says what keys do while a part of a page is there. @returns what takes them back */
export function sayKeys(says: Record<string, string>): () => void {
	for (const [key, does] of Object.entries(says)) keysHere.set(key, does);
	return () => {
		for (const [key, does] of Object.entries(says)) if (keysHere.get(key) === does) keysHere.delete(key);
	};
}
