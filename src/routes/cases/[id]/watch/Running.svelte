<script lang="ts">
	import { tellsNothing } from '$lib/core/live/recording';
	import LiveStrip from '$lib/ui/LiveStrip.svelte';
	import type { LiveFeed } from './liveFeed.svelte';
	import { signalUnit, signalValue } from '$lib/ui/units';

	/** A recording while it runs: what is read now, the last half minute, and the two things one can do. */
	let {
		feed,
		signals,
		caseId,
		onmark,
		onstop
	}: {
		feed: LiveFeed;
		signals: { signal: string; name: string; unit: string }[];
		caseId: string;
		onmark: () => void;
		onstop: () => void;
	} = $props();
	const words = (signal: string) => signals.find((one) => one.signal === signal);
	const speeds = $derived(
		feed.channels
			.map((name, i) => ({ name, column: i + 1 }))
			.filter(({ name }) => words(name)?.unit === 'km/h')
			.slice(0, 8)
	);
	const clock = $derived(
		`${Math.floor(feed.timeS / 60)}:${String(Math.floor(feed.timeS % 60)).padStart(2, '0')}`
	);
	const valueOf = (signal: string) => {
		const value = feed.now[signal];
		if (value === null || value === undefined) return '–';
		if (tellsNothing(signal, value)) return 'not available';
		const unit = words(signal)?.unit ?? '';
		return signalValue(value, unit).toFixed(unit === '' ? 0 : 1);
	};
</script>

<section class="mt-3" aria-label="Running recording">
	<p class="text-ink-2">
		<span class="num text-xl font-bold text-ink">{clock}</span> ·
		<span class="num">{feed.rateHz.toFixed(0)}</span> readings a second · {feed.marks.length}
		{feed.marks.length === 1 ? 'mark' : 'marks'}
	</p>
	<div class="my-4 grid grid-cols-2 gap-4 sm:grid-cols-[2fr_1fr_1fr]">
		<button class="act-quiet min-h-20 text-xl font-semibold" onclick={onmark}>
			Mark <span class="key">space</span>
		</button>
		<a class="act-quiet min-h-20" href="/cases/{caseId}/watch/bay"
			>Across the bay <span class="key">b</span></a
		>
		<button class="act min-h-20 text-lg" onclick={onstop}
			>Stop <span class="key border-current">x</span></button
		>
	</div>
	<LiveStrip
		rows={feed.rows}
		version={feed.version}
		names={speeds.map(({ name }) => words(name)?.name ?? name)}
		columns={speeds.map(({ column }) => column)}
	/>
	<dl class="grid gap-x-10 sm:grid-cols-2">
		{#each feed.channels as channel, nth (nth)}
			<div class="hair flex items-baseline justify-between py-2">
				<dt>{words(channel)?.name ?? channel}</dt>
				<dd class="num text-xl">
					{valueOf(channel)}
					<span class="text-base text-ink-2">{signalUnit(words(channel)?.unit ?? '')}</span>
				</dd>
			</div>
		{/each}
	</dl>
</section>
