<script lang="ts">
	import { tellsNothing } from '$lib/core/live/recording';
	import type { CornerResult, RoundState } from '$lib/core/live/wheelRound';
	import Mark from '$lib/ui/Mark.svelte';
	import { said, signalValue } from '$lib/ui/units';

	/** The other values beside the big one; in a round each wheel with what it has shown so far. */
	let {
		channels,
		now,
		told,
		big,
		unitOf,
		nameOf,
		onchoose,
		onturned = () => undefined
	}: {
		channels: string[];
		now: Readonly<Record<string, number | null>>;
		told: RoundState | null;
		big: string;
		/** As it is kept. */
		unitOf: (channel: string) => string;
		nameOf: (channel: string) => string;
		onchoose: (channel: string) => void;
		/** Somebody says of a silent wheel whether it was turned. */
		onturned?: (channel: string, turned: boolean) => void;
	} = $props();
	const STATE: Record<CornerResult, 'good' | 'suspect' | 'bad'> = {
		answers: 'good',
		'turns-mate': 'good',
		weaker: 'suspect',
		'not-trusted': 'suspect',
		erratic: 'bad',
		dead: 'bad'
	};
	const corner = (channel: string) => told?.corners.find((one) => one.channel === channel) ?? null;
	const stateOf = (channel: string) => {
		const result = corner(channel)?.result;
		return result ? STATE[result] : 'open';
	};
	const shown = (channel: string) => {
		const value = now[channel];
		if (value === null || value === undefined) return '–';
		return tellsNothing(channel, value) ? 'n/a' : signalValue(value, unitOf(channel)).toFixed(1);
	};
	const remark = (channel: string) => {
		if (told?.turning === channel && told.dropouts > 1) return `${told.dropouts} dropouts so far`;
		return said(corner(channel)?.text ?? '');
	};
</script>

<ul class="self-start">
	{#each channels as channel, nth (nth)}
		<li class="border-b border-rule">
			<button
				class="flex min-h-16 w-full cursor-pointer items-center gap-4 py-2 text-left text-2xl {channel === big
					? 'font-bold'
					: ''}"
				onclick={() => onchoose(channel)}
			>
				{#if told}<Mark state={stateOf(channel)} size={26} />{/if}
				<span class="min-w-0 flex-1 leading-tight">
					{nameOf(channel)}
					{#if remark(channel)}<span class="block text-base font-normal text-ink-2">{remark(channel)}</span
						>{/if}
				</span>
				<span class="num">{shown(channel)}</span>
			</button>
			{#if told?.silent.includes(channel)}
				<div class="flex flex-wrap items-center gap-3 pb-3 text-lg">
					<p class="flex-1 basis-60">It said nothing. Was it turned?</p>
					<button class="act-quiet thumb" onclick={() => onturned(channel, true)}
						>I turned it, nothing came</button
					>
					<button class="act-quiet thumb" onclick={() => onturned(channel, false)}>Not turned yet</button>
				</div>
			{/if}
		</li>
	{/each}
</ul>
