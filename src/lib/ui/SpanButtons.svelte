<script lang="ts">
	import type { Snippet } from 'svelte';
	import { useKeys } from './keys';
	import type { Span } from './span.svelte';

	/** Closer, wider, along and all of it, with their keys; what else belongs to the picture stands beside them. */
	let { span, children }: { span: Span | null; children?: Snippet } = $props();
	useKeys(
		{
			'+': () => span?.zoom(0.5),
			'-': () => span?.zoom(2),
			ArrowLeft: () => span?.pan(-0.25),
			ArrowRight: () => span?.pan(0.25),
			'0': () => span?.all()
		},
		{ '+ −': 'nearer, further', '← →': 'earlier, later', '0': 'all of it' }
	);
</script>

<div class="flex flex-wrap items-center gap-2">
	<button class="act-quiet" onclick={() => span?.zoom(0.5)}>Closer <span class="key">+</span></button>
	<button class="act-quiet" onclick={() => span?.zoom(2)}>Wider <span class="key">−</span></button>
	<button class="act-quiet" aria-label="Earlier" onclick={() => span?.pan(-0.25)}
		><span class="key">←</span></button
	>
	<button class="act-quiet" aria-label="Later" onclick={() => span?.pan(0.25)}
		><span class="key">→</span></button
	>
	<button class="act-quiet" onclick={() => span?.all()}>All of it <span class="key">0</span></button>
	{@render children?.()}
</div>
