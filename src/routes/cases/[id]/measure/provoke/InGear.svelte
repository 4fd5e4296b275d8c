<script lang="ts">
	import { IN_GEAR_KMH, IN_GEAR_S } from '$library/reason/provoked';
	import Act from '$lib/ui/Act.svelte';
	import Caution from '$lib/ui/Caution.svelte';
	import { getCaseWork } from '../../caseWork.svelte';
	import { LiveFeed } from '../../watch/liveFeed.svelte';

	/** The driven wheels in gear on stands, at an even pace, for a few minutes: the bad one drops out while its mate stays. */
	let {
		caseId,
		wheels,
		cautions
	}: {
		caseId: string;
		wheels: { signal: string; words: string; here: boolean }[];
		cautions: string;
	} = $props();
	const work = getCaseWork();
	const feed = new LiveFeed(() => caseId);
	const watching = $derived(work.job?.kind === 'record' && work.job.state === 'running');
	const mine = $derived(
		watching && feed.channels.length > 0 && wheels.every(({ signal }) => feed.channels.includes(signal))
	);
	const start = () =>
		void work.begin({
			do: 'record',
			signals: wheels.map(({ signal }) => signal),
			name: 'In gear on stands',
			purpose: { what: 'in-gear', position: null }
		});
</script>

<section class="mt-6" aria-labelledby="gear">
	<h2 id="gear" class="text-lg font-bold">In gear on stands</h2>
	{#if mine}
		<div class="mt-2 flex flex-wrap items-end gap-x-8 gap-y-2">
			{#each wheels as { signal, words, here }, nth (nth)}
				<p>
					<span class="block text-sm text-ink-2">{words}{here ? ', suspect' : ''}</span>
					<span class="num text-[3rem] leading-none font-bold">{feed.now[signal]?.toFixed(1) ?? '–'}</span>
				</p>
			{/each}
			<p class="num text-ink-2">{feed.timeS.toFixed(0)} of {IN_GEAR_S} s</p>
			<button class="act" onclick={() => work.cancel()}>Stop and keep</button>
		</div>
	{:else if !watching}
		<p class="text-ink-2">
			First gear, idling, both driven wheels free, about {IN_GEAR_KMH} km/h for {IN_GEAR_S / 60} minutes. Nobody
			puts a hand near them.
		</p>
		<Caution>{cautions}</Caution>
		<Act class="act-quiet mt-2" whyNot={work.whyNot} onclick={start}>Run in gear and watch</Act>
	{/if}
</section>
