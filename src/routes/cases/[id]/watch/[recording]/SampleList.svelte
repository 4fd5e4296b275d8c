<script lang="ts">
	import { tellsNothing } from '$lib/core/live/recording';
	import type { RecordingView } from './recordingView.svelte';
	import { signalUnit, signalValue } from '$lib/ui/units';

	/** Samples as they were read, a page of them from the left edge of the graph on. */
	let {
		view,
		channels,
		words
	}: {
		view: RecordingView;
		channels: string[];
		words: Record<string, { name: string; unit: string }>;
	} = $props();
	const ROWS = 25;
	let rows = $state.raw<number[][]>([]);
	$effect(() => {
		void view.rows(view.from, ROWS).then((found) => (rows = found));
	});
	const cell = (channel: string, value: number) =>
		Number.isNaN(value)
			? ''
			: tellsNothing(channel, value)
				? 'n/a'
				: signalValue(value, words[channel]?.unit ?? '').toFixed(2);
</script>

<div class="mt-3">
	<table class="num w-full text-right">
		<thead class="font-sans text-sm text-ink-2">
			<tr>
				<th class="py-1 text-right font-normal">s</th>
				{#each channels as channel, nth (nth)}
					<th class="py-1 pl-4 text-right font-normal"
						>{words[channel]?.name ?? channel} {signalUnit(words[channel]?.unit ?? '')}</th
					>
				{/each}
			</tr>
		</thead>
		<tbody>
			{#each rows as row, nth (nth)}
				<tr class="hair">
					{#each row as value, i (i)}<td class="py-1 pl-4"
							>{i === 0 ? value.toFixed(3) : cell(channels[i - 1] ?? '', value)}</td
						>{/each}
				</tr>
			{/each}
		</tbody>
	</table>
</div>
