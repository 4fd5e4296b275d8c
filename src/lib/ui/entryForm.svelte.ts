import { onMount } from 'svelte';
import { get } from 'svelte/store';
import { toast } from 'svelte-sonner';
import { ulid } from 'ulid';
import type { ActionResult, SubmitFunction } from '@sveltejs/kit';
import { superForm, type SuperValidated } from 'sveltekit-superforms';
import { outbox } from '../away/outbox.svelte';
import { gistOf } from '../away/recorded';
import { refreshAll } from './refresh';
import { sessionEnded } from './sessionEnded.svelte';

const CASE = /^\/cases\/([0-9A-Z]{26})\//;
const failed = (message: string): ActionResult => ({ type: 'error', status: 500, error: { message } });
/** Ids of what a form makes; all others name what is there already. */
const OWN_IDS = ['entryId', 'caseId', 'describedId', 'promisedId'];
const withNewIds = <T extends Record<string, unknown>>(values: T): T => ({
	...values,
	...Object.fromEntries(OWN_IDS.filter((name) => name in values).map((name) => [name, ulid()]))
});
type CustomRequest = (input: Parameters<SubmitFunction>[0]) => Promise<Response | ActionResult>;

/**
 * The one form pattern: values checked on the server, errors beside their fields, and what is typed but not yet saved
 * kept in this tab – through a reload, the back button or a lost server – until it is saved. What makes an entry can be saved
 * without the server too: it waits on this device.
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
		/** What comes after; a promise = it goes to another page, which loads everything anew. */
		onSaved?: () => Promise<void> | boolean | void;
		/** What it makes, where that can wait on this device for the server: something with an id of its own. */
		waits?: string;
	}
) {
	const key = `jaldi:draft:${options.draftKey}`;
	/** With ids of its own each time: a page that this device keeps comes with the same ones again and again. */
	const start = (): SuperValidated<T, string> => ({
		...data(),
		data: withNewIds({ ...data().data, ...options.about?.() })
	});
	const follow = () => made.form.set(start().data, { taint: false });
	let keptHere = false;
	/** Sends the form the way that can wait; what waits counts as saved. */
	async function sendOrKeep({ action, formData }: Parameters<SubmitFunction>[0]): ReturnType<CustomRequest> {
		const request = new Response(formData);
		const values = get(made.form) as { entryId?: string; caseId?: string };
		const sent = await outbox.record({
			id: values.entryId ?? values.caseId ?? ulid(),
			caseId: values.caseId ?? CASE.exec(action.pathname)?.[1] ?? null,
			what: options.waits ?? '',
			gist: gistOf(values),
			path: action.pathname + action.search,
			type: request.headers.get('content-type') ?? '',
			body: await request.text()
		});
		keptHere = sent.state === 'waits';
		if (sent.state !== 'waits' && sent.text) return new Response(sent.text);
		if (sent.state === 'refused') return failed(sent.why);
		const { id } = options;
		const form = { ...start(), id, data: get(made.form), valid: true, posted: true, errors: {} };
		const message = keptHere ? outbox.keptWords : 'Saved.';
		return { type: 'success', status: 200, data: { form: { ...form, message } } };
	}
	const made = superForm<T, string>(start(), {
		id: options.id,
		dataType: 'json',
		resetForm: false,
		// In its turn, below: a navigation that was begun meanwhile goes first.
		invalidateAll: false,
		onSubmit: ({ customRequest }) => {
			if (options.waits) customRequest(sendOrKeep);
		},
		// A lost server must not replace the page and what is typed on it.
		onError: ({ result }) => {
			sessionEnded.tell(result.status);
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
			if (saved) (keptHere ? toast.info : toast.success)(saved);
			const goesOn = options.onSaved?.();
			if (!goesOn && !keptHere) void refreshAll();
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
