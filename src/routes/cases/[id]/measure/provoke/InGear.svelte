<script lang="ts">
	import { IN_GEAR_KMH, IN_GEAR_S } from '$library/reason/provoked';
	import Act from '$lib/ui/Act.svelte';
	import Caution from '$lib/ui/Caution.svelte';
	import { getCaseWork } from '../../caseWork.svelte';
	import { LiveFeed } from '../../watch/liveFeed.svelte';
	import { shown, shownValue } from '$lib/ui/units';

	/** The driven wheels in gear on stands, at an even pace, for a few minutes: the bad one drops out while its mate stays. */
	let {
		caseId,
		wheels,
		cautions,
		againS
	}: {
		caseId: string;
		wheels: { signal: string; words: string; here: boolean }[];
		cautions: string;
		/** For how long it has to be done again, in seconds; null where it has not. */
		againS: number | null;
	} = $props();
	const work = getCaseWork();
	const feed = new LiveFeed(() => caseId);
	const mine = $derived(work.recordsFor('in-gear'));
	const wantedS = $derived(Math.ceil(againS ?? IN_GEAR_S));
	const start = () =>
		void work.begin({
			do: 'record',
			signals: wheels.map(({ signal }) => signal),
			name: 'In gear on stands',
			purpose: { what: 'in-gear', position: null }
		});
	const speed = (kmh: number | null | undefined) =>
		kmh === null || kmh === undefined ? '–' : shownValue(kmh, 'speed').toFixed(1);
</script>

<section class="mt-6" aria-labelledby="gear">
	<h2 id="gear" class="text-lg font-bold">In gear on stands</h2>
	{#if mine}
		<div class="mt-2 flex flex-wrap items-end gap-x-8 gap-y-2">
			{#each wheels as { signal, words, here }, nth (nth)}
				<p>
					<span class="block text-sm text-ink-2">{words}{here ? ', suspect' : ''}</span>
					<span class="num text-[3rem] leading-none font-bold">{speed(feed.now[signal])}</span>
				</p>
			{/each}
			<p class="num text-ink-2">{feed.timeS.toFixed(0)} of {wantedS} s</p>
			<button class="act" onclick={() => work.cancel()}>Stop and keep</button>
		</div>
	{:else}
		<p class="text-ink-2">
			First gear, idling, both driven wheels free, about {shown(IN_GEAR_KMH, 'speed')} for {Math.ceil(
				wantedS / 60
			)} minutes. Nobody puts a hand near them.
		</p>
		<Caution>{cautions}</Caution>
		<Act class="act-quiet mt-2" whyNot={work.whyNot} onclick={start}>Run in gear and watch</Act>
	{/if}
</section>
