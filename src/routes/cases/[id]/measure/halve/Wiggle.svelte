<script lang="ts">
	import type { Position } from '$library/positions';
	import type { Moved } from '$lib/case/entries/live-recording/payload';
	import Caution from '$lib/ui/Caution.svelte';
	import Act from '$lib/ui/Act.svelte';
	import { wiggledPlaces } from '$lib/core/live/wiggle';
	import Mark from '$lib/ui/Mark.svelte';
	import { useKeys } from '$lib/ui/keys';
	import { getCaseWork } from '../../caseWork.svelte';
	import { LiveFeed } from '../../watch/liveFeed.svelte';
	import { LiveValue } from '../substitute/liveValue.svelte';

	/** Moves one place after the other while the live value is watched: the place at which it changes is the place. */
	let {
		caseId,
		at: position,
		atWords,
		signal,
		places,
		cautions,
		wiggled
	}: {
		caseId: string;
		at: Position;
		atWords: string;
		signal: string;
		places: { label: string; is: Moved }[];
		cautions: string;
		wiggled:
			| {
					id: string;
					time: string;
					marks: { atS: number; label: string }[];
					findings: { startS: number; text: string }[];
			  }
			| undefined;
	} = $props();
	const work = getCaseWork();
	const feed = new LiveFeed(() => caseId);
	const live = new LiveValue(feed, () => signal);
	let at = $state<string | null>(null);
	const name = $derived(`Wiggle, ${atWords}`);
	const watching = $derived(work.job?.kind === 'record' && work.job.state === 'running');
	const found = $derived(
		wiggled
			? wiggledPlaces(
					wiggled.marks,
					wiggled.findings.map(({ startS }) => startS)
				)
			: []
	);
	const mark = (place: string) => {
		at = place;
		void work.mark(place);
	};
	/** A key for each place, beside those that the bench has. */
	const KEYS = ['a', 'b', 'c', 'd', 'e', 'g', 'i', 'j'];
	useKeys({
		...Object.fromEntries(
			KEYS.map((key, i) => [
				key,
				() => {
					const place = places[i]?.label;
					if (watching && place) mark(place);
				}
			])
		),
		x: () => void (watching && work.cancel())
	});
</script>

<section class="mt-8" aria-labelledby="wiggle">
	<h2 id="wiggle" class="text-lg font-bold">It comes and goes? Move it and watch</h2>
	<p class="text-ink-2">
		A helper turns the wheel slowly and evenly by hand, never the engine. Start, then put a hand on one place
		after the other for a few seconds, and press its button as you do. The place at which the value changes is
		the place.
	</p>
	<Caution>{cautions}</Caution>
	{#if watching}
		<div class="mt-2 flex flex-wrap items-center gap-3">
			<span class="num text-[3rem] leading-none font-bold"
				>{live.now === null ? '–' : live.now.toFixed(1)}</span
			>
			<span class="text-ink-2">km/h</span>
			{#each places as { label: place }, i (i)}
				<button class={at === place ? 'act' : 'act-quiet'} onclick={() => mark(place)}
					>{place}
					{#if KEYS[i]}<span class="key border-current">{KEYS[i]}</span>{/if}</button
				>
			{/each}
			<button class="act" onclick={() => work.cancel()}>Stop <span class="key border-current">x</span></button
			>
		</div>
	{:else}
		<Act
			class="act-quiet mt-2"
			whyNot={work.whyNot}
			onclick={() => {
				at = null;
				live.begin();
				void work.begin({
					do: 'record',
					signals: [signal],
					name,
					purpose: { what: 'wiggle', position, places }
				});
			}}>Start watching</Act
		>
	{/if}
	{#if wiggled && !watching}
		<p class="mt-3 flex items-start gap-3 text-lg">
			<span class="mt-1"><Mark state={found.length > 0 ? 'bad' : 'open'} /></span>
			<span>
				{#if found[0]}
					<strong>{found[0].label}</strong>: the signal changed {found[0].count === 1
						? 'once'
						: `${found[0].count} times`} while it was moved{found.length > 1
						? `, at ${found[1]?.label} ${found[1]?.count} times`
						: ''}.
				{:else if wiggled.findings.length > 0}
					It changed, but at no place that was being moved.
				{:else}
					Nothing changed at any place: it needs heat, water or load as well, or it is elsewhere.
				{/if}
				<a class="text-base underline underline-offset-4" href="/cases/{caseId}/watch/{wiggled.id}"
					>The recording of {wiggled.time}</a
				>
			</span>
		</p>
	{/if}
</section>
