<script lang="ts">
	import { enhance } from '$app/forms';
	import { policyAt } from '$lib/core/path/policy';

	/** How sure the shop wants to be before a part is ordered, and what being wrong would cost. */
	let {
		policy,
		mayLead,
		dearest
	}: {
		policy: { proving: number };
		mayLead: boolean;
		dearest: { name: string; minutes: number; price: number; part: boolean } | null;
	} = $props();
	let percent = $derived(Math.round(policy.proving * 100));
	const chosen = $derived(policyAt(percent / 100));
	const words = $derived(
		percent < 25
			? 'on track record'
			: percent < 60
				? 'between track record and proof'
				: percent < 90
					? 'mostly proven'
					: 'prove first'
	);
</script>

<section class="mt-6 border-t border-rule pt-4" aria-labelledby="policy">
	<h2 id="policy" class="text-lg font-bold">This shop orders parts {words}</h2>
	<p>
		Order parts at <span class="num">{(chosen.confidence * 100).toFixed(0)} %</span> and above. A wrong one
		counts as <span class="num">{Math.round(chosen.wrongPartMinutes)}</span> min beside its work and price{#if dearest?.part}:
			if “{dearest.name}” were wrong, <span class="num">{dearest.minutes}</span> min and a price of
			<span class="num">{dearest.price}</span> would be gone{/if}.
	</p>
	{#if mayLead}
		<form method="POST" action="?/policy" use:enhance class="mt-2 flex flex-wrap items-center gap-4">
			<span class="text-ink-2">track record</span>
			<input
				type="range"
				class="range min-w-52 flex-1 range-sm"
				name="proving"
				min="0"
				max="100"
				step="5"
				bind:value={percent}
				aria-label="From track record to prove first"
			/>
			<span class="text-ink-2">prove first</span>
			<button class="act-quiet">Hold to this</button>
		</form>
	{/if}
</section>
