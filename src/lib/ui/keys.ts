import { onMount } from 'svelte';
import { tinykeys, type KeyBindingMap } from 'tinykeys';

const TYPING = 'input, textarea, select, [contenteditable="true"]';

/** Keyboard keys of a page; silent while somebody types into a field or a dialog is open. */
export function useKeys(bindings: Record<string, (event: KeyboardEvent) => void>): void {
	onMount(() => {
		const guarded: KeyBindingMap = Object.fromEntries(
			Object.entries(bindings).map(([key, act]) => [
				key,
				(event: KeyboardEvent) => {
					if ((event.target as HTMLElement).closest?.(TYPING) || document.querySelector('dialog[open]'))
						return;
					event.preventDefault();
					act(event);
				}
			])
		);
		return tinykeys(window, guarded);
	});
}
