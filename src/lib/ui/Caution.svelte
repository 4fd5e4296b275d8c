<script lang="ts">
	import type { Snippet } from 'svelte';
	import TriangleAlert from '@lucide/svelte/icons/triangle-alert';

	/** A safety caution: ink and a heavy rule, never a colour that means something else here. */
	let { children }: { children: Snippet } = $props();
</script>

<div role="note" class="my-4 flex gap-3 border-y-2 border-ink py-3" aria-label="Caution">
	<TriangleAlert size={22} aria-hidden="true" class="mt-0.5 shrink-0" />
	<p>{@render children()}</p>
</div>
