import { onMount } from 'svelte';
import { tinykeys, type KeyBindingMap } from 'tinykeys';

/** Fields that letters go into; a checkbox or a file button takes none. */
const TYPING =
	'input:not([type=checkbox], [type=radio], [type=file]), textarea, select, [contenteditable="true"]';

/** What is worked with the space bar itself, once it has the focus. */
const WORKED_BY_SPACE = 'button, input, summary, a[role=button]';

/** Keyboard keys of a page; silent while somebody types into a field or a dialog is open. */
export function useKeys(bindings: Record<string, (event: KeyboardEvent) => void>): void {
	onMount(() => {
		const guarded: KeyBindingMap = Object.fromEntries(
			Object.entries(bindings).map(([key, act]) => [
				key,
				(event: KeyboardEvent) => {
					if ((event.target as HTMLElement).closest?.(TYPING) || document.querySelector('dialog[open]'))
						return;
					if (event.code === 'Space' && (event.target as HTMLElement).closest?.(WORKED_BY_SPACE)) return;
					event.preventDefault();
					act(event);
				}
			])
		);
		return tinykeys(window, guarded);
	});
}
