<script lang="ts">
	import type { DriveGoal } from '$lib/case/proof/provingDrive';

	import Mark from '$lib/ui/Mark.svelte';
	import type { MarkState } from '$lib/core/prove/proof';
	import type { PageData } from './$types';
	import { said, shown } from '$lib/ui/units';

	/** What a proving drive has to bring about, and how far each of it is. */
	let {
		data,
		goals,
		furtherKm,
		countsKm,
		drivenKm
	}: {
		data: PageData;
		goals: (DriveGoal & { state: MarkState; says: string })[];
		/** Still to go for what comes and goes. */
		furtherKm: number;
		/** Of the driven distance, what counts for it. */
		countsKm: number;
		drivenKm: number;
	} = $props();
	const exposure = $derived(data.plan.exposure);
	const nameOf = (signal: string) => data.names[signal] ?? signal;
	const howFar = $derived.by(() => {
		if (!exposure) return '';
		const when = exposure.when ? `: ${said(exposure.when)}` : '';
		if (exposure.so)
			return `It comes and goes${when}. Only what is driven ${said(exposure.so)} counts: ${shown(countsKm, 'distance', 2)} of ${shown(drivenKm, 'distance', 2)} does.`;
		return `It comes and goes${when}.${when ? ' Drive it so: any other driving says nothing.' : ''}`;
	});
</script>

{#snippet row(state: MarkState, name: string, words: string, says: string, far: boolean)}
	<li class="hair flex items-start gap-4 py-3">
		<span class="mt-1"><Mark {state} size={22} /></span>
		<div class="min-w-0 flex-1">
			<p class="text-lg font-bold">{name}</p>
			<p class="text-ink-2">{words}</p>
		</div>
		<p class="text-lg {far ? 'num' : ''}">{says}</p>
	</li>
{/snippet}

<section class="mt-5" aria-labelledby="goals">
	<h2 id="goals" class="text-lg font-bold">What must have happened</h2>
	<ul>
		{#each goals as { name, words, notRead, state, says }, nth (nth)}
			{@const given =
				notRead.length > 0 ? `. Taken as given, not read: ${notRead.map(nameOf).join(', ')}` : ''}
			{@render row(state, name, said(words) + given, said(says), false)}
		{/each}
		{#if exposure}
			{@render row(
				furtherKm === 0 ? 'good' : countsKm > 0 ? 'suspect' : 'open',
				`${shown(exposure.km, 'distance', 1)} without ${exposure.for}`,
				howFar,
				`${shown(furtherKm, 'distance', 1)} to go`,
				true
			)}
		{/if}
	</ul>
</section>
