<script lang="ts">
	import { STATIONS } from '$lib/case/progress/stations';
	import Bars from '$lib/ui/Bars.svelte';

	let { data } = $props();
	const WORDS: Record<string, { name: string; means: string }> = {
		proven: { name: 'proven clear', means: 'signed with every code proven' },
		released: { name: 'released, not all proven', means: 'a lead let something go, by name' },
		unproven: { name: 'closed unproven', means: 'a lead closed it with things open, and said why' },
		comebacks: { name: 'came back', means: 'a case was opened that begins where they ended' },
		avoided: {
			name: 'good sensors not replaced',
			means: 'a wheel code stood, and what was proven was something else'
		}
	};
	const stationName = (id: string) => STATIONS.find((one) => one.id === id)?.name ?? id;
	let chosen = $state<string | null>(null);
	const lists = $derived([
		...data.figures.map(({ id, cases }) => ({ id, title: WORDS[id]?.name ?? id, cases })),
		...data.minutes.map(({ name, cases }) => ({
			id: `minutes ${name}`,
			title: `timed at ${stationName(name)}`,
			cases
		})),
		...data.codes.map(({ name, cases }) => ({ id: `code ${name}`, title: name, cases }))
	]);
	const shown = $derived(lists.find(({ id }) => id === chosen) ?? null);
	const signed = $derived(data.figures[0]?.of ?? 0);
	const proven = $derived(data.figures[0]?.value ?? 0);
	const headline = $derived(
		signed === 0 ? 'No case is signed yet' : `${proven} of ${signed} signed cases are proven clear`
	);
	const minutes = $derived(data.minutes.map(({ name, value }) => ({ name: stationName(name), value })));
</script>

<svelte:head><title>Shop figures · Jaldi</title></svelte:head>
<h1 class="text-2xl leading-tight font-bold">{headline}</h1>
<p class="mt-1 text-lg text-ink-2">Counted from this shop’s own threads. Choose a number to see its cases.</p>
<ul class="mt-5 border-t-2 border-ink">
	{#each data.figures as { id, value, of } (id)}
		<li class="hair">
			<button
				class="grid w-full cursor-pointer grid-cols-[7rem_minmax(0,1fr)] items-baseline gap-4 py-3 text-left"
				aria-pressed={chosen === id}
				onclick={() => (chosen = chosen === id ? null : id)}
			>
				<span class="num text-3xl font-bold"
					>{value}<span class="text-lg font-normal text-ink-2"> / {of}</span></span
				>
				<span
					><span class="text-lg font-semibold">{WORDS[id]?.name}</span>
					<span class="text-ink-2">{WORDS[id]?.means}</span></span
				>
			</button>
		</li>
	{/each}
</ul>
{#if shown}
	<section class="mt-5" aria-labelledby="cases">
		<h2 id="cases" class="text-lg font-bold">Cases: {shown.title}</h2>
		<ul class="mt-1">
			{#each shown.cases as { id, number, nickname } (id)}
				<li class="hair">
					<a class="flex min-h-11 items-center gap-4" href="/cases/{id}"
						><span class="num">{number}</span> <span class="underline underline-offset-4">{nickname}</span></a
					>
				</li>
			{:else}<li class="py-2 text-ink-2">There is none.</li>{/each}
		</ul>
	</section>
{/if}
<div class="mt-8 grid gap-10 lg:grid-cols-2">
	<section aria-labelledby="minutes">
		<h2 id="minutes" class="text-lg font-bold">Minutes by station</h2>
		{#if minutes.length === 0}
			<p class="mt-1 text-ink-2">No step was timed yet: begin one on Reason, and its minutes come here.</p>
		{:else}
			<Bars
				bars={minutes}
				unit="min"
				label={`Minutes by station: ${minutes.map(({ name, value }) => `${name} ${value.toFixed(0)}`).join(', ')}`}
				onchoose={(name) =>
					(chosen = `minutes ${data.minutes.find((one) => stationName(one.name) === name)?.name}`)}
			/>
		{/if}
	</section>
	<section aria-labelledby="codes">
		<h2 id="codes" class="text-lg font-bold">Codes by type of vehicle</h2>
		{#if data.codes.length === 0}
			<p class="mt-1 text-ink-2">No case has a code yet.</p>
		{:else}
			<Bars
				bars={data.codes}
				unit=""
				label={`Cases by code and type: ${data.codes.map(({ name, value }) => `${name} ${value}`).join(', ')}`}
				onchoose={(name) => (chosen = `code ${name}`)}
			/>
			<ul class="sr-only">
				{#each data.codes as { name, value }, nth (nth)}
					<li><button onclick={() => (chosen = `code ${name}`)}>{name}: {value}</button></li>
				{/each}
			</ul>
		{/if}
	</section>
</div>
