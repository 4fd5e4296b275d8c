<script lang="ts">
	import Mark from '$lib/ui/Mark.svelte';

	/** Which wheel a page of the bench is about; suspect ones are marked. */
	let {
		corners,
		at,
		href
	}: {
		corners: { position: string; words: string; suspect: boolean }[];
		at: string;
		href: (position: string) => string;
	} = $props();
</script>

<nav class="flex flex-wrap gap-2" aria-label="Wheel">
	{#each corners as { position, words, suspect } (position)}
		<a
			class="flex min-h-11 items-center gap-2 rounded-md border px-4 {position === at
				? 'border-ink bg-neutral text-neutral-content'
				: 'border-ink-2'}"
			aria-current={position === at ? 'page' : undefined}
			href={href(position)}
		>
			{#if suspect}<Mark state="suspect" size={15} />{/if}
			{words}{suspect ? ', suspect' : ''}
		</a>
	{/each}
</nav>
