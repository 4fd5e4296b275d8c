import { onMount } from 'svelte';
import { sayKeys } from './keysHere.svelte';
import { tinykeys, type KeyBindingMap } from 'tinykeys';

/** Fields that letters go into; a checkbox or a file button takes none. */
const TYPING =
	'input:not([type=checkbox], [type=radio], [type=file]), textarea, select, [contenteditable="true"]';

/** What is worked with the space bar itself, once it has the focus. */
const WORKED_BY_SPACE = 'button, input, summary, a[role=button]';

/** Keys that are one sign and nothing held down: whoever speaks to the machine, or brushes over keys, has switched them off. */
const isSingle = (key: string): boolean => key.length === 1 || key === 'Shift+?';
const singlesAreOff = (): boolean => document.documentElement.dataset.keys === 'off';

/** Esc leaves the field that somebody types into, so that keys do again what they do. @returns how to end it */
export function leaveFieldsByKey(): () => void {
	const leave = (event: KeyboardEvent) => {
		if (event.key !== 'Escape' || event.defaultPrevented || document.querySelector('dialog[open]')) return;
		const field = (event.target as HTMLElement | null)?.closest?.<HTMLElement>(TYPING);
		field?.blur();
	};
	addEventListener('keydown', leave);
	return () => removeEventListener('keydown', leave);
}

/**
 * Keyboard keys of a page; silent while somebody types into a field or a dialog is open.
 *
 * @param says what they do, for whoever asks with `?`
 */
export function useKeys(
	bindings: Record<string, (event: KeyboardEvent) => void>,
	says: Record<string, string> = {}
): void {
	onMount(() => sayKeys(says));
	onMount(() => {
		const guarded: KeyBindingMap = Object.fromEntries(
			Object.entries(bindings).map(([key, act]) => [
				key,
				(event: KeyboardEvent) => {
					if ((event.target as HTMLElement).closest?.(TYPING) || document.querySelector('dialog[open]'))
						return;
					if (isSingle(key) && singlesAreOff()) return;
					if (event.code === 'Space' && (event.target as HTMLElement).closest?.(WORKED_BY_SPACE)) return;
					event.preventDefault();
					act(event);
				}
			])
		);
		return tinykeys(window, guarded);
	});
}
