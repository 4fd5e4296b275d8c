<script lang="ts">
	import type { Snippet } from 'svelte';
	import { enhance } from '$app/forms';
	import type { Units } from '$lib/core/units/units';
	import UnitFields from '$lib/ui/UnitFields.svelte';
	import { unitsHere } from '$lib/ui/units';

	/** What somebody reads and types distances and the like in. What is kept is the same for all. */
	let { own, children }: { own: Units | null; children: Snippet } = $props();
	let choice = $derived(own ?? unitsHere());
</script>

<section aria-labelledby="units">
	<h2 id="units" class="text-lg font-bold">Units</h2>
	<p class="mt-1 text-ink-2">
		{own ? 'Your own, on every device.' : 'As the shop has them.'} What somebody else wrote stands as they wrote
		it; papers are in the shop’s.
	</p>
	{@render children()}
	<form
		method="POST"
		action="?/units"
		use:enhance={() =>
			({ update }) =>
				update({ reset: false })}
	>
		<UnitFields bind:choice name="own" />
		<div class="mt-4 flex flex-wrap gap-3">
			<button class="act-quiet" name="as" value="own">Save units</button>
			{#if own}<button class="act-quiet" name="as" value="shop">As the shop has them</button>{/if}
		</div>
	</form>
</section>
