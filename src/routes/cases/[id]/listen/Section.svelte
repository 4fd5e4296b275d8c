<script lang="ts">
	import type { Snippet } from 'svelte';

	/** One part of listening: what is written down, or the form to write it. */
	let {
		id,
		title,
		saved,
		canWrite,
		editing = $bindable(),
		summary,
		children
	}: {
		id: string;
		title: string;
		saved: boolean;
		canWrite: boolean;
		editing: boolean;
		summary: Snippet;
		children: Snippet;
	} = $props();
	const asks = $derived(canWrite && (!saved || editing));
	let place: HTMLElement | undefined;
	/** Whether the focus was last in this part: a button that is pressed may lose it while it is busy. */
	let lastHere = false;
	let saves = false;
	const FIELD = 'input:not([type=hidden], [type=radio], [type=checkbox]), textarea, select';
	/** Whoever types goes on in the next part that asks; a thumb would only get a keyboard that it did not ask for. */
	function goOn(): void {
		if (matchMedia('(pointer: coarse)').matches) return;
		for (let next = place?.nextElementSibling; next; next = next.nextElementSibling) {
			const field = next.querySelector<HTMLElement>(FIELD);
			if (field) return field.focus();
		}
	}
	$effect(() => {
		const saved = saves && !asks;
		saves = asks;
		if (saved && lastHere) goOn();
	});
</script>

<svelte:document
	onfocusin={({ target }) => {
		// The page itself is focused by the framework once something is saved.
		if (target !== document.body) lastHere = place?.contains(target as Node) ?? false;
	}}
/>
<section {id} bind:this={place} class="border-b border-rule py-5" aria-labelledby="{id}-title">
	<div class="flex items-baseline justify-between gap-4">
		<h2 id="{id}-title" class="text-lg font-bold">{title}</h2>
		{#if saved && canWrite}
			<button
				class="min-h-11 cursor-pointer px-2 underline underline-offset-4"
				onclick={() => (editing = !editing)}
			>
				{editing ? 'Leave it as it is' : 'Correct'}
			</button>
		{/if}
	</div>
	{#if saved && !editing}
		<div class="mt-1">{@render summary()}</div>
	{:else if !asks}
		<p class="mt-1 text-ink-2">Not written down yet.</p>
	{/if}
	{#if asks}<div class="mt-3">{@render children()}</div>{/if}
</section>
