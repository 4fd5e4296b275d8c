import { onMount } from 'svelte';
import { get } from 'svelte/store';
import { toast } from 'svelte-sonner';
import { ulid } from 'ulid';
import { superForm, type SuperValidated } from 'sveltekit-superforms';

/**
 * The one form pattern: values checked on the server, errors beside their fields, and what is typed but not yet saved
 * kept in this tab – through a reload, the back button or a lost server – until it is saved.
 *
 * @param data the form as loaded; when it changes (somebody else wrote), an untouched form follows and a touched one
 * keeps what was typed
 */
export function entryForm<T extends Record<string, unknown>>(
	data: () => SuperValidated<T, string>,
	options: {
		id: string;
		draftKey: string;
		/** What this one is about, where many forms of a page share their start: each makes an entry of its own. */
		about?: () => Partial<T>;
		onSaved?: () => void;
	}
) {
	const key = `jaldi:draft:${options.draftKey}`;
	const start = (): SuperValidated<T, string> =>
		options.about ? { ...data(), data: { ...data().data, ...options.about(), entryId: ulid() } } : data();
	const follow = () => made.form.set(start().data, { taint: false });
	const made = superForm<T, string>(start(), {
		id: options.id,
		dataType: 'json',
		resetForm: false,
		// A lost server must not replace the page and what is typed on it.
		onError: ({ result }) => {
			toast.error(`${result.error.message || 'The server cannot be reached.'} What you typed is kept here.`);
		},
		onResult: ({ result }) => {
			if (result.type === 'redirect') sessionStorage.removeItem(key);
		},
		onUpdated: ({ form }) => {
			if (!form.valid || get(made.message) === undefined) return;
			const saved = get(made.message);
			sessionStorage.removeItem(key);
			follow();
			made.message.set(undefined);
			if (saved) toast.success(saved);
			options.onSaved?.();
		}
	});
	let restored = $state(false);

	$effect(() => {
		data();
		if (!made.isTainted()) follow();
	});
	onMount(() => {
		const kept = sessionStorage.getItem(key);
		if (kept) {
			try {
				made.form.set({ ...get(made.form), ...JSON.parse(kept) }, { taint: true });
				restored = true;
			} catch {
				sessionStorage.removeItem(key);
			}
		}
		return made.form.subscribe((values) => {
			if (made.isTainted()) sessionStorage.setItem(key, JSON.stringify(values));
		});
	});
	return {
		...made,
		get restored() {
			return restored;
		},
		/** Drops what was typed and not saved. */
		forget() {
			sessionStorage.removeItem(key);
			follow();
			restored = false;
		}
	};
}
