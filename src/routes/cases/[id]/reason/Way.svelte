<script lang="ts">
	import OnlyUsual from '../OnlyUsual.svelte';
	import { percentWords as percent } from '$lib/case/reason/percentWords';
	import { tellsWords } from '$lib/case/reason/words';
	import type { ShownTest } from '$lib/case/reason/reasonView';

	/** One test that could be next: minutes, what it tells, what each outcome would mean. */
	let {
		test,
		caseId,
		mayWrite,
		onstart
	}: {
		test: ShownTest & { cautions: string };
		caseId: string;
		mayWrite: boolean;
		onstart: (test: ShownTest) => void;
	} = $props();
</script>

<li class="hair py-1">
	<details>
		<summary class="grid min-h-11 cursor-pointer grid-cols-[minmax(0,1fr)_4.5rem_5.5rem] items-center gap-3">
			<span>{test.name}</span>
			<span class="num text-right">{Math.round(test.minutes)} min</span>
			<span class="text-right text-ink-2">tells {tellsWords(test.bits)}</span>
		</summary>
		<div class="pb-2 text-ink-2">
			<p>
				{test.why} It tells <span class="num">{test.bits.toFixed(2)}</span> bit of what is to be repaired.{test.access
					? ` Minutes include: ${test.access}`
					: ''}{#if test.assumed}, <OnlyUsual path={test.assumed} {caseId} />{/if}{test.access ? '.' : ''}
			</p>
			{#if test.school}<p class="mt-1">{test.school}</p>{/if}
			<ul class="mt-1 text-ink">
				{#each test.outcomes as outcome, i (i)}
					<li><span class="num">{percent(outcome.p)}</span> {outcome.words} → {outcome.means}</li>
				{/each}
			</ul>
			{#if test.cautions}<p class="mt-2 border-l-4 border-ink pl-3 text-ink">{test.cautions}</p>{/if}
			{#if mayWrite}<button class="act-quiet mt-2" onclick={() => onstart(test)}>Start this one</button>{/if}
		</div>
	</details>
</li>
