<script lang="ts">
	import Act from '$lib/ui/Act.svelte';
	import { onMount, untrack } from 'svelte';
	import { RoadProgress, type LegProgress } from '$lib/core/live/roadTest';
	import Caution from '$lib/ui/Caution.svelte';
	import { useKeys } from '$lib/ui/keys';
	import Mark from '$lib/ui/Mark.svelte';
	import JobProgress from '../../JobProgress.svelte';
	import { getCaseWork } from '../../caseWork.svelte';
	import { LiveFeed } from '../liveFeed.svelte';
	import Running from '../Running.svelte';
	import { said } from '$lib/ui/units';

	let { data } = $props();
	const work = getCaseWork();
	const feed = new LiveFeed(() => data.case.id, true);
	let progress = untrack(() => new RoadProgress(data.plan));
	let legs = $state.raw<LegProgress[]>(untrack(() => progress.progress));
	const mayRecord = $derived(data.canWrite && !data.case.signed);
	const recording = $derived(work.recordsFor('road-test'));
	const open = $derived(legs.filter(({ done, missing }) => done < 1 && missing.length === 0).length);
	const stateOf = (id: string) => {
		const leg = legs.find((one) => one.id === id);
		return !leg || leg.done === 0 ? 'open' : leg.done >= 1 ? 'good' : 'suspect';
	};
	const start = () =>
		work.begin({
			do: 'record',
			signals: data.defaults,
			name: 'Road test',
			purpose: { what: 'road-test', position: null }
		});

	onMount(() => {
		let id: string | null = null;
		let count = 0;
		return feed.onrow((row, channels) => {
			// Another recording begins: the plan begins anew with it.
			if (feed.id !== id) {
				id = feed.id;
				progress = new RoadProgress(data.plan);
			}
			progress.sample(row[0] ?? 0, new Map(channels.map((name, i) => [name, row[i + 1] ?? NaN])));
			if (count++ % 5 === 0) legs = progress.progress;
		});
	});
	useKeys(
		{
			r: () => mayRecord && !recording && data.linkAddress && void start(),
			Space: () => recording && void work.mark(),
			x: () => recording && void work.cancel()
		},
		{ r: 'record', Space: 'mark this moment', x: 'stop and keep' }
	);
</script>

<svelte:head><title>{data.case.number} Road test · Jaldi</title></svelte:head>
<section class="pt-5">
	<p class="text-ink-2">
		<a class="underline underline-offset-4" href="/cases/{data.case.id}/watch">Watch</a>
	</p>
	<div class="mt-1 flex flex-wrap items-end justify-between gap-4">
		<h1 class="text-2xl leading-tight font-bold" aria-live="polite">
			{#if !recording}Road test, {data.plan.length} things to cover{:else if open === 0}All of it is covered{:else}{open}
				of {data.plan.length} still to cover{/if}
		</h1>
		{#if mayRecord && !recording}
			<Act class="act" whyNot={work.whyNot} onclick={start}
				>Start recording <span class="key border-current">r</span></Act
			>
		{/if}
	</div>
	<JobProgress kinds={['record']} />
	{#if !recording}
		<Caution>{data.cautions} The driver hears from the watcher what comes next.</Caution>
	{/if}
</section>
<ol class="mt-4">
	{#each data.plan as leg (leg.id)}
		{@const is = legs.find(({ id }) => id === leg.id)}
		<li class="hair py-3">
			<div class="flex items-start gap-4">
				<span class="mt-1"><Mark state={stateOf(leg.id)} size={24} /></span>
				<div class="min-w-0 flex-1">
					<p class="text-lg {is?.now ? 'font-bold' : ''}">{said(leg.says)}</p>
					<p class="text-ink-2">
						{said(leg.why)}
						{#if is && is.missing.length > 0}Cannot be told: {is.missing
								.map((signal) => data.names[signal] ?? signal)
								.join(', ')} is not read.{/if}
					</p>
				</div>
				<p class="num text-right text-lg">
					{#if leg.needS > 0}{(is?.metS ?? 0).toFixed(0)} of {leg.needS} s{:else if leg.needTimes > 1}{is?.times ??
							0} of {leg.needTimes}{:else}{is && is.done >= 1 ? 'met' : 'not yet'}{/if}
				</p>
			</div>
			<svg
				class="mt-2 ml-10 w-[calc(100%-2.5rem)]"
				height="6"
				aria-hidden="true"
				preserveAspectRatio="none"
				viewBox="0 0 100 6"
			>
				<line
					x1="0"
					x2="100"
					y1="3"
					y2="3"
					stroke-dasharray="0.4 1.2"
					stroke-width="2"
					class="stroke-ink-2"
				/>
				<line x1="0" x2={(is?.done ?? 0) * 100} y1="3" y2="3" stroke-width="5" class="stroke-good" />
			</svg>
		</li>
	{/each}
</ol>
{#if recording}
	<Running
		{feed}
		signals={data.signals}
		caseId={data.case.id}
		onmark={() => work.mark()}
		onstop={() => work.cancel()}
	/>
{/if}
