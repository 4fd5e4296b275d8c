<script lang="ts">
	import { upperFirst } from '$lib/case/words';
	import type { CodeView } from '$lib/case/codes/scanView';
	import { said } from '$lib/ui/units';

	/** One code in plain words; its bits and bytes are a click away. */
	let {
		code,
		caseId,
		comesAt
	}: {
		code: CodeView;
		caseId: string;
		/** Its wheel, where it comes and goes. */
		comesAt: string | null;
	} = $props();
</script>

<article class="mt-3 grid gap-x-8 gap-y-2 lg:grid-cols-[minmax(0,1fr)_19rem]">
	<div>
		<h3 class="text-lg leading-tight">
			<a
				class="num underline decoration-1 underline-offset-4"
				href="/codes/{code.slug}?status={code.statusByte}&case={caseId}">{code.text}</a
			> <span class="pl-1 font-bold">{code.title}</span>
		</h3>
		<p class="mt-1">
			{code.failureType ? `${code.failureType}. ` : ''}<strong
				>{code.failureType ? code.phrase : upperFirst(code.phrase)}</strong
			>{code.counters ? `, ${code.counters}` : ''}.
		</p>
		{#if code.meaningless}
			<p class="mt-1">
				<a class="underline underline-offset-4" href="/codes/{encodeURIComponent(code.number)}/write"
					>Write down what its maker says of it</a
				>, and it counts like any other.
			</p>
		{/if}
		{#if code.madeByUs}
			<p class="mt-1">
				<strong>Made by us</strong>: one of our tests had this circuit open, or turned another wheel while
				this one stood. Clear it, do not chase it.
			</p>
		{:else if comesAt}
			<p class="mt-1 text-ink-2">At rest everything reads well: it is made to come, and not measured.</p>
			<a class="act-quiet mt-2" href="/cases/{caseId}/measure/provoke?at={comesAt}">It comes and goes</a>
		{:else if code.checkFirst}
			<p class="mt-1 text-ink-2">First: {code.checkFirst}</p>
		{/if}
		{#each code.troubles as trouble, nth (nth)}<p class="font-semibold">{trouble}</p>{/each}
		<details>
			<summary
				class="inline-flex min-h-11 cursor-pointer items-center text-sm text-ink-2 underline underline-offset-4"
				>Status {code.statusByte}, bit by bit</summary
			>
			<p class="text-sm text-ink-2">
				{code.origin}{#if code.bytes}; bytes <span class="num">{code.bytes}</span>{/if}
			</p>
			<ol class="mt-1 text-sm" start="0">
				{#each code.bits as { words, set }, bit (bit)}
					<li class="grid grid-cols-[2rem_2.5rem_1fr] {set ? 'font-semibold' : 'text-ink-2'}">
						<span class="num">{bit}</span><span>{set ? 'yes' : 'no'}</span><span>{words}</span>
					</li>
				{/each}
			</ol>
		</details>
	</div>
	{#each code.snapshots as snapshot, nth (nth)}
		<div class="lg:col-start-2">
			<p class="text-sm text-ink-2">Snapshot, {snapshot.title}</p>
			<dl>
				{#each snapshot.values as value (value.id)}
					<div class="flex justify-between gap-3 border-b border-rule py-0.5">
						<dt>{value.name}</dt>
						<dd class="num text-right" title="{value.id}: {value.raw}">{said(value.text)}</dd>
					</div>
				{/each}
			</dl>
		</div>
	{/each}
</article>
