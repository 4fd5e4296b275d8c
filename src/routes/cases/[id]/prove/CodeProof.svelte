<script lang="ts">
	import type { MarkState, ProofMark } from '$lib/core/prove/codeVerdict';
	import Chain from '$lib/ui/Chain.svelte';
	import { getCaseWork } from '../caseWork.svelte';

	interface Code {
		text: string;
		title: string;
		moduleName: string;
		address: string;
		verdict: string;
		because: string;
		mayBeCleared: boolean;
		needs: string | null;
		marks: { mark: ProofMark; state: MarkState }[];
	}
	/** One code's proof as a chain of six marks, and what it says. */
	let {
		code,
		data
	}: {
		code: Code;
		data: { canWrite: boolean; case: { signed: boolean }; clear: { modules: { address: string }[] } };
	} = $props();
	const work = getCaseWork();
	const WORDS: Record<ProofMark, string> = {
		recorded: 'recorded',
		mended: 'mended',
		cleared: 'cleared',
		'key-cycled': 'key cycled',
		'test-ran': 'its test ran',
		'stayed-away': 'stayed away'
	};
	const SAYS: Record<MarkState, string> = { good: 'yes', open: 'not yet', suspect: 'in doubt', bad: 'no' };
	const clearable = $derived(
		code.mayBeCleared &&
			data.canWrite &&
			!data.case.signed &&
			data.clear.modules.some((m) => m.address === code.address)
	);
</script>

<article
	class="grid gap-x-6 gap-y-2 border-t border-rule py-4 xl:grid-cols-[minmax(0,1fr)_17rem]"
	aria-label="{code.text} in {code.moduleName}"
>
	<div class="min-w-0">
		<h2 class="text-lg leading-tight">
			<span class="num">{code.text}</span> <span class="pl-1 font-bold">{code.title}</span>
			<span class="text-sm text-ink-2">{code.moduleName}</span>
		</h2>
		<div class="mt-3 overflow-x-auto pb-1">
			<Chain
				step={92}
				size={20}
				links={code.marks.map(({ mark, state }) => ({
					state,
					word: WORDS[mark],
					says: `${WORDS[mark]}: ${SAYS[state]}`
				}))}
			/>
		</div>
	</div>
	<div>
		<p class="text-lg leading-tight font-bold" data-verdict>{code.verdict}</p>
		<p class="mt-1 text-sm text-ink-2">{code.because}{code.needs ? ` It needs ${code.needs}.` : ''}</p>
		{#if clearable}
			<button
				class="min-h-11 cursor-pointer text-sm text-ink-2 underline underline-offset-4"
				disabled={work.busy}
				onclick={() => work.begin({ do: 'clear', only: code.address })}>Clear only {code.moduleName}</button
			>
		{/if}
	</div>
</article>
