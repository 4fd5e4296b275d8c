<script lang="ts">
	import Mark from '$lib/ui/Mark.svelte';
	import { shown } from '$lib/ui/units';

	let { data } = $props();
	const { cases, known, counted } = $derived(data.alike);
	const best = $derived(cases[0]);
	const ENDED = {
		proven: { mark: 'good', words: 'proven clear' },
		released: { mark: 'suspect', words: 'signed, a part of the proof let go' },
		unproven: { mark: 'suspect', words: 'closed unproven' },
		'came-back': { mark: 'bad', words: 'came back' },
		open: { mark: 'open', words: 'still open' }
	} as const;
	const MUCH = 0.6;
	const SOME = 0.3;
	const howMuch = (share: number) =>
		share >= MUCH ? 'very alike' : share >= SOME ? 'alike' : 'a little alike';
	const provenBy = ({ cleared, cycled, km }: (typeof cases)[number]['provenBy']) =>
		[
			cleared ? 'cleared' : '',
			cycled ? 'key off and on' : '',
			km > 0 ? `driven ${shown(km, 'distance', 1)}` : ''
		]
			.filter(Boolean)
			.join(', ');
	const countsWords = (weight: number | null) =>
		weight === null
			? 'Not counted in the reasoning: only what was proven by a repair of the library, here, and did not come back.'
			: `Counted in the reasoning as ${weight.toFixed(2)} of a case of this very kind.`;
</script>

<svelte:head><title>{data.case.number} Cases like this one · Jaldi</title></svelte:head>
<section class="pt-5">
	<p>
		<a
			class="inline-flex min-h-11 items-center underline underline-offset-4"
			href="/cases/{data.case.id}/reason">Reason</a
		>
	</p>
	<h1 class="text-2xl font-bold">
		{cases.length === 0
			? 'No case of this shop is like this one yet'
			: cases.length === 1
				? 'One case is like this one'
				: `${cases.length} cases are like this one`}
	</h1>
	<p class="mt-1 text-ink-2">
		{#if known === 0}Nothing is known yet that a case could be like: what the customer says, and what its
			modules say, come first.
		{:else if best?.ended === 'proven' && best.repairs.length > 0}The closest was mended by: {best.repairs.join(
				'; '
			)}. A case that is alike is a hint of what to test first; it proves nothing here.
		{:else}By codes, their failure types, what is felt and when, lamps, what was measured and seen, and the
			vehicle. A case that is alike is a hint of what to test first; it proves nothing here.{/if}
		{#if counted > 0}In the reasoning count {counted === 1 ? 'one proven case' : `${counted} proven cases`} of this
			type or with such codes.{/if}
	</p>
</section>
<ol class="mt-5 border-t-2 border-ink">
	{#each cases as one (one.id)}
		<li class="grid gap-x-8 gap-y-1 border-b border-rule py-4 sm:grid-cols-[14rem_minmax(0,1fr)]">
			<div>
				<a
					class="num inline-flex min-h-11 items-center text-lg font-semibold underline underline-offset-4"
					href="/cases/{one.id}">{one.number}</a
				>
				<p>{one.vehicle}</p>
				<p class="font-semibold">
					{howMuch(one.share)} <span class="num font-normal">{Math.round(one.share * 100)} %</span>
				</p>
			</div>
			<div>
				<p><span class="text-ink-2">The same:</span> {one.same.join(', ') || 'the maker'}</p>
				{#if one.complaint}<p>“{one.complaint}”</p>{/if}
				{#if one.repairs.length > 0}<p class="text-lg font-semibold">{one.repairs.join('; ')}</p>{:else}<p
						class="text-ink-2"
					>
						Nothing is mended there.
					</p>{/if}
				<p class="flex items-start gap-2">
					<span class="mt-0.5"><Mark state={ENDED[one.ended].mark} size={18} /></span><span
						>{ENDED[one.ended].words}{one.cameBackAs ? ` as ${one.cameBackAs}` : ''}{one.ended !== 'open' &&
						provenBy(one.provenBy)
							? `: ${provenBy(one.provenBy)}`
							: ''}</span
					>
				</p>
				<p class="mt-1 text-sm text-ink-2">{countsWords(one.weight)}</p>
			</div>
		</li>
	{/each}
</ol>
