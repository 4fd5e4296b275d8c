<script lang="ts">
	import type { Snippet } from 'svelte';
	import { reportTrouble } from './reportTrouble';

	/** A part of a page that may fail alone: the rest is shown, and the log hears of it. */
	let { children, what = 'This part of the page' }: { children: Snippet; what?: string } = $props();
</script>

<svelte:boundary onerror={reportTrouble}>
	{@render children()}
	{#snippet failed(_error, reset)}
		<section role="alert" class="my-4 border-l-4 border-ink pl-4">
			<p class="text-lg font-semibold">{what} cannot be shown.</p>
			<p class="mt-1">
				Everything that was saved is kept, and the rest of the page works. The log has been told.
			</p>
			<button type="button" class="act-quiet mt-2" onclick={reset}>Try it again</button>
		</section>
	{/snippet}
</svelte:boundary>
