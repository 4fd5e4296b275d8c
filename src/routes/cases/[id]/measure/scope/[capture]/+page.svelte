<script lang="ts">
	import { onMount, untrack } from 'svelte';
	import { goto } from '$app/navigation';
	import { saysWords } from '$lib/core/scope/words';
	import { valueWords } from '$lib/case/measure/measureWords';
	import Mark from '$lib/ui/Mark.svelte';
	import RingMap from '$lib/ui/RingMap.svelte';
	import SpanButtons from '$lib/ui/SpanButtons.svelte';
	import Trace from '$lib/ui/Trace.svelte';
	import { useKeys } from '$lib/ui/keys';
	import { CaptureView } from './captureView.svelte';
	import Rulers from './Rulers.svelte';

	let { data } = $props();
	const capture = $derived(data.capture);
	let view = $state<CaptureView | null>(null);
	/** So many teeth fit the first picture. */
	const FIRST_TEETH = 24;
	const FILTERS = [
		{ id: 'none', words: 'as it is' },
		{ id: 'mean', words: 'low-pass' },
		{ id: 'median', words: 'median' }
	] as const;

	onMount(() => {
		const made = new CaptureView(data.case.id, data.capture.id);
		view = made;
		const hz = untrack(() => Math.max(...data.capture.channels.map(({ medianHz }) => medianHz ?? 0)));
		void made.start(data.capture.teeth, hz > 0 ? FIRST_TEETH / hz : 1);
		return () => made.close();
	});
	$effect(() => {
		if (!view?.shape) return;
		// The span, the filter and what lies over it decide too.
		void [view.from, view.to, view.filter, view.over];
		void view.draw();
	});
	const names = $derived(capture.channels.map(({ name, probe }) => probe || name.replaceAll('_', ' ')));
	const trace = $derived(
		view?.view(
			capture.channels.map(({ findings }) => findings.flatMap(({ times }) => times)),
			names
		) ?? null
	);
	const said = $derived(
		capture.channels.flatMap(({ says }, i) => {
			const words = says ? saysWords(says) : [];
			return words.length > 0 ? [{ name: names[i] ?? '', words }] : [];
		})
	);
	const found = $derived(
		capture.channels.flatMap((channel, i) => channel.findings.map((finding) => ({ i, finding })))
	);
	const lookAt = (timeS: number) => {
		const hz = Math.max(1, ...capture.channels.map(({ medianHz }) => medianHz ?? 0));
		view?.see(timeS - 6 / hz, timeS + 14 / hz);
		document.getElementById('picture')?.scrollIntoView({ block: 'nearest' });
	};
	const to = (id: string | null) => id && void goto(`/cases/${data.case.id}/measure/scope/${id}`);
	const rings = $derived(
		(view?.analysis?.channels ?? []).flatMap(({ ring }, i) => {
			const channel = capture.channels[i];
			return ring && channel
				? [{ ring, name: names[i] ?? '', marked: channel.findings.flatMap(({ teeth }) => teeth) }]
				: [];
		})
	);

	type Channel = (typeof data.capture.channels)[number];
	const NUMBERS: [term: string, of: (channel: Channel) => string][] = [
		['kind', ({ kind }) => (kind === 'flat' ? 'no pulses' : kind)],
		[
			'levels',
			({ kind, lowV, highV }) =>
				kind === 'flat' ? valueWords(lowV, 'V') : `${valueWords(lowV, 'V')} and ${valueWords(highV, 'V')}`
		],
		['swing', ({ peakToPeakV }) => valueWords(peakToPeakV, 'V')],
		['swing at 100 Hz', ({ voltsPerHz }) => (voltsPerHz === null ? '–' : valueWords(voltsPerHz * 100, 'V'))],
		['pulses', ({ pulses }) => String(pulses)],
		['rate', ({ medianHz }) => (medianHz === null ? '–' : `${medianHz.toFixed(1)} Hz`)],
		[
			'a turn',
			({ teethPerRev }) => (teethPerRev === null ? 'not told by the signal' : `${teethPerRev} teeth`)
		]
	];
	const numbers = $derived(
		NUMBERS.map(([term, of]) => ({ term, values: capture.channels.map(of) })).filter(({ values }) =>
			values.some((value) => value !== '–')
		)
	);

	useKeys(
		{
			r: () => view?.toggleRulers(),
			'[': () => to(data.earlier),
			']': () => to(data.later)
		},
		{ r: 'rulers', '[ ]': 'the capture before, the one after' }
	);
</script>

<svelte:head><title>{data.case.number} {capture.name || 'Capture'} · Jaldi</title></svelte:head>
<section class="pt-5">
	<p class="flex flex-wrap items-center gap-x-3 text-ink-2">
		<a class="underline underline-offset-4" href="/cases/{data.case.id}/measure/scope">Oscilloscope</a>
		<span>{capture.time} by {capture.by}</span>
		<span class="ml-auto flex items-center gap-2">
			<button class="act-quiet" disabled={!data.earlier} onclick={() => to(data.earlier)}
				>Earlier <span class="key">[</span></button
			>
			<span class="num">{data.place[0]} of {data.place[1]}</span>
			<button class="act-quiet" disabled={!data.later} onclick={() => to(data.later)}
				>Later <span class="key">]</span></button
			>
		</span>
	</p>
	<h1 class="mt-1 text-2xl leading-tight font-bold">{capture.name || 'Capture'}</h1>
	<p class="mt-1 text-lg">{capture.verdict}</p>
	{#if capture.comparison}<p class="mt-1 text-ink-2">{capture.comparison}</p>{/if}
	{#each said as { name, words }, nth (nth)}
		<p class="mt-1"><strong>Sensor {name}.</strong> {words.join(' ')}</p>
	{/each}
</section>

{#if found.length > 0}
	<section class="mt-4" aria-label="What was found">
		<ul>
			{#each found as { i, finding }, nth (nth)}
				<li class="hair grid grid-cols-[1.75rem_minmax(0,1fr)_auto] items-center gap-3 py-2">
					<Mark state="suspect" size={18} />
					<span><strong>{names[i]}.</strong> {finding.text}</span>
					{#if finding.times.length > 0}<button
							class="act-quiet"
							onclick={() => lookAt((finding.times[0] ?? 0) - (view?.shape?.startS ?? 0))}>Show it</button
						>{/if}
				</li>
			{/each}
		</ul>
	</section>
{/if}

<section id="picture" class="mt-4" aria-label="Picture">
	{#if view?.trouble}<p role="alert" class="border-l-4 border-ink pl-3 font-semibold">{view.trouble}</p>{/if}
	<SpanButtons span={view}>
		<button class="act-quiet" aria-pressed={view?.rulers != null} onclick={() => view?.toggleRulers()}
			>Rulers <span class="key">r</span></button
		>
		<a class="act-quiet ml-auto" href="/cases/{data.case.id}/measure/scope/{capture.id}/csv" download>CSV</a>
	</SpanButtons>
	{#if trace}
		<div class="mt-2">
			<Trace
				view={trace}
				height={capture.channels.length > 1 ? 420 : 300}
				label="{capture.name || 'Capture'}: {names.join(', ')}"
				onspan={(from, to) => view?.see(from, to)}
				onrulers={(rulers) => view && (view.rulers = rulers)}
			/>
		</div>
		{#if view?.rulers}
			<Rulers
				rulers={view.rulers}
				lanes={names}
				teeth={capture.teeth}
				circumferenceM={data.circumferenceM}
				onlane={(lane) => view?.rulers && (view.rulers = { ...view.rulers, lane })}
			/>
		{/if}
		<div class="mt-1 flex flex-wrap items-center gap-x-6 gap-y-2">
			<label class="flex items-center gap-2">
				<span class="text-ink-2">Picture</span>
				<select
					class="field w-auto!"
					value={view?.filter}
					onchange={(event) => view && (view.filter = event.currentTarget.value as 'none')}
				>
					{#each FILTERS as { id, words } (id)}<option value={id}>{words}</option>{/each}
				</select>
			</label>
			{#if data.references.length > 0}
				<label class="flex items-center gap-2">
					<span class="text-ink-2">Lay over</span>
					<select
						class="field w-auto!"
						onchange={(event) => void view?.layOver(event.currentTarget.value || null)}
					>
						<option value="">nothing</option>
						{#each data.references as { id, words } (id)}<option value={id}>{words}</option>{/each}
					</select>
				</label>
			{/if}
			{#if view?.filter !== 'none'}<p class="font-semibold">
					Only the picture is filtered. What was found comes from the samples.
				</p>{/if}
		</div>
	{:else if !view?.trouble}
		<p class="py-10 text-ink-2">Fetching the samples …</p>
	{/if}
</section>

<section class="mt-5 flex flex-wrap gap-x-10 gap-y-6" aria-label="Channel by channel">
	{#each rings as { ring, name, marked }, nth (nth)}
		<div>
			<h2 class="text-lg font-bold">{name}, the ring</h2>
			<RingMap {ring} {marked} size={capture.channels.length > 1 ? 300 : 340} />
		</div>
	{/each}
</section>
<section class="mt-5 overflow-x-auto" aria-label="Numbers">
	<table class="w-full">
		<thead>
			<tr
				><td></td>{#each names as name, nth (nth)}<th class="py-1 pl-6 text-right font-bold" scope="col"
						>{name}</th
					>{/each}</tr
			>
		</thead>
		<tbody>
			{#each numbers as { term, values }, nth (nth)}
				<tr class="hair">
					<th class="py-1 text-left font-normal text-ink-2" scope="row">{term}</th>
					{#each values as value, i (i)}<td class="num py-1 pl-6 text-right">{value}</td>{/each}
				</tr>
			{/each}
		</tbody>
	</table>
</section>
