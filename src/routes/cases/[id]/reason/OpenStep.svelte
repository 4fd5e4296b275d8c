<script lang="ts">
	import Act from '$lib/ui/Act.svelte';
	import { onMount, untrack } from 'svelte';
	import type { TestStep } from '$lib/case/entries/test-step/payload';
	import { keepDraft } from '$lib/ui/draft.svelte';
	import { sendEntry } from '$lib/away/record';
	import type { OpenedStep } from './openStep.svelte';
	import { testPath } from '$lib/case/reason/testPath';

	/** A step that is being done: its timer, what is to be seen, and how it ended. */
	let {
		step,
		caseId,
		answered,
		onended
	}: {
		step: OpenedStep;
		caseId: string;
		/** When its answer was written down on its own page; null where it was not. */
		answered: number | null;
		onended: () => void;
	} = $props();
	const { test, beganAt, entryId } = untrack(() => step);
	let seen = $state<Record<string, string>>({});
	let because = $state('');
	let now = $state(beganAt);
	let saving = $state(false);
	keepDraft(
		untrack(() => `step:${caseId}:${test.id}`),
		() => (because === '' && Object.keys(seen).length === 0 ? null : { seen, because }),
		(kept) => ({ seen, because } = kept)
	);
	onMount(() => {
		const tick = () => (now = Date.now());
		tick();
		const timer = setInterval(tick, 1000);
		return () => clearInterval(timer);
	});
	const seconds = $derived(Math.max(0, Math.round((now - beganAt) / 1000)));
	const ran = $derived(`${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`);
	const told = $derived(test.asks.every(({ key }) => seen[key] !== undefined));

	/** Tenths, as the clock ran. */
	const minutesUntil = (at: number) => Math.min(1440, Math.max(0, Math.round((at - beganAt) / 6000) / 10));
	// The answer ends its step: nobody says twice that it is done.
	$effect(() => {
		if (answered !== null) untrack(() => void end('done'));
	});

	async function end(how: TestStep['how']) {
		saving = true;
		const payload: TestStep = {
			test: test.kind,
			place: test.place,
			name: test.name,
			station: test.station,
			from: 'suggested',
			how,
			seen: how === 'done' ? $state.snapshot(seen) : {},
			because: because.trim(),
			minutes: how === 'done' ? minutesUntil(answered ?? Date.now()) : null
		};
		const sent = await sendEntry(caseId, 'test-step', payload, entryId);
		saving = false;
		if (!sent) return;
		seen = {};
		because = '';
		onended();
	}
</script>

<div class="mt-3 border-t-2 border-ink pt-3">
	<p class="flex flex-wrap items-baseline justify-between gap-x-6">
		<strong class="text-lg">{test.name}</strong>
		<span class="num text-xl" role="timer" aria-label="This step has run for {ran}">{ran}</span>
	</p>
	{#if test.asks.length === 0}
		<p class="mt-1">
			It is done and judged on its own page.
			<a class="act ml-2" href="/cases/{caseId}/{testPath(test)}">Go there</a>
		</p>
	{:else}
		{#each test.asks as ask (ask.key)}
			<fieldset class="mt-2">
				<legend class="text-ink-2">{ask.words ? `What was seen, ${ask.words}` : 'What was seen'}</legend>
				<div class="mt-1 flex flex-wrap gap-2">
					{#each ask.choices as choice, nth (nth)}
						<button
							type="button"
							class="min-h-11 cursor-pointer rounded-md border px-4 {seen[ask.key] === choice.outcome
								? 'border-ink bg-neutral text-neutral-content'
								: 'border-ink-2'}"
							aria-pressed={seen[ask.key] === choice.outcome}
							onclick={() => (seen[ask.key] = choice.outcome)}>{choice.words}</button
						>
					{/each}
				</div>
			</fieldset>
		{/each}
	{/if}
	<label class="mt-3 block">
		<span class="text-ink-2">What else there is to say, or why it is set aside</span>
		<input class="field" bind:value={because} maxlength="300" />
	</label>
	<div class="mt-3 flex flex-wrap gap-3">
		<Act
			class="act"
			disabled={saving}
			whyNot={told ? null : 'Say what was seen first.'}
			onclick={() => void end('done')}>Done</Act
		>
		<button class="act-quiet" disabled={saving} onclick={() => void end('skipped')}>Skip it</button>
		<button class="act-quiet" disabled={saving} onclick={() => void end('cannot')}>Cannot be done here</button
		>
		<button class="act-quiet" disabled={saving} onclick={() => void end('not-available')}>Not at hand</button>
		<button class="act-quiet" disabled={saving} onclick={onended}>Close without a word</button>
	</div>
</div>
