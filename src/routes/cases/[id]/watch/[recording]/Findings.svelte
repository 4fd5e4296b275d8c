<script lang="ts">
	import Mark from '$lib/ui/Mark.svelte';
	import { said } from '$lib/ui/units';

	/** What the analysis found; each finding leads to its place on the graph. */
	let {
		findings,
		common,
		notes,
		rateText,
		onlook
	}: {
		findings: { type: string; channel: string; startS: number; endS: number; count: number; text: string }[];
		common: { text: string }[];
		notes: { text: string }[];
		rateText: string;
		onlook: (startS: number, endS: number) => void;
	} = $props();
</script>

<section class="mt-5" aria-labelledby="found">
	<h2 id="found" class="text-lg font-bold">
		{findings.length === 0
			? 'Nothing found'
			: findings.length === 1
				? 'One finding'
				: `${findings.length} findings`}
	</h2>
	<ul>
		{#each common as { text }, nth (nth)}
			<li class="hair flex gap-3 py-2"><span class="mt-1"><Mark state="suspect" /></span>{said(text)}</li>
		{/each}
		{#each findings as finding, nth (nth)}
			<li class="hair flex flex-wrap items-center gap-x-3 py-2">
				<Mark state="suspect" />
				<span class="min-w-0 flex-1">{said(finding.text)}</span>
				<button class="act-quiet" onclick={() => onlook(finding.startS, finding.endS)}>
					<span class="num">{finding.startS.toFixed(1)} – {finding.endS.toFixed(1)} s</span>
				</button>
			</li>
		{/each}
		{#each notes as { text }, nth (nth)}
			<li class="hair flex gap-3 py-2"><span class="mt-1"><Mark state="open" /></span>{said(text)}</li>
		{/each}
	</ul>
	{#if rateText}<p class="hair py-2 text-ink-2">{said(rateText)}</p>{/if}
</section>
