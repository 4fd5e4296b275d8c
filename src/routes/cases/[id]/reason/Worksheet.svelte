<script lang="ts">
	import Act from '$lib/ui/Act.svelte';
	import type { TestStep } from '$lib/case/entries/test-step/payload';
	import Mark from '$lib/ui/Mark.svelte';
	import { sendEntry } from '$lib/away/record';

	/** Steps that were done or set aside, with who and how long; one’s own are written down here. */
	let {
		steps,
		mayWrite,
		caseId,
		onsaved
	}: {
		steps: {
			id: string;
			name: string;
			how: TestStep['how'];
			words: string;
			because: string;
			from: TestStep['from'];
			minutes: number | null;
			by: string;
			time: string;
		}[];
		mayWrite: boolean;
		caseId: string;
		onsaved: () => void;
	} = $props();
	let name = $state('');
	let because = $state('');
	let minutes = $state<number | null>(null);
	const total = $derived(steps.reduce((sum, one) => sum + (one.minutes ?? 0), 0));
	const FROM = { suggested: '', procedure: 'by the maker’s procedure', own: 'one’s own' };

	async function add(from: 'own' | 'procedure') {
		const payload: TestStep = {
			test: null,
			place: '',
			name: name.trim(),
			station: 'measure',
			from,
			how: 'done',
			seen: {},
			because: because.trim(),
			minutes
		};
		if (await sendEntry(caseId, 'test-step', payload)) {
			name = because = '';
			minutes = null;
			onsaved();
		}
	}
</script>

<section class="mt-6 border-t border-rule pt-4" aria-labelledby="worksheet">
	<h2 id="worksheet" class="text-lg font-bold">
		{steps.length === 0
			? 'Worksheet: no step is written down yet'
			: `Worksheet: ${steps.length} ${steps.length === 1 ? 'step' : 'steps'}, ${Math.round(total)} min timed`}
	</h2>
	<ol>
		{#each steps as step (step.id)}
			<li class="hair grid grid-cols-[1.75rem_minmax(0,1fr)_auto] gap-3 py-2">
				<span class="mt-1"><Mark state={step.how === 'done' ? 'good' : 'open'} size={16} /></span>
				<span>
					<strong>{step.name}</strong>
					<span class="text-ink-2"
						>{[step.words, step.because, FROM[step.from]].filter(Boolean).join(' · ')}</span
					>
				</span>
				<span class="text-right text-ink-2"
					>{#if step.minutes !== null}<span class="num">{step.minutes} min</span>,{/if}
					{step.by} <span class="num">{step.time}</span></span
				>
			</li>
		{/each}
	</ol>
	{#if mayWrite}
		<details class="mt-2">
			<summary class="min-h-11 cursor-pointer py-2"
				>Write down a step of your own, or one of a procedure</summary
			>
			<div class="grid gap-3 sm:grid-cols-[2fr_2fr_6rem]">
				<label
					><span class="text-ink-2">What was done</span><input
						class="field"
						bind:value={name}
						maxlength="200"
					/></label
				>
				<label
					><span class="text-ink-2">What it showed</span><input
						class="field"
						bind:value={because}
						maxlength="300"
					/></label
				>
				<label
					><span class="text-ink-2">Minutes</span><input
						class="field num"
						type="number"
						min="0"
						max="1440"
						bind:value={minutes}
					/></label
				>
			</div>
			<div class="mt-2 flex gap-3">
				<Act
					class="act"
					whyNot={name.trim() === '' ? 'Give it a name.' : null}
					onclick={() => void add('own')}>My own step</Act
				>
				<Act class="act-quiet" whyNot={name.trim() === '' ? '' : null} onclick={() => void add('procedure')}
					>Of the maker’s procedure</Act
				>
			</div>
		</details>
	{/if}
</section>
