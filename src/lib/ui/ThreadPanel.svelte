<script lang="ts">
	import Act from './Act.svelte';
	import type { ThreadLine } from '../case/thread/describe';
	import type { ThreadGroup } from '../case/entries/kind';
	import { said } from './units';

	/** The thread, newest first: what happened, and what it showed. */
	let {
		lines,
		total,
		broken,
		withdraw
	}: {
		lines: ThreadLine[];
		total: number;
		broken: string | null;
		/** Takes an entry out of what counts, with a reason; null = nobody may here. */
		withdraw: ((entryId: string, what: string, because: string) => Promise<boolean>) | null;
	} = $props();
	let because = $state('');
	const FILTERS = [
		{ id: 'all', name: 'All' },
		{ id: 'said', name: 'Said' },
		{ id: 'read', name: 'Read' },
		{ id: 'tested', name: 'Tested' },
		{ id: 'done', name: 'Done' }
	] as const satisfies { id: 'all' | ThreadGroup; name: string }[];
	let filter = $state<(typeof FILTERS)[number]['id']>('all');
	const shown = $derived(lines.filter(({ group }) => filter === 'all' || group === filter));
	let open = $state<string | null>(null);
</script>

<div class="px-5 py-4">
	<div class="flex items-baseline justify-between gap-2">
		<h2 class="font-bold">Thread</h2>
		<p class="text-sm text-ink-2">
			{total}
			{total === 1 ? 'entry' : 'entries'} ·
			{#if broken}<strong class="text-bad">chain broken: {broken}</strong>{:else}chain intact{/if}
		</p>
	</div>
	<div class="my-2 flex flex-wrap gap-1" role="group" aria-label="Show on the thread">
		{#each FILTERS as { id, name } (id)}
			<button
				class="min-h-11 cursor-pointer px-2 text-sm {filter === id
					? 'font-bold underline decoration-2 underline-offset-4'
					: 'text-ink-2'}"
				aria-pressed={filter === id}
				onclick={() => (filter = id)}>{name}</button
			>
		{/each}
	</div>
	<ol class="ml-1 border-l-[3px] border-rule">
		{#each shown as line (line.id)}
			<li class="relative pb-4 pl-4 {line.superseded ? 'text-ink-2 line-through decoration-1' : ''}">
				<span
					class="absolute top-[6px] -left-[8px] size-[11px] rounded-full bg-ink"
					style="outline: 2px solid var(--color-base-200)"
				></span>
				<button
					class="w-full cursor-pointer text-left"
					aria-expanded={open === line.id}
					onclick={() => {
						open = open === line.id ? null : line.id;
						because = '';
					}}
				>
					<span class="flex justify-between gap-2">
						<span class="leading-tight font-semibold">{said(line.title)}</span>
						<span class="num shrink-0 text-sm text-ink-2">{line.time}</span>
					</span>
					<span class="mt-0.5 block text-sm [overflow-wrap:anywhere]"
						>{line.theirs ? line.detail : said(line.detail)}</span
					>
					{#each line.shows as { words, good }, nth (nth)}<span
							class="block text-sm {good ? 'text-good' : 'text-ink-2'}">{said(words)}</span
						>{/each}
					{#if line.corrects}<span class="block text-sm text-ink-2">corrected: {line.corrects}</span>{/if}
				</button>
				{#if open === line.id}
					<p class="mt-1 text-sm text-ink-2">
						Entry {line.seq} by {line.author}
						<span class="num block [overflow-wrap:anywhere]">{line.hash.slice(0, 16)}…</span>
					</p>
					{#if withdraw && line.mayBeWithdrawn && !line.superseded}
						<label class="mt-2 block">
							<span class="text-sm text-ink-2">It should not count, because</span>
							<input class="field" bind:value={because} maxlength="300" />
						</label>
						<Act
							class="act-quiet mt-2"
							whyNot={because.trim() === '' ? 'Say why it should not count.' : null}
							onclick={async () => {
								if (await withdraw(line.id, line.title, because.trim())) open = null;
							}}>Withdraw it</Act
						>
					{/if}
				{/if}
			</li>
		{:else}
			<li class="pl-4 text-ink-2">Nothing of this kind yet.</li>
		{/each}
	</ol>
	{#if total > lines.length}<p class="text-sm text-ink-2">
			The {lines.length} newest; all of them stand on Hand over.
		</p>{/if}
</div>
