<script lang="ts">
	import type { Snippet } from 'svelte';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { askedWith } from '$lib/ui/askedWith';

	/** Narrows a list of cases to those that are called so or had a code; what is asked stands in the address. */
	let {
		asked,
		found,
		of,
		more = undefined
	}: {
		/** What is asked now, by the names of the fields. */
		asked: Record<'words' | 'code', string> & Record<string, string>;
		found: number;
		of: number;
		/** Further fields of this list. */
		more?: Snippet;
	} = $props();
	const narrowed = $derived(Object.values(asked).some((value) => value !== ''));
	const to = (changes: Record<string, string | null>) =>
		page.url.pathname + askedWith(page.url.search, { ...changes, page: null });
	const none = $derived(Object.fromEntries(Object.keys(asked).map((name) => [name, null])));

	function show(event: SubmitEvent & { currentTarget: HTMLFormElement }) {
		event.preventDefault();
		const form = new FormData(event.currentTarget);
		const typed = Object.keys(asked).map((name) => [name, String(form.get(name) ?? '').trim()] as const);
		void goto(to(Object.fromEntries(typed)), { keepFocus: true });
	}
</script>

<details class="mt-2" open={narrowed}>
	<summary class="inline-flex min-h-11 cursor-pointer items-center underline underline-offset-4"
		>{narrowed ? `${found} of ${of} fit` : 'Only some of them'}</summary
	>
	<form class="mt-1 mb-3 flex flex-wrap items-end gap-3" onsubmit={show}>
		<label class="min-w-0 flex-[2_1_16rem]"
			><span class="text-ink-2">Vehicle, plate or number</span><input
				class="field"
				name="words"
				value={asked.words}
				maxlength="60"
			/></label
		>
		<label class="min-w-0 flex-[1_1_9rem]"
			><span class="text-ink-2">Code</span><input
				class="field font-mono"
				name="code"
				value={asked.code}
				maxlength="20"
			/></label
		>
		{@render more?.()}
		<button class="act-quiet">Show those</button>
		{#if narrowed}<a class="act-quiet" href={to(none)}>All again</a>{/if}
	</form>
</details>
