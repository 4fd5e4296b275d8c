<script lang="ts">
	import { LINK_WORDS } from '$lib/case/reason/linkWords';
	import type { ShownCell } from '$lib/case/reason/gridView';
	import { percentWords as percent } from '$lib/case/reason/percentWords';
	import { upperFirst } from '$lib/case/words';
	import Mark from '$lib/ui/Mark.svelte';

	/** What proves or accuses one link, what would prove it otherwise, and which entries moved its probability. */
	let { cell, words, caseId, upTo }: { cell: ShownCell; words: string; caseId: string; upTo: number | null } =
		$props();

	interface Moved {
		fault: string;
		p: number;
		moved: { entry: string; title: string; without: number; bits: number; words: string[] }[];
	}
	const STATE = {
		'proven-good': 'proven good',
		suspect: 'suspect',
		'proven-bad': 'proven bad',
		'not-tested': 'not tested'
	};
	const asked = $derived.by(async (): Promise<Moved> => {
		const query = `place=${encodeURIComponent(cell.place)}&link=${cell.link}${upTo === null ? '' : `&upto=${upTo}`}`;
		const response = await fetch(`/cases/${caseId}/reason/why?${query}`);
		if (!response.ok) throw new Error('The server could not work it out.');
		return (await response.json()) as Moved;
	});
</script>

<section class="mt-3 border-l-4 border-ink pl-4" aria-live="polite" aria-labelledby="cell">
	<h2 id="cell" class="text-lg font-bold">
		{upperFirst(words)}, {LINK_WORDS[cell.link]}: {STATE[cell.state]},
		<span class="num">{percent(cell.p)}</span>
	</h2>
	{#if cell.told.length === 0}
		<p class="text-ink-2">Nothing on the thread speaks of it yet.</p>
	{:else}
		<ul>
			{#each cell.told as one, i (i)}
				<li class="flex items-start gap-2 py-0.5">
					<span class="mt-1"><Mark state={one.for ? 'good' : 'suspect'} size={15} /></span>
					<span><strong>{one.title}</strong> <span class="text-ink-2">{one.words}</span></span>
				</li>
			{/each}
		</ul>
	{/if}
	{#if cell.otherwise.length > 0}
		<p class="mt-1"><span class="text-ink-2">Would prove it otherwise:</span> {cell.otherwise.join('; ')}.</p>
	{/if}
	{#await asked}
		<p class="mt-1 text-ink-2">Working out what moved it …</p>
	{:then why}
		{#if why.moved.length > 0}
			<p class="mt-2 font-semibold">What moved “{why.fault}” to <span class="num">{percent(why.p)}</span></p>
			<table class="w-full max-w-2xl">
				<tbody>
					{#each why.moved as one, nth (nth)}
						<tr class="hair align-top">
							<td class="py-1 pr-4">{one.title} <span class="text-ink-2">{one.words.join('; ')}</span></td>
							<td class="num py-1 pr-3 text-right whitespace-nowrap"
								>{one.bits > 0 ? 'for' : 'against'}
								{2 ** Math.abs(one.bits) > 1000 ? 'over 1000' : (2 ** Math.abs(one.bits)).toFixed(1)} ×</td
							>
							<td class="py-1 text-right whitespace-nowrap text-ink-2"
								>without it <span class="num">{percent(one.without)}</span></td
							>
						</tr>
					{/each}
				</tbody>
			</table>
		{/if}
	{:catch}
		<p class="mt-1">The server cannot be reached: what moved it cannot be shown now.</p>
	{/await}
</section>
