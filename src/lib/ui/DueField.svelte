<script lang="ts">
	import { onMount } from 'svelte';
	import { dueWords } from '../case/progress/dueWords';
	import type { readDue } from '../case/entries/promised/readDue';
	import Field from './Field.svelte';

	/** When something is promised, typed as people say it; what was understood is said at once. */
	let {
		words = $bindable(),
		due = $bindable(''),
		closesAtHour,
		errors
	}: {
		words: string;
		/** The moment that the words name, as ISO 8601; empty = none. */
		due?: string;
		closesAtHour: number;
		errors?: string[] | undefined;
	} = $props();

	// Its reader of dates is larger than most pages.
	let read = $state<typeof readDue | null>(null);
	onMount(async () => ({ readDue: read } = await import('../case/entries/promised/readDue')));
	// By the words alone: a form that holds them says that all of it changed, whatever did, and moments differ by when they are read.
	const said = $derived(words.trim());
	const found = $derived(read && said !== '' ? read(said, new Date(), closesAtHour) : null);
	const moment = $derived(found?.due.toISOString() ?? '');
	$effect(() => {
		if (due !== moment) due = moment;
	});
</script>

<Field label="Promised for" {errors}>
	<input
		class="field"
		bind:value={words}
		maxlength="200"
		autocomplete="off"
		placeholder="tomorrow 3pm, Friday noon"
	/>
	<span class="mt-1 block min-h-6 text-ink-2" role="status">
		{#if found}That is <strong class="text-ink">{dueWords(found.due, new Date())}</strong>{found.hour
				? ''
				: ', when the day’s work ends'}.
		{:else if read && said !== ''}No day is in these words. They are kept as they are; the floor has no date
			to go by.{/if}
	</span>
</Field>
