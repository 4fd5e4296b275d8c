<script lang="ts">
	import type { ConditionOver } from '$lib/core/live/conditionsOver';
	import Mark from '$lib/ui/Mark.svelte';
	import { said as inOurs } from '$lib/ui/units';

	/** The codes' own conditions held against this recording: when they would have been set, whether their tests have run. */
	let {
		conditions,
		met,
		names,
		onlook
	}: {
		conditions: { text: string; what: 'set' | 'test'; words: string }[];
		met: ConditionOver[];
		/** What signals are called. */
		names: Record<string, string>;
		onlook: (startS: number, endS: number) => void;
	} = $props();
	const rows = $derived(
		conditions.map((one) => ({
			...one,
			over: met.find(({ name }) => name === `${one.text} ${one.what}`) ?? null
		}))
	);
	const said = ({ what, over }: (typeof rows)[number]) => {
		if (!over) return 'being looked at …';
		const lacks =
			over.missing.length > 0
				? ` Not recorded: ${over.missing.map((signal) => names[signal] ?? signal).join(', ')}.`
				: '';
		if (over.firstS === null) {
			if (over.missing.length > 0) return `Cannot be told.${lacks}`;
			return what === 'set'
				? 'Never met: the code would not have been set.'
				: 'Never met: its test has not run here.';
		}
		const times = over.intervals.length === 1 ? 'once' : `${over.intervals.length} times`;
		const span = `${times}, ${over.metS.toFixed(1)} s in all, first at ${over.firstS.toFixed(1)} s`;
		return what === 'set'
			? `Met ${span}: then the code would have been set.${lacks}`
			: `Met ${span}: its test could run.${lacks}`;
	};
</script>

{#if rows.length > 0}
	<section class="mt-8" aria-labelledby="conditions">
		<h2 id="conditions" class="text-lg font-bold">The codes’ conditions in this recording</h2>
		<ul>
			{#each rows as row, nth (nth)}
				{@const first = row.over?.intervals[0]}
				<li class="hair flex flex-wrap items-center gap-x-3 py-2">
					<Mark
						state={!row.over || row.over.firstS === null ? 'open' : row.what === 'set' ? 'suspect' : 'good'}
					/>
					<span class="min-w-0 flex-1">
						<span class="num">{row.text}</span>
						<strong>{row.what === 'set' ? 'is set by' : 'is tested by'}</strong>
						{inOurs(row.words)}
						<span class="block text-ink-2">{said(row)}</span>
					</span>
					{#if first}<button class="act-quiet" onclick={() => onlook(first.startS, first.endS)}>Look</button
						>{/if}
				</li>
			{/each}
		</ul>
	</section>
{/if}
