<script lang="ts">
	import AgreedLine from '$lib/ui/AgreedLine.svelte';
	import { browser } from '$app/environment';
	import { goto } from '$app/navigation';
	import { refreshCase } from '$lib/ui/refresh';
	import { lowerFirst, positionWords, upperFirst } from '$lib/case/words';
	import Mark from '$lib/ui/Mark.svelte';
	import MendNav from '../MendNav.svelte';
	import Sheet from './Sheet.svelte';

	let { data } = $props();
	const headline = $derived(data.sheet ? `Fitting: ${lowerFirst(data.sheet.name)}` : 'No sheet');
	const move = (sheet: string, place: string | null) =>
		void goto(`?sheet=${sheet}${place ? `&place=${place}` : ''}`, {
			replaceState: true,
			noScroll: true,
			keepFocus: true
		});
</script>

<svelte:head><title>{data.case.number} Fit · Jaldi</title></svelte:head>
<section class="pt-5">
	<h1 class="text-2xl font-bold">{headline}</h1>
	<p class="mt-1 text-ink-2">
		Ticked off while it is done, not afterwards. The maker’s procedure and torques are what counts: the values
		here are examples.
	</p>
	<MendNav caseId={data.case.id} here="/fit" />
	<AgreedLine words={data.openWithCustomer} href="/cases/{data.case.id}/mend/estimate" />
	<div class="mt-4 grid gap-4 sm:grid-cols-2">
		<label class="block"
			><span class="mb-1 block font-semibold">Sheet</span>
			<select
				class="field"
				value={data.sheet?.id}
				onchange={(event) => move(event.currentTarget.value, data.place)}
			>
				{#each data.sheets as { id, name } (id)}<option value={id}>{name}</option>{/each}
			</select></label
		>
		{#if data.places.length > 0}
			<label class="block"
				><span class="mb-1 block font-semibold">Where</span>
				<select
					class="field"
					value={data.place}
					onchange={(event) => move(data.sheet?.id ?? '', event.currentTarget.value)}
				>
					{#each data.places as { id, words } (id)}<option value={id}>{upperFirst(words)}</option>{/each}
				</select></label
			>
		{/if}
	</div>
</section>
{#if browser && data.sheet && data.canWrite && !data.case.signed}
	{#key `${data.sheet.id}@${data.place}`}
		<Sheet {data} sheet={data.sheet} onsaved={() => void refreshCase()} />
	{/key}
{/if}
{#if data.done.length > 0}
	<section class="mt-6 border-t border-rule pt-4" aria-labelledby="fitted">
		<h2 id="fitted" class="text-lg font-bold">Fitted</h2>
		{#each data.done as { id, name, place, lacks, time, by } (id)}
			<p class="hair flex flex-wrap items-baseline gap-x-3 py-2">
				<span class="self-center"><Mark state={lacks.length === 0 ? 'good' : 'bad'} size={18} /></span>
				<span class="font-semibold">{name}{place ? `, ${positionWords(place)}` : ''}</span>
				<span class="text-sm text-ink-2"><span class="num">{time}</span> {by}</span>
				{#if lacks.length > 0}<span class="w-full pl-7">{lacks.join('; ')}</span>{/if}
			</p>
		{/each}
	</section>
{/if}
