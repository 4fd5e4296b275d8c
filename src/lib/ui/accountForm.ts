import { onDestroy, onMount } from 'svelte';
import { get } from 'svelte/store';
import { toast } from 'svelte-sonner';
import { superForm, type SuperValidated } from 'sveltekit-superforms';
import { keepTyped } from './refresh';
import { sessionEnded } from './sessionEnded.svelte';

/** What was typed and differs from what stands: the rest is somebody else's to change. */
function changedFrom<T extends Record<string, unknown>>(stands: T, typed: T): Partial<T> {
	return Object.fromEntries(
		Object.entries(typed).filter(([name, value]) => value !== stands[name])
	) as Partial<T>;
}

/** How a form is sent, and whether what is typed outlives a reload. */
interface Manner {
	/** `form` = by the names of its fields, also before the scripts are there. */
	dataType: 'form' | 'json';
	/**
	 * Under what its fields that were changed are kept in this tab until they are saved; absent = nowhere, as for passwords. Of fields
	 * that say which version was seen nothing is kept: they are those of the page as it is loaded.
	 */
	draftKey?: string;
}
const NEVER_KEPT = ['id', 'version'];

/**
 * A form about people and passwords: checked on the server, errors beside their fields; what fails there is said, and nothing typed
 * is lost, also when the page is brought up to date by itself.
 */
export function accountForm<T extends Record<string, unknown>, M>(
	data: SuperValidated<T, M>,
	{ dataType, draftKey }: Manner = { dataType: 'form' }
) {
	const key = draftKey === undefined ? null : `jaldi:draft:${draftKey}`;
	/** What stands, as far as this form knows. */
	let stands = data.data;
	/** What is typed and was not taken yet. */
	let typed: T | null = null;
	const made = superForm<T, M>(data, {
		dataType,
		resetForm: dataType === 'form',
		onError: ({ result }) => {
			sessionEnded.tell(result.status);
			toast.error(`${result.error.message || 'The server cannot be reached.'} What you typed is kept here.`);
		},
		onResult: ({ result }) => {
			if (result.type === 'redirect' && key) sessionStorage.removeItem(key);
		},
		onUpdated: ({ form }) => {
			if (!form.valid) return;
			typed = null;
			stands = form.data;
			if (key && form.message !== undefined) sessionStorage.removeItem(key);
		}
	});
	onMount(() => {
		const kept = key && sessionStorage.getItem(key);
		if (!kept) return;
		try {
			made.form.set({ ...get(made.form), ...JSON.parse(kept) }, { taint: true });
		} catch {
			sessionStorage.removeItem(key);
		}
	});
	onDestroy(
		made.form.subscribe((values) => {
			// What the page itself sets is not typed.
			if (!made.isTainted()) return;
			typed = { ...values };
			if (!key) return;
			const changed = Object.entries(changedFrom(stands, values)).filter(
				([name]) => !NEVER_KEPT.includes(name)
			);
			if (changed.length > 0) sessionStorage.setItem(key, JSON.stringify(Object.fromEntries(changed)));
			else sessionStorage.removeItem(key);
		})
	);
	keepTyped(() => {
		if (typed !== null) made.form.set(typed);
	});
	return made;
}
