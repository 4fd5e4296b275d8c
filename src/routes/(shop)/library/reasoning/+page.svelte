<script lang="ts">
	import { enhance } from '$app/forms';
	import { upperFirst } from '$lib/case/words';

	let { data, form } = $props();
	const changed = $derived(
		data.tests.filter((t) => t.minutes !== t.library).length +
			data.repairs.filter((r) => r.minutes !== r.library.minutes || r.price !== r.library.price).length +
			data.odds.filter((o) => o.weight !== o.library).length
	);
</script>

<svelte:head><title>Reasoning numbers · Jaldi</title></svelte:head>
<h1 class="text-2xl leading-tight font-bold">
	{changed === 0
		? 'All numbers are the library’s own'
		: `${changed} ${changed === 1 ? 'number is' : 'numbers are'} this shop’s own`}
</h1>
<p class="mt-1 text-lg text-ink-2">
	What tests and repairs take, and how often one fault is met against another. A lead changes them; what the
	shop has timed and proven counts on top. State <span class="num">{data.version}</span>.
</p>
{#if form?.error}<p class="mt-3 border-l-4 border-ink pl-4 font-semibold" role="alert">{form.error}</p>{/if}
{#if form?.saved}<p class="mt-3" role="status">Saved as state <span class="num">{form.saved}</span>.</p>{/if}

<form
	method="POST"
	action="?/save"
	use:enhance={() =>
		({ update }) =>
			update({ reset: false })}
	class="mt-4"
>
	<input type="hidden" name="version" value={data.version} />
	{#snippet number(name: string, label: string, value: number, library: number)}
		<input
			class="field num w-24 text-right {value === library ? '' : 'font-bold'}"
			{name}
			{value}
			inputmode="decimal"
			aria-label={label}
			readonly={!data.mayEdit}
		/>
	{/snippet}
	<section aria-labelledby="tests">
		<h2 id="tests" class="text-lg font-bold">Minutes of tests</h2>
		<div class="overflow-x-auto">
			<table class="w-full max-w-4xl min-w-[560px] text-left">
				<tbody>
					{#each data.tests as test (test.id)}
						<tr class="hair [&>td]:py-1 [&>td]:pr-4">
							<td>{test.name}</td>
							<td class="text-ink-2"
								>{test.timed ? `timed here ${test.timed.times} ×, ${test.timed.mean.toFixed(1)} min` : ''}</td
							>
							<td class="num text-right text-ink-2">library {test.library}</td>
							<td class="text-right"
								>{@render number(`test/${test.id}`, `Minutes: ${test.name}`, test.minutes, test.library)}</td
							>
						</tr>
					{/each}
				</tbody>
			</table>
		</div>
	</section>
	<section aria-labelledby="repairs" class="mt-6">
		<h2 id="repairs" class="text-lg font-bold">Minutes and prices of repairs</h2>
		<div class="overflow-x-auto">
			<table class="w-full max-w-4xl min-w-[560px] text-left">
				<tbody>
					{#each data.repairs as repair (repair.id)}
						<tr class="hair [&>td]:py-1 [&>td]:pr-4">
							<td>{upperFirst(repair.name)}{repair.part ? ', a part' : ''}</td>
							<td class="num text-right text-ink-2"
								>library {repair.library.minutes} min, {repair.library.price}</td
							>
							<td class="text-right"
								>{@render number(
									`repair/${repair.id}/minutes`,
									`Minutes: ${repair.name}`,
									repair.minutes,
									repair.library.minutes
								)}</td
							>
							<td class="text-right"
								>{@render number(
									`repair/${repair.id}/price`,
									`Price: ${repair.name}`,
									repair.price,
									repair.library.price
								)}</td
							>
						</tr>
					{/each}
				</tbody>
			</table>
		</div>
	</section>
	<section aria-labelledby="odds" class="mt-6">
		<h2 id="odds" class="text-lg font-bold">How often each fault is met, against one that is usual</h2>
		<div class="overflow-x-auto">
			<table class="w-full max-w-4xl min-w-[560px] text-left">
				<tbody>
					{#each data.odds as fault (fault.id)}
						<tr class="hair [&>td]:py-1 [&>td]:pr-4">
							<td>{upperFirst(fault.name)}</td>
							<td class="text-ink-2">{fault.link.replace('-', ' ')}</td>
							<td class="num text-right text-ink-2">library {fault.library}</td>
							<td class="text-right"
								>{@render number(`odds/${fault.id}`, `Odds: ${fault.name}`, fault.weight, fault.library)}</td
							>
						</tr>
					{/each}
				</tbody>
			</table>
		</div>
	</section>
	{#if data.mayEdit}<button class="act mt-4">Save these numbers</button>{/if}
</form>

<section class="mt-8 border-t border-rule pt-4" aria-labelledby="apart">
	<h2 id="apart" class="text-lg font-bold">Which faults can no test tell apart?</h2>
	<form class="mt-2 flex flex-wrap items-end gap-3">
		<label
			><span class="text-ink-2">Vehicle</span>
			<select class="field" name="vehicle" value={data.checked?.id ?? data.vehicles[0]?.id}>
				{#each data.vehicles as { id, name } (id)}<option value={id}>{name}</option>{/each}
			</select></label
		>
		<button class="act-quiet">Check it</button>
	</form>
	{#if data.checked}
		<p class="mt-2">
			{data.checked.pairs.length === 0
				? 'Every fault is told apart from every other at its place by some test.'
				: `${data.checked.pairs.length} pairs are not told apart; where one repair cures both it does not matter.`}
		</p>
		<ul>
			{#each data.checked.pairs as pair, i (i)}
				<li class="hair py-1">
					{upperFirst(pair.where)}: {pair.a} / {pair.b}
					<span class="text-ink-2"
						>{pair.sameRepair ? 'one repair cures both' : 'the repairs differ: only a repair tells'}</span
					>
				</li>
			{/each}
		</ul>
	{/if}
</section>
