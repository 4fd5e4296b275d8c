<script lang="ts">
	import Mark from './Mark.svelte';

	/** What the marks mean on this page, once. */
	let { words }: { words: Partial<Record<'good' | 'suspect' | 'bad' | 'open', string>> } = $props();
	const ORDER = ['good', 'suspect', 'bad', 'open'] as const;
</script>

<ul
	class="flex flex-wrap gap-x-6 gap-y-1 border-t border-rule py-3 text-sm text-ink-2"
	aria-label="What the marks mean"
>
	{#each ORDER.filter((state) => words[state] !== undefined) as state, nth (nth)}<li
			class="flex items-center gap-2"
		>
			<Mark {state} size={15} />
			{words[state]}
		</li>{/each}
</ul>
