<script lang="ts" module>
	export interface Link {
		state: 'good' | 'suspect' | 'bad' | 'open';
		/** Word under the mark; none where the column head says it. */
		word?: string;
		/** For those who hear the page. */
		says: string;
	}
</script>

<script lang="ts">
	import Mark from './Mark.svelte';

	/** The line: marks joined, solid and thick where proven through, dotted where not. */
	let { links, step = 34, size = 18 }: { links: Link[]; step?: number; size?: number } = $props();
	const worded = $derived(links.some((link) => link.word));
</script>

<ol class="flex" aria-label={links.map((link) => link.says).join(', ')}>
	{#each links as link, i (i)}
		{@const after = links[i + 1]}
		<li class="relative flex shrink-0 flex-col items-center" style:width="{step}px">
			{#if after}
				<span
					class="absolute right-0 left-1/2 z-0 {link.state === 'good' && after.state !== 'open'
						? 'h-[4px] bg-good'
						: 'border-t-[3px] border-dotted border-rule'}"
					style:width="{step}px"
					style:top="{size / 2 - 2}px"
				></span>
			{/if}
			<span class="relative z-10"><Mark state={link.state} {size} /></span>
			{#if worded}<span class="pt-1 text-center text-sm leading-tight whitespace-nowrap text-ink-2"
					>{link.word}</span
				>{/if}
		</li>
	{/each}
</ol>
