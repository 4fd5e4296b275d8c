<script lang="ts">
	import type { ModuleView } from '$lib/case/codes/scanView';
	import { codeKey } from '$lib/core/codes/codeKey';
	import CodeReading from './CodeReading.svelte';

	/** What one module said. */
	let {
		module,
		caseId,
		scanId,
		comes
	}: {
		module: ModuleView;
		caseId: string;
		scanId: string;
		/** Wheel of each code that comes and goes, by its key. */
		comes: Record<string, string>;
	} = $props();
	const spaced = (hex: string) => hex.replace(/../g, '$& ').trim();
</script>

<section class="border-t border-rule py-4" aria-label={module.name}>
	<div class="flex flex-wrap items-baseline justify-between gap-x-4">
		<h2 class="text-lg font-bold">
			{module.name}
			{#if module.answered && !module.trouble && module.codes.length === 0}
				<span class="pl-2 text-base font-normal text-ink-2">answers, no codes</span>
			{/if}
		</h2>
		<p class="num text-sm text-ink-2">{module.address}{module.software ? ` · ${module.software}` : ''}</p>
	</div>
	{#if !module.answered}
		<p class="mt-1">
			<strong>Silent.</strong>
			{module.trouble} A silent module is a finding of its own.
		</p>
	{:else if module.trouble}
		<p class="mt-1 font-semibold">{module.trouble}</p>
	{/if}
	{#each module.codes as code, nth (nth)}<CodeReading
			{code}
			{caseId}
			comesAt={comes[codeKey({ address: module.address, dtc: code.dtc })] ?? null}
		/>{/each}
	{#if module.exchanges.length > 0}
		<details>
			<summary
				class="inline-flex min-h-11 cursor-pointer items-center text-sm text-ink-2 underline underline-offset-4"
				>Bytes on the line</summary
			>
			<a
				class="inline-flex min-h-11 items-center text-sm underline underline-offset-4"
				href="/cases/{caseId}/read/line/{scanId}/{module.address}">With every field named</a
			>
			<ol class="num mt-1 space-y-1 overflow-x-auto text-sm">
				{#each module.exchanges as { request, response, note }, i (i)}
					<li class="grid grid-cols-[1.5rem_1fr] [overflow-wrap:anywhere]">
						<span aria-label="asked">→</span><span>{spaced(request)}</span>
						<span aria-label="answered">←</span><span
							>{response ? spaced(response) : '(nothing)'}
							{#if note}<span class="font-sans text-ink-2">{note}</span>{/if}</span
						>
					</li>
				{/each}
			</ol>
		</details>
	{/if}
</section>
