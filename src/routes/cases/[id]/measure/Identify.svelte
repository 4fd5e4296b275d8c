<script lang="ts">
	import Act from '$lib/ui/Act.svelte';
	import { untrack } from 'svelte';
	import { identifySensor, type SensorQuestion } from '$lib/core/electrical/identifySensor';
	import { FAMILY_WORDS } from '$library/sensorFamilies';
	import type { SensorKind } from '$library/sensorKinds';
	import { sendEntry } from '$lib/away/record';

	interface Question extends SensorQuestion<SensorKind> {
		text: string;
		how: string;
		answers: { id: string; text: string; likelihood: Record<SensorKind, number> }[];
	}
	/** The short round that tells which family a sensor is of: each time the question that tells most. */
	let {
		caseId,
		at,
		atWords,
		questions,
		prior,
		ondone
	}: {
		caseId: string;
		at: string;
		atWords: string;
		questions: Question[];
		prior: Record<SensorKind, number>;
		ondone: () => void;
	} = $props();
	let given = $state<Record<string, string>>({});
	let skipped = $state<string[]>([]);
	const asked = $derived(questions.filter(({ id }) => !skipped.includes(id)));
	const told = $derived(identifySensor(prior, asked, given));
	const question = $derived(asked.find(({ id }) => id === told.next?.id) ?? null);
	const best = $derived(told.families[0]);
	const bestFamily = $derived(best ? FAMILY_WORDS[best.family] : null);
	/** How the circuit is built, by what the unplugged wire did. */
	const pull = $derived(
		given.signal === 'falls'
			? 'The module pulls its line down, the sensor pulls it up.'
			: given.signal === 'rises'
				? 'The module pulls its line up, the sensor pulls it down.'
				: null
	);
	const save = async (all: boolean) => {
		if (!best) return;
		const position = all ? null : untrack(() => at);
		const payload = {
			position: position as never,
			family: best.family,
			answers: $state.snapshot(given),
			probability: best.probability
		};
		if (await sendEntry(caseId, 'sensor-identified', payload)) ondone();
	};
</script>

<section class="mt-4 border-l-4 border-ink pl-4" aria-label="Which sensor is it?">
	<ol class="flex flex-col gap-1">
		{#each told.families as { family, probability }, nth (nth)}
			<li class="grid grid-cols-[4.5rem_1fr] items-baseline gap-3">
				<span class="num text-right {probability > 0.5 ? 'font-bold' : 'text-ink-2'}"
					>{(100 * probability).toFixed(0)} %</span
				>
				<span class={probability > 0.5 ? 'font-bold' : 'text-ink-2'}>{FAMILY_WORDS[family].name}</span>
			</li>
		{/each}
	</ol>
	{#if told.contradiction}
		<p class="mt-3 font-semibold" role="alert">
			These answers do not fit together: no sensor is like that. Start again, with the surest question.
		</p>
	{:else if question}
		<h3 class="mt-4 text-lg font-bold">{question.text}</h3>
		<p class="text-ink-2">{question.how}</p>
		<div class="mt-2 flex flex-wrap gap-2">
			{#each question.answers as answer (answer.id)}
				<button class="act-quiet" onclick={() => (given = { ...given, [question.id]: answer.id })}
					>{answer.text}</button
				>
			{/each}
			<button class="act-quiet border-dashed" onclick={() => (skipped = [...skipped, question.id])}
				>Cannot tell</button
			>
		</div>
	{:else}
		<p class="mt-3 text-lg">
			{told.certain ? 'It is' : 'Most likely it is'} <strong>{bestFamily?.name}</strong>: {bestFamily?.works}. {pull ??
				''}
		</p>
	{/if}
	<div class="mt-3 flex flex-wrap gap-2">
		{#if !told.contradiction && Object.keys(given).length > 0}
			<button class="act" onclick={() => save(true)}>Save for all wheels</button>
			<button class="act-quiet" onclick={() => save(false)}>Only {atWords}</button>
		{/if}
		<Act
			class="act-quiet"
			whyNot={Object.keys(given).length + skipped.length === 0 ? 'Nothing is answered yet.' : null}
			onclick={() => {
				given = {};
				skipped = [];
			}}>Start again</Act
		>
	</div>
</section>
