<script lang="ts">
	import { upperFirst } from '$lib/case/words';
	import Mark from '$lib/ui/Mark.svelte';

	/** What was done so far, before the repair and since. */
	interface Sum {
		changes: number;
		seconds: number;
	}
	let {
		tries,
		mended
	}: { tries: { key: string; words: string; before: Sum; since: Sum }[]; mended: boolean } = $props();
	const said = ({ changes, seconds }: Sum) =>
		seconds === 0 && changes === 0
			? '–'
			: `${changes === 0 ? 'nothing' : `${changes}×`} in ${seconds.toFixed(0)} s`;
	const stateOf = ({ before, since }: (typeof tries)[number]) =>
		since.changes > 0 || (!mended && before.changes > 0)
			? 'bad'
			: (mended ? since : before).seconds > 0
				? 'good'
				: 'open';
</script>

<section class="mt-7" aria-labelledby="tried">
	<h2 id="tried" class="text-lg font-bold">What was done so far</h2>
	<table class="mt-1 w-full">
		<thead>
			<tr class="text-left text-sm text-ink-2">
				<th class="font-normal" colspan="2">Done</th>
				<th class="text-right font-normal">{mended ? 'before the repair' : 'the value changed'}</th>
				{#if mended}<th class="text-right font-normal">since</th>{/if}
			</tr>
		</thead>
		<tbody>
			{#each tries as one (one.key)}
				<tr class="hair">
					<td class="w-8 py-2"><Mark state={stateOf(one)} size={18} /></td>
					<td class="py-2">{upperFirst(one.words)}</td>
					<td class="num py-2 text-right">{said(one.before)}</td>
					{#if mended}<td class="num py-2 text-right">{said(one.since)}</td>{/if}
				</tr>
			{/each}
		</tbody>
	</table>
</section>
