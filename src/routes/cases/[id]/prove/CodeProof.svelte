<script lang="ts">
	import type { MarkState } from '$lib/core/prove/proof';
	import AskOnce from '$lib/ui/AskOnce.svelte';
	import Chain from '$lib/ui/Chain.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import { getCaseWork } from '../caseWork.svelte';
	import ComesAndGoes from './ComesAndGoes.svelte';
	import LetGo from './LetGo.svelte';
	import type { PageData } from './$types';
	import Sideways from '$lib/ui/Sideways.svelte';
	import { said } from '$lib/ui/units';

	/** One code's proof as a chain of marks, what it says, and every reason for it. */
	let { code, data }: { code: PageData['codes'][number]; data: PageData } = $props();
	const work = getCaseWork();
	const SAYS: Record<MarkState, string> = { good: 'yes', open: 'not yet', suspect: 'in doubt', bad: 'no' };
	const STEP = 84;
	const proof = $derived(code.proof);
	const shown = $derived(proof.marks.filter(({ state }) => state === 'good').length);
	/** What needs nobody now is one line, and opens. */
	const folded = $derived(proof.verdict === 'consequence' || proof.verdict === 'proven-clear');
	const canAct = $derived(data.canWrite && !data.case.signed);
	const clearable = $derived(
		code.mayBeCleared && canAct && data.clear.modules.some((m) => m.address === code.address)
	);
</script>

{#snippet head()}
	<h2 class="min-w-0 text-lg leading-tight">
		<span class="num">{code.text}</span> <span class="pl-1 font-bold">{code.title}</span>
		<span class="text-sm text-ink-2">{code.moduleName}</span>
	</h2>
	<p class="text-lg leading-tight font-bold" data-verdict>{proof.words}</p>
{/snippet}
{#snippet body()}
	<p class="mt-1 text-ink-2">{said(proof.because)}{code.needs ? ` It needs ${said(code.needs)}.` : ''}</p>
	<Sideways label="What its proof is made of" class="mt-3 pb-1">
		<Chain
			step={STEP}
			size={20}
			links={proof.marks.map(({ name, state }) => ({
				state,
				word: name,
				says: `${name}: ${SAYS[state]}`
			}))}
		/>
	</Sideways>
	{#if proof.comes}
		<ComesAndGoes {code} comes={proof.comes} {data} />
	{/if}
	<details class="mt-1">
		<summary class="min-h-11 cursor-pointer py-2.5"
			>{shown} of {proof.marks.length} shown: every reason</summary
		>
		<ul class="pb-2">
			{#each proof.marks as { name, state, words, by }, nth (nth)}
				<li class="hair grid grid-cols-[1.5rem_7rem_minmax(0,1fr)_auto] items-start gap-x-3 py-2">
					<span class="mt-0.5"><Mark {state} size={18} /></span>
					<span class="font-semibold">{name}</span>
					<span>{words}</span>
					<span class="text-sm text-ink-2"
						>{#if by}<span class="num">{by.time}</span> {by.author}{/if}</span
					>
				</li>
			{/each}
		</ul>
	</details>
	{#if canAct && data.mayLetGo && proof.waivable.length > 0}
		<LetGo {code} {data} />
	{/if}
	{#if clearable}
		<AskOnce
			class="min-h-11 cursor-pointer text-sm text-ink-2 underline underline-offset-4"
			label="Clear only {code.moduleName}"
			ask="The codes of {code.moduleName} will be gone from the vehicle. They are recorded here."
			yes="Clear {code.moduleName} now"
			whyNot={work.whyNot}
			onyes={() => work.begin({ do: 'clear', only: code.address })}
		/>
	{/if}
{/snippet}

<article class="border-t border-rule" aria-label="{code.text} in {code.moduleName}">
	{#if folded}
		<details>
			<summary
				class="flex min-h-12 cursor-pointer list-none flex-wrap items-center justify-between gap-x-6 gap-y-1 py-2"
				>{@render head()}</summary
			>
			<div class="pb-4">{@render body()}</div>
		</details>
	{:else}
		<div class="py-4">
			<div class="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-1">{@render head()}</div>
			{@render body()}
		</div>
	{/if}
</article>
