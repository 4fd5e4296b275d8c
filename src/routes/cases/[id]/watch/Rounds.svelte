<script lang="ts">
	import type { RoundResult } from '$lib/case/entries/wheel-round/payload';
	import Mark from '$lib/ui/Mark.svelte';
	import { said } from '$lib/ui/units';

	/** Wheels that were turned one after the other, and how each answered. */
	let {
		rounds
	}: {
		rounds: {
			id: string;
			time: string;
			by: string;
			mode: 'hand' | 'gear';
			corners: { position: string; result: RoundResult; text: string }[];
		}[];
	} = $props();
	const STATE: Record<RoundResult, 'good' | 'suspect' | 'bad'> = {
		answers: 'good',
		'turns-mate': 'good',
		weaker: 'suspect',
		'not-trusted': 'suspect',
		erratic: 'bad',
		dead: 'bad'
	};
</script>

{#each rounds as round (round.id)}
	<section class="mt-8" aria-label="Wheel round of {round.time}">
		<h2 class="text-lg font-bold">
			{round.mode === 'hand' ? 'Wheels turned by hand' : 'Driven wheels in gear'}
			<span class="num ml-2 text-base font-normal text-ink-2">{round.time}, {round.by}</span>
		</h2>
		<ul>
			{#each round.corners as { result, text }, nth (nth)}
				<li class="hair flex items-center gap-3 py-2"><Mark state={STATE[result]} />{said(text)}</li>
			{/each}
		</ul>
	</section>
{/each}
