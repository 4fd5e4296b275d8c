import { onMount } from 'svelte';

/**
 * Keeps what is typed and not yet saved in this tab, through a reload, for forms outside of {@link entryForm}.
 *
 * @param key what it belongs to, such as a case, a wheel and a measurement
 * @param read what is typed now; null where there is nothing worth keeping
 * @param write puts back what was kept
 */
export function keepDraft<T extends object>(
	key: string,
	read: () => T | null,
	write: (kept: T) => void
): void {
	const name = `jaldi:draft:${key}`;
	let restored = $state(false);
	onMount(() => {
		try {
			const kept = sessionStorage.getItem(name);
			if (kept) write(JSON.parse(kept) as T);
		} catch {
			sessionStorage.removeItem(name);
		}
		restored = true;
	});
	$effect(() => {
		const now = read();
		if (!restored) return;
		if (now === null) sessionStorage.removeItem(name);
		else sessionStorage.setItem(name, JSON.stringify(now));
	});
}
