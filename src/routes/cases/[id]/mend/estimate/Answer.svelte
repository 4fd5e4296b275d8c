<script lang="ts">
	import { untrack } from 'svelte';
	import { toast } from 'svelte-sonner';
	import { ulid } from 'ulid';
	import { sendEntry } from '$lib/away/record';
	import { ANSWERED_HOW } from '$lib/case/entries/estimate-answered/payload';
	import { moneyRead, moneyWords } from '$lib/core/money/money';
	import Act from '$lib/ui/Act.svelte';
	import { keepDraft } from '$lib/ui/draft.svelte';
	import Field from '$lib/ui/Field.svelte';
	import { refreshCase } from '$lib/ui/refresh';

	interface Props {
		caseId: string;
		estimate: { id: string; currency: string; total: number };
		isAnswered: boolean;
	}
	/** What the customer said, who said it and how. */
	let { caseId, estimate, isAnswered }: Props = $props();
	let open = $state(false);
	let said = $state<'yes' | 'part' | 'no' | ''>('');
	let upTo = $state('');
	let who = $state('');
	let how = $state<(typeof ANSWERED_HOW)[number]>('by phone');
	let words = $state('');
	let entryId = ulid();
	let saving = $state(false);
	const draft = untrack(() => `${caseId}:answer`);
	// What they said is said of one sum: that is chosen anew where the sum has changed.
	keepDraft<{ upTo: string; who: string; how: typeof how; words: string }>(
		draft,
		() => (upTo === '' && who === '' && words === '' ? null : { upTo, who, how, words }),
		(kept) => ({ upTo, who, how, words } = kept)
	);
	const most = $derived(moneyRead(upTo, estimate.currency));
	const whyNot = $derived(
		said === ''
			? 'What did they say?'
			: said === 'part' && most === null
				? `Up to how much? An amount in ${estimate.currency}.`
				: who.trim() === ''
					? 'Who said it?'
					: null
	);
	const SAID = $derived([
		{ id: 'yes', words: `Yes, to ${moneyWords(estimate.total, estimate.currency)}` },
		{ id: 'part', words: 'Yes, up to …' },
		{ id: 'no', words: 'No' }
	] as const);

	async function save() {
		if (whyNot !== null || saving) return;
		saving = true;
		const done = await sendEntry(
			caseId,
			'estimate-answered',
			{
				estimate: estimate.id,
				agrees: said !== 'no',
				upTo: said === 'part' ? most : null,
				who: who.trim(),
				how,
				words: words.trim()
			},
			entryId
		);
		saving = false;
		if (!done) return;
		entryId = ulid();
		open = false;
		upTo = who = words = '';
		if (done === 'stored') toast.success('What they said is on the thread.');
		await refreshCase();
	}
</script>

<section class="mt-5 border-b border-rule pb-5" aria-labelledby="answer">
	{#if isAnswered && !open}
		<button type="button" class="act-quiet" onclick={() => (open = true)}>They said something else</button>
	{:else}
		<h2 id="answer" class="text-lg font-bold">What did the customer say?</h2>
		<fieldset class="mt-2 flex flex-wrap gap-3">
			<legend class="sr-only">Their answer</legend>
			{#each SAID as one (one.id)}
				<label
					class="flex min-h-14 cursor-pointer items-center rounded-md border px-5 text-lg has-focus-visible:outline-3 {said ===
					one.id
						? 'border-ink bg-neutral font-semibold text-neutral-content'
						: 'border-ink-2'}"
					><input
						class="sr-only"
						type="radio"
						name="said"
						value={one.id}
						bind:group={said}
					/>{one.words}</label
				>
			{/each}
		</fieldset>
		<div class="mt-3 grid max-w-3xl gap-4 sm:grid-cols-3">
			{#if said === 'part'}<Field label="Up to, with tax"
					><input class="field num text-right" inputmode="decimal" maxlength="20" bind:value={upTo} /></Field
				>{/if}
			<Field label="Who said it" hint="their part in it, no name: names stand with the customer"
				><input class="field" maxlength="80" placeholder="the owner" bind:value={who} /></Field
			>
			<Field label="How">
				<select class="field" bind:value={how}>
					{#each ANSWERED_HOW as one (one)}<option value={one}>{one}</option>{/each}
				</select>
			</Field>
			<Field label="In their words"><input class="field" maxlength="2000" bind:value={words} /></Field>
		</div>
		<div class="mt-3"><Act class="act" disabled={saving} {whyNot} onclick={save}>Write it down</Act></div>
	{/if}
</section>
