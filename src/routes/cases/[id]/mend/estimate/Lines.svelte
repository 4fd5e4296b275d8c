<script lang="ts">
	import { untrack } from 'svelte';
	import { toast } from 'svelte-sonner';
	import { ulid } from 'ulid';
	import { sendEntry } from '$lib/away/record';
	import type { Estimate, Terms } from '$lib/case/entries/estimate/payload';
	import { MOST_LINES } from '$lib/case/entries/estimate/payload';
	import { moneyWords } from '$lib/core/money/money';
	import Act from '$lib/ui/Act.svelte';
	import { keepDraft } from '$lib/ui/draft.svelte';
	import Field from '$lib/ui/Field.svelte';
	import { refreshCase } from '$lib/ui/refresh';
	import { EstimateLines } from './lines.svelte';

	interface Props {
		caseId: string;
		/** As the shop asks now. */
		terms: Terms;
		/** The estimate that stands; null = none yet. */
		last: Estimate | null;
		/** What an estimate of the chosen way begins with. */
		start: Estimate['lines'];
		mayMake: boolean;
	}
	let { caseId, terms, last, start, mayMake }: Props = $props();
	const made = untrack(() => new EstimateLines(terms, last?.lines ?? start));
	let note = $state(untrack(() => last?.note ?? ''));
	let entryId = ulid();
	let saving = $state(false);
	const money = (amount: number) => moneyWords(amount, terms.currency);
	const PERCENT = 100;

	keepDraft<{ lines: typeof made.lines; note: string }>(
		untrack(() => `${caseId}:estimate`),
		() =>
			mayMake && JSON.stringify(made.asked) !== JSON.stringify(last?.lines ?? start)
				? { lines: made.lines, note }
				: null,
		(kept) => {
			made.lines = kept.lines;
			note = kept.note;
		}
	);

	async function save() {
		if (!made.asked || saving) return;
		saving = true;
		const payload = { ...terms, lines: made.asked, note: note.trim() };
		const done = await sendEntry(caseId, 'estimate', $state.snapshot(payload), entryId);
		saving = false;
		if (!done) return;
		entryId = ulid();
		sessionStorage.removeItem(`jaldi:draft:${caseId}:estimate`);
		if (done === 'stored') toast.success('The estimate is on the thread. Now ask the customer.');
		await refreshCase();
	}
</script>

<section class="mt-6" aria-labelledby="asked">
	<h2 id="asked" class="text-lg font-bold">{last ? 'What is asked' : 'What it would cost'}</h2>
	<div class="mt-2 border-t-2 border-ink">
		{#each made.lines as line, nth (line.id)}
			<div
				class="hair grid grid-cols-[minmax(0,1fr)_auto_2.75rem] items-center gap-x-4 gap-y-2 py-3 sm:grid-cols-[minmax(0,1fr)_9rem_8rem_3rem]"
			>
				<label class="max-sm:col-span-3"
					><span class="sr-only">What line {nth + 1} is for</span><input
						class="field"
						maxlength="200"
						readonly={!mayMake}
						bind:value={line.what}
						placeholder={line.kind === 'work' ? 'work' : 'part or material'}
					/></label
				>
				<label class="flex items-center gap-2"
					><input
						class="field num text-right"
						inputmode="decimal"
						maxlength="20"
						aria-label="{line.kind === 'work' ? 'Minutes' : 'Price without tax'} of line {nth + 1}"
						readonly={!mayMake}
						bind:value={line.count}
					/><span class="w-8 text-ink-2">{line.kind === 'work' ? 'min' : terms.currency}</span></label
				>
				<span class="num self-center text-right"
					>{made.amountOf(nth) === null ? '–' : money(made.amountOf(nth) ?? 0)}</span
				>
				{#if mayMake}<button
						type="button"
						class="size-11 cursor-pointer text-xl"
						aria-label="Take line {nth + 1} out"
						onclick={() => made.remove(line.id)}>×</button
					>{/if}
			</div>
		{:else}
			<p class="py-4">Nothing is asked for yet.</p>
		{/each}
	</div>
	{#if mayMake && made.lines.length < MOST_LINES}
		<div class="mt-3 flex flex-wrap gap-4">
			<button type="button" class="act-quiet" onclick={() => made.add('work')}>Work</button>
			<button type="button" class="act-quiet" onclick={() => made.add('thing')}>Part or material</button>
			{#if last && start.length > 0}<button type="button" class="act-quiet" onclick={() => made.begin(start)}
					>Begin anew from what is chosen</button
				>{/if}
		</div>
	{/if}
	<dl class="mt-4 ml-auto grid max-w-sm grid-cols-[1fr_auto] gap-x-6 gap-y-1">
		<dt>Work at {money(terms.ratePerHour)} an hour</dt>
		<dd class="num text-right">{money(made.sum.work)}</dd>
		<dt>Parts and material</dt>
		<dd class="num text-right">{money(made.sum.things)}</dd>
		<dt>Tax, {terms.taxBasisPoints / PERCENT} %</dt>
		<dd class="num text-right">{money(made.sum.tax)}</dd>
		<dt class="border-t-2 border-ink pt-1 text-lg font-bold">In all</dt>
		<dd class="num border-t-2 border-ink pt-1 text-right text-lg font-bold">{money(made.sum.total)}</dd>
	</dl>
	{#if mayMake}
		<div class="mt-4 max-w-3xl">
			<Field label="To say with it"
				><textarea
					class="field"
					rows="2"
					maxlength="2000"
					bind:value={note}
					placeholder="until when it holds, what may come to it"></textarea></Field
			>
			<div class="mt-3">
				<Act class={last ? 'act-quiet' : 'act'} disabled={saving} whyNot={made.whyNot()} onclick={save}
					>{last ? 'This is asked instead' : 'Put it on the case'}</Act
				>
			</div>
		</div>
	{:else if note}<p class="mt-3">{note}</p>{/if}
</section>
