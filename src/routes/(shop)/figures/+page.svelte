<script lang="ts">
	import { STATIONS } from '$lib/case/progress/stations';
	import { moneyWords, digitsOf } from '$lib/core/money/money';
	import Bars from '$lib/ui/Bars.svelte';
	import Sideways from '$lib/ui/Sideways.svelte';

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
	const who = $derived(data.people.find(({ id }) => id === data.asked.by)?.name ?? null);
	const headline = $derived(
		signed === 0
			? `No case ${who ? `that ${who} mended ` : ''}is signed ${data.asked.span === 'ever' ? 'yet' : data.span}`
			: `${proven} of ${signed} signed cases are proven clear`
	);
	const SPANS = [
		{ id: 'ever', name: 'Ever' },
		{ id: 'year', name: 'This year' },
		{ id: '90-days', name: '90 days' },
		{ id: 'month', name: 'This month' }
	];
	const query = $derived((span: string) => {
		const { from, to, by } = data.asked;
		const asked = new URLSearchParams({
			span,
			...(span === 'days' ? { from, to } : {}),
			...(by ? { by } : {})
		});
		return `?${asked}`;
	});
	const saved = $derived(
		data.saved > 0 && data.currency
			? moneyWords(data.saved * 10 ** digitsOf(data.currency), data.currency)
			: null
	);
	const { estimated } = $derived(data);
	const AGAIN = { true: 'the same once more', false: 'something else', null: 'nobody can tell' };
	const minutes = $derived(data.minutes.map(({ name, value }) => ({ name: stationName(name), value })));
</script>

<svelte:head><title>Shop figures · Jaldi</title></svelte:head>
<h1 class="text-2xl leading-tight font-bold">{headline}</h1>
<p class="mt-1 text-lg text-ink-2">
	Counted from this shop’s own threads, {data.span}{who ? `, of what ${who} did` : ''}. Choose a number to see
	its cases.{data.isAll ? '' : ' Of the newest 20,000.'}
</p>
<div class="mt-4 flex flex-wrap items-end gap-x-6 gap-y-3">
	<nav aria-label="Time" class="flex flex-wrap gap-x-5">
		{#each SPANS as { id, name } (id)}
			<a
				href={query(id)}
				data-sveltekit-noscroll
				aria-current={data.asked.span === id ? 'page' : undefined}
				class="inline-flex min-h-11 items-center {data.asked.span === id
					? 'border-b-4 border-ink pt-1 font-bold'
					: 'text-ink-2'}">{name}</a
			>
		{/each}
	</nav>
	<form class="flex flex-wrap items-end gap-3" data-sveltekit-noscroll>
		<input type="hidden" name="span" value="days" />
		<label
			><span class="text-ink-2">From</span><input
				class="field"
				type="date"
				name="from"
				value={data.asked.from}
			/></label
		>
		<label
			><span class="text-ink-2">Until</span><input
				class="field"
				type="date"
				name="to"
				value={data.asked.to}
			/></label
		>
		{#if data.people.length > 0}
			<label
				><span class="text-ink-2">Whose work</span><select class="field" name="by" value={data.asked.by}>
					<option value="">everybody’s</option>
					{#each data.people as { id, name } (id)}<option value={id}>{name}</option>{/each}
				</select></label
			>
		{/if}
		<button class="act-quiet">Show those</button>
	</form>
	<a
		class="inline-flex min-h-11 items-center underline underline-offset-4"
		href="/figures/file{query(data.asked.span)}"
		download>Its cases as a table (CSV)</a
	>
</div>
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
					<span class="text-ink-2"
						>{WORDS[id]?.means}{id === 'avoided' && saved
							? `; ${saved} of parts by the library’s prices`
							: ''}</span
					></span
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
{#if data.cameBack.length > 0}
	<section class="mt-8" aria-labelledby="back">
		<h2 id="back" class="text-lg font-bold">What came back, and what mended it then</h2>
		<Sideways label="What came back" class="mt-1">
			<table class="w-full min-w-[620px] border-collapse text-left">
				<thead class="border-b-2 border-ink text-sm">
					<tr class="[&>th]:pr-6 [&>th]:pb-2 [&>th]:font-semibold">
						<th>Case</th><th>Was mended by</th><th>Then by</th><th>It was</th>
					</tr>
				</thead>
				<tbody>
					{#each data.cameBack as one (one.id)}
						<tr class="border-b border-rule align-top [&>td]:py-2 [&>td]:pr-6">
							<td
								><a class="num underline underline-offset-4" href="/cases/{one.id}">{one.number}</a>
								<span class="block text-sm text-ink-2">{one.nickname}</span></td
							>
							<td>{one.before}</td>
							<td>{one.after ?? 'nothing yet'}</td>
							<td>{AGAIN[`${one.again}`]}</td>
						</tr>
					{/each}
				</tbody>
			</table>
		</Sideways>
	</section>
{/if}
{#if estimated.cases > 0}
	<section class="mt-8" aria-labelledby="told">
		<h2 id="told" class="text-lg font-bold">Minutes that customers were told of, and that were used</h2>
		<p class="mt-1">
			<span class="num text-2xl font-bold">{Math.round(estimated.used)}</span> by the timer of
			<span class="num">{Math.round(estimated.estimated)}</span>
			estimated, on {estimated.cases === 1 ? 'one case' : `${estimated.cases} cases`} that have both.
			<span class="text-ink-2">The timer runs for steps that were begun on Reason.</span>
		</p>
	</section>
{/if}
<div class="mt-8 grid grid-cols-1 gap-10 lg:grid-cols-2">
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
