<script lang="ts">
	import { onMount, untrack } from 'svelte';
	import { isWheel } from '$lib/core/live/recording';
	import Chart, { type ChartLine } from '$lib/ui/Chart.svelte';
	import SpanButtons from '$lib/ui/SpanButtons.svelte';
	import { useKeys } from '$lib/ui/keys';
	import ConditionsMet from './ConditionsMet.svelte';
	import Findings from './Findings.svelte';
	import LayOver from './LayOver.svelte';
	import { RecordingView } from './recordingView.svelte';
	import SampleList from './SampleList.svelte';
	import { said, signalUnit, signalValue, unitOf } from '$lib/ui/units';

	let { data } = $props();
	const recording = $derived(data.recording);
	const MOST_DRAWN = 8;
	let chosen = $state(
		untrack(() => {
			const wheels = data.recording.channels.filter(isWheel);
			const rest = data.recording.channels.filter((name) => !isWheel(name));
			return [...wheels, ...rest.filter((name) => name === 'vehicle')].slice(0, MOST_DRAWN);
		})
	);
	let asList = $state(false);
	let view = $state<RecordingView | null>(null);

	onMount(() => {
		const made = new RecordingView(data.case.id, data.recording.id);
		view = made;
		const conditions = data.conditions.map(({ text, what, condition }) => ({
			name: `${text} ${what}`,
			condition
		}));
		void made.start(data.vehicle, $state.snapshot(conditions) as typeof conditions);
		return () => made.close();
	});
	$effect(() => {
		if (!view?.ready) return;
		// The span and what lies over it decide too.
		void [view.from, view.to, view.over];
		void view.draw(chosen);
	});

	const odd = $derived(new Set(recording.findings.map(({ channel }) => channel)));
	const DASHES = [0, 6, 2, 10];
	const isSpeed = (channel: string) => (data.words[channel]?.unit || 'km/h') === 'km/h';
	const inOurs = (values: ArrayLike<number>, unit: string) =>
		signalUnit(unit) === unit ? values : Float64Array.from(values, (value) => signalValue(value, unit));
	const lines = $derived(
		(view?.lines ?? []).map(({ channel, line, other }, i): ChartLine => ({
			name: `${data.words[channel]?.name ?? channel}${other ? ', the other' : ''}`,
			x: line.x,
			y: inOurs(line.y, data.words[channel]?.unit || 'km/h'),
			tone: other ? 'good' : odd.has(channel) ? 'suspect' : channel === 'vehicle' ? 'second' : 'ink',
			dash: odd.has(channel) ? 0 : (DASHES[i % DASHES.length] ?? 0),
			right: !isSpeed(channel)
		}))
	);
	const rightUnit = $derived(
		[...new Set(chosen.filter((c) => !isSpeed(c)).map((c) => signalUnit(data.words[c]?.unit ?? '')))]
			.filter(Boolean)
			.join(', ')
	);
	const toggle = (channel: string, on: boolean) =>
		(chosen = on ? [...chosen, channel].slice(-MOST_DRAWN) : chosen.filter((one) => one !== channel));
	const lookAt = (startS: number, endS: number) => {
		const room = Math.max(1, (endS - startS) * 0.5);
		view?.see(startS - room, endS + room);
		document.getElementById('graph')?.scrollIntoView({ block: 'nearest' });
	};

	useKeys(
		{
			l: () => (asList = !asList)
		},
		{ l: 'as a list, as a graph' }
	);
</script>

<svelte:head><title>{data.case.number} {recording.name || 'Recording'} · Jaldi</title></svelte:head>
<section class="pt-5">
	<p class="text-ink-2">
		<a class="underline underline-offset-4" href="/cases/{data.case.id}/watch">Watch</a> · {recording.time} by {recording.by}
	</p>
	<h1 class="mt-1 text-2xl leading-tight font-bold">
		{recording.name || (recording.source.kind === 'file' ? recording.source.fileName : 'Live recording')}
	</h1>
	<p class="mt-1 text-lg">{said(recording.verdict)}</p>
	<p class="mt-1 text-ink-2">
		<span class="num">{recording.durationS.toFixed(1)}</span> s ·
		<span class="num">{recording.rateHz.toFixed(1)}</span> readings a second ·
		<span class="num">{recording.rows.toLocaleString('en-GB')}</span> in all · sees nothing shorter than
		<span class="num">{(recording.shortestVisibleS * 1000).toFixed(0)}</span> ms
	</p>
	{#if recording.endedBecause}<p class="mt-1 text-suspect">{recording.endedBecause}</p>{/if}
</section>

<Findings
	findings={recording.findings}
	common={recording.common}
	notes={recording.notes}
	rateText={view?.analysis?.rateText ?? ''}
	onlook={lookAt}
/>

<section id="graph" class="mt-6" aria-label="Graph">
	{#if view?.trouble}<p role="alert" class="border-l-4 border-ink pl-3 font-semibold">{view.trouble}</p>{/if}
	<SpanButtons span={view}>
		<button class="act-quiet" aria-pressed={asList} onclick={() => (asList = !asList)}
			>As a list <span class="key">l</span></button
		>
		<a class="act-quiet ml-auto" href="/cases/{data.case.id}/watch/{recording.id}/csv" download>CSV</a>
	</SpanButtons>
	{#if view?.ready}
		{#if asList}
			<SampleList {view} channels={recording.channels} words={data.words} />
		{:else if lines.length > 0}
			<Chart
				{lines}
				from={view.from}
				to={view.to}
				marks={recording.marks.map(({ atS, label }, i) => ({ at: atS, label: label || `mark ${i + 1}` }))}
				unit={unitOf('speed')}
				{rightUnit}
				label="{recording.name || 'Recording'}: {lines.map(({ name }) => name).join(', ')}"
				onspan={(from, to) => view?.see(from, to)}
			/>
		{/if}
	{:else if !view?.trouble}
		<p class="py-10 text-ink-2">Fetching the samples …</p>
	{/if}
	<fieldset class="mt-2">
		<legend class="text-sm text-ink-2"
			>Up to {MOST_DRAWN} signals; those in other units stand on the right</legend
		>
		<div class="flex flex-wrap gap-x-6">
			{#each recording.channels as channel, nth (nth)}
				{@const at = view?.lines.findIndex((one) => one.channel === channel && !one.other) ?? -1}
				<label class="flex min-h-11 cursor-pointer items-center gap-2">
					<input
						type="checkbox"
						class="checkbox"
						checked={chosen.includes(channel)}
						onchange={(event) => toggle(channel, event.currentTarget.checked)}
					/>
					<svg width="34" height="10" aria-hidden="true">
						{#if at >= 0}<line
								x1="0"
								x2="34"
								y1="5"
								y2="5"
								stroke-width={odd.has(channel) ? 4 : 2.5}
								stroke-dasharray={odd.has(channel) ? '' : String(DASHES[at % DASHES.length] || '')}
								class={odd.has(channel)
									? 'stroke-suspect-mark'
									: channel === 'vehicle'
										? 'stroke-ink-2'
										: 'stroke-ink'}
							/>{/if}
					</svg>
					{data.words[channel]?.name ?? channel}
				</label>
			{/each}
		</div>
	</fieldset>
	{#if view && data.others.length > 0}<LayOver {view} others={data.others} marks={recording.marks} />{/if}
</section>
<ConditionsMet
	conditions={data.conditions}
	met={view?.conditions ?? []}
	names={data.signalNames}
	onlook={lookAt}
/>
