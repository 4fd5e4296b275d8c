import { onDestroy } from 'svelte';
import { toast } from 'svelte-sonner';
import { superForm, type SuperValidated } from 'sveltekit-superforms';
import { keepTyped } from './refresh';

/**
 * A form about people and passwords: checked on the server, errors beside their fields; what fails there is said, and nothing typed
 * is lost, also when the page is brought up to date by itself.
 */
export function accountForm<T extends Record<string, unknown>, M>(
	data: SuperValidated<T, M>,
	/** `form` = by the names of its fields, also before the scripts are there. */
	dataType: 'form' | 'json' = 'form'
) {
	/** What stands typed and was not taken yet. */
	let typed: T | null = null;
	const made = superForm<T, M>(data, {
		dataType,
		resetForm: dataType === 'form',
		onError: ({ result }) => {
			toast.error(`${result.error.message || 'The server cannot be reached.'} What you typed is kept here.`);
		},
		onUpdated: ({ form }) => {
			if (form.valid) typed = null;
		}
	});
	onDestroy(
		made.form.subscribe((values) => {
			// What the page itself sets is not typed.
			if (made.isTainted()) typed = { ...values };
		})
	);
	keepTyped(() => {
		if (typed !== null) made.form.set(typed);
	});
	return made;
}
