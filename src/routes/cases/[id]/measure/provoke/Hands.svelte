<script lang="ts">
	import { HANDS_OFF, TURNS_STILL, type HandsOn } from '$lib/case/measure/handsOn';
	import type { Position } from '$library/positions';
	import Act from '$lib/ui/Act.svelte';
	import Caution from '$lib/ui/Caution.svelte';
	import { useKeys } from '$lib/ui/keys';
	import { getCaseWork } from '../../caseWork.svelte';
	import { LiveFeed } from '../../watch/liveFeed.svelte';
	import { HandsLive } from './handsLive.svelte';
	import { shownValue, unitOf } from '$lib/ui/units';

	/** One wheel turned by hand and watched, while a hand moves one place after the other, or water, hot air or the steering does. */
	let {
		caseId,
		position,
		atWords,
		signal,
		hands,
		cautions,
		again
	}: {
		caseId: string;
		position: Position;
		atWords: string;
		signal: string;
		hands: HandsOn[];
		cautions: string;
		/** What has to be done again, and for how long; null before a repair. */
		again: { label: string; furtherS: number } | null;
	} = $props();
	const work = getCaseWork();
	const places = $derived([...hands, TURNS_STILL, HANDS_OFF]);
	// The whole of it, so that a page that is loaded anew counts as it did.
	const feed = new LiveFeed(() => caseId, true);
	const live = new HandsLive(
		feed,
		() => signal,
		() => places
	);
	const watching = $derived(work.recordsFor('wiggle', position));
	const at = $derived(
		feed.marks.findLast(({ label }) => label !== TURNS_STILL.label && label !== HANDS_OFF.label)
	);
	const isOff = $derived(feed.marks.at(-1)?.label === HANDS_OFF.label);
	let section: HTMLElement | undefined;
	let began = false;
	$effect(() => {
		// What is looked at from the wheel is at the top; afterwards, what came of it.
		if (watching) section?.scrollIntoView({ block: 'start' });
		else if (began) scrollTo({ top: 0 });
		began = watching;
	});
	const seconds = (s: number) => `${s.toFixed(0)} s`;
	const start = () =>
		void work.begin({
			do: 'record',
			signals: [signal],
			name: `Provoked by hand, ${atWords}`,
			purpose: { what: 'wiggle', position, places }
		});
	const left = (label: string) =>
		again?.label === label ? Math.max(0, again.furtherS - (live.tried[label]?.seconds ?? 0)) : null;
	/** A key for each place, beside those that the bench has. */
	const KEYS = ['a', 'b', 'c', 'd', 'e', 'g', 'i', 'j', 'k'];
	useKeys(
		{
			...Object.fromEntries(
				KEYS.map((key, i) => [
					key,
					() => {
						const place = hands[i]?.label;
						if (watching && place) void work.mark(place);
					}
				])
			),
			y: () => void (watching && live.gone && work.mark(TURNS_STILL.label)),
			x: () => void (watching && work.cancel())
		},
		{ '1 – 9': 'the hand goes there', y: 'it turns, and still nothing', x: 'stop and keep' }
	);
</script>

<section class="mt-5 scroll-mt-3" aria-labelledby="hands" bind:this={section}>
	<h2 id="hands" class="text-lg font-bold">By hand, {atWords.toLowerCase()}</h2>
	{#if watching}
		<div class="mt-2 flex flex-wrap items-center gap-x-6 gap-y-2">
			<p class="flex items-baseline gap-2">
				<span class="num text-[3.5rem] leading-none font-bold"
					>{live.now === null ? '–' : shownValue(live.now, 'speed').toFixed(1)}</span
				> <span class="text-ink-2">{unitOf('speed')}</span>
			</p>
			{#if live.none}
				<p class="font-semibold">
					Its module gives no value any more: it has seen the fault. Stop and keep; then read and clear, or it
					stays so.
				</p>
			{:else if live.gone}
				<button class="act" onclick={() => work.mark(TURNS_STILL.label)}
					>It is gone, and the wheel still turns <span class="key border-current">y</span></button
				>
			{/if}
		</div>
		<p class="mt-1 min-h-6" aria-live="polite">
			{#if isOff || !at}Put a hand on one place, press its button as you do, and keep at it for ten seconds.
			{:else}Now: <strong>{at.label}</strong>. Press the next as you change.{/if}
		</p>
		<ul class="mt-2 grid gap-2 sm:grid-cols-2 lg:grid-cols-3">
			{#each hands as { label }, i (i)}
				{@const tried = live.tried[label]}
				{@const further = left(label)}
				<li>
					<button
						class="{!isOff && at?.label === label ? 'act' : 'act-quiet'} w-full justify-between"
						aria-pressed={!isOff && at?.label === label}
						onclick={() => work.mark(label)}
					>
						<span
							>{label}
							{#if KEYS[i]}<span class="key border-current">{KEYS[i]}</span>{/if}</span
						>
						<span class="num font-normal">
							{#if tried?.changes}<strong>{tried.changes}×</strong> in {seconds(tried.seconds)}
							{:else if further !== null && further > 0}{seconds(Math.ceil(further))} to go
							{:else if tried}{seconds(tried.seconds)}{/if}
						</span>
					</button>
				</li>
			{/each}
		</ul>
		<div class="mt-3 flex flex-wrap gap-3">
			<button class="act-quiet" onclick={() => work.mark(HANDS_OFF.label)}>Hands off</button>
			<button class="act" onclick={() => work.cancel()}
				>Stop and keep <span class="key border-current">x</span></button
			>
		</div>
	{:else}
		<p class="text-ink-2">
			A helper turns the wheel slowly and evenly by hand, never the engine. A value that goes and is back at
			once is counted where the hand is; one that slows with the wheel is not.
		</p>
		<Caution>{cautions}</Caution>
		<Act class="act mt-2" whyNot={work.whyNot} onclick={start}>Start watching</Act>
	{/if}
</section>
