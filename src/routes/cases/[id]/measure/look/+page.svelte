<script lang="ts">
	import { page } from '$app/state';
	import { refreshCase } from '$lib/ui/refresh';
	import Mark from '$lib/ui/Mark.svelte';
	import { upperFirst } from '$lib/case/words';
	import BenchNav from '../BenchNav.svelte';
	import Inspect from './Inspect.svelte';
	import { shown } from '$lib/ui/units';

	let { data } = $props();
	/** Sent here for one test, it is the one that is open. */
	let picked = $derived(page.url.searchParams.get('test'));
	const mayWrite = $derived(data.canWrite && !data.case.signed);
	const one = $derived(
		data.inspections.find(({ id }) => id === picked) ??
			data.inspections.find(({ last }) => !last) ??
			data.inspections[0]
	);
	const STATE = { good: 'good', bad: 'bad', unsure: 'suspect' } as const;
	const bad = $derived(data.inspections.filter(({ last }) => last?.result === 'bad'));
	const looked = $derived(data.inspections.filter(({ last }) => last).length);
	const where = $derived(upperFirst(data.atWords));
	const headline = $derived(
		bad.length > 0
			? `${where}: ${bad.map(({ name, last }) => `${name.toLowerCase()}, ${last?.found.join(', ')}`).join('; ')}`
			: looked === 0
				? `${where}: nothing looked at yet`
				: `${where}: ${looked} of ${data.inspections.length} looked at, nothing bad`
	);
</script>

<svelte:head><title>{data.case.number} Look · Jaldi</title></svelte:head>
<section class="pt-5">
	<h1 class="text-2xl leading-tight font-bold">{headline}</h1>
	<BenchNav {data} here="/look" />
</section>

{#if one}
	{#key `${data.at} ${one.id}`}
		<Inspect
			{one}
			caseId={data.case.id}
			at={data.at}
			usualGapMm={data.gapMm}
			{mayWrite}
			onsaved={() => {
				picked = null;
				void refreshCase();
			}}
		/>
	{/key}
{/if}

<section class="mt-6" aria-labelledby="list">
	<h2 id="list" class="text-lg font-bold">Everything worth a look here</h2>
	<ul>
		{#each data.inspections as each (each.id)}
			<li class="hair">
				<button
					class="grid min-h-12 w-full cursor-pointer grid-cols-[1.75rem_minmax(0,1fr)_auto] items-center gap-3 py-1 text-left"
					onclick={() => (picked = each.id)}
				>
					<Mark state={each.last ? STATE[each.last.result] : 'open'} size={18} />
					<span class={each.id === one?.id ? 'font-bold' : ''}
						>{each.name}{#if each.last}<span class="font-normal text-ink-2"
								>, {each.last.found.join(', ') ||
									(each.last.result === 'good' ? 'nothing wrong' : 'not sure')}{each.last.gapMm === null
									? ''
									: `, ${shown(each.last.gapMm, 'length', 1)}`}</span
							>{/if}</span
					>
					<span class="num text-ink-2">{each.last ? each.last.time : `${each.minutes} min`}</span>
				</button>
				{#if each.last && each.last.photos.length > 0}
					<div class="flex flex-wrap gap-2 pb-2 pl-10">
						{#each each.last.photos as { id } (id)}
							<a href="/cases/{data.case.id}/measure/photo/{id}"
								><img
									class="h-20 w-28 object-cover"
									src="/cases/{data.case.id}/measure/photo/{id}"
									alt="{each.name}, as it was seen"
									loading="lazy"
								/></a
							>
						{/each}
					</div>
				{/if}
			</li>
		{/each}
	</ul>
</section>
