<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { HTMLButtonAttributes } from 'svelte/elements';

	/** A button that, where it cannot be pressed, says beside itself why. */
	let {
		whyNot = null,
		children,
		class: looks = 'act-quiet',
		/** For a moment, while what was pressed is done. */
		disabled = false,
		...rest
	}: HTMLButtonAttributes & {
		/** Why it cannot be done now; null = it can. */
		whyNot?: string | null;
		children: Snippet;
	} = $props();
	const uid = $props.id();
</script>

<span class="inline-flex flex-wrap items-center gap-x-3 gap-y-1">
	<button
		type="button"
		class={looks}
		disabled={whyNot !== null || disabled}
		aria-describedby={whyNot ? `${uid}-why` : undefined}
		{...rest}>{@render children()}</button
	>
	{#if whyNot}<span id="{uid}-why">{whyNot}</span>{/if}
</span>
