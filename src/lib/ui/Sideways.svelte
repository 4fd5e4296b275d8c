<script lang="ts">
	import { onMount, type Snippet } from 'svelte';

	/** What may be wider than the page: it moves sideways by itself, by thumb, wheel and, once it has to, by keyboard. */
	let {
		label,
		class: classes = '',
		children
	}: { label: string; class?: string; children: Snippet } = $props();
	let place: HTMLDivElement;
	let isWide = $state(false);
	onMount(() => {
		const watch = new ResizeObserver(() => (isWide = place.scrollWidth > place.clientWidth));
		watch.observe(place);
		for (const child of place.children) watch.observe(child);
		return () => watch.disconnect();
	});
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex (what is wider than the page is scrolled by keyboard too) -->
<div
	class="overflow-x-auto {classes}"
	role="group"
	aria-label={label}
	tabindex={isWide ? 0 : undefined}
	bind:this={place}
>
	{@render children()}
</div>
