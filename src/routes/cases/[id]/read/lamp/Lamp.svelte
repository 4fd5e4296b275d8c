<script lang="ts">
	import type { Flash } from '$lib/core/blink/readFlashes';

	/** A lamp that shows a code once more, to be held against the one in the dash. */
	let { flashes }: { flashes: Flash[] } = $props();
	const LEAD_S = 0.8;
	let lit = $state(false);
	let running = $state(false);
	let timers: ReturnType<typeof setTimeout>[] = [];

	function stop() {
		for (const timer of timers) clearTimeout(timer);
		timers = [];
		lit = running = false;
	}
	function play() {
		stop();
		running = true;
		const at = (seconds: number, act: () => void) => timers.push(setTimeout(act, (LEAD_S + seconds) * 1000));
		for (const { onS, offS } of flashes) {
			at(onS, () => (lit = true));
			at(offS ?? onS + 0.2, () => (lit = false));
		}
		at((flashes.at(-1)?.offS ?? 0) + LEAD_S, stop);
	}
	$effect(() => stop);
</script>

<div class="flex items-center gap-5">
	<svg width="72" height="72" viewBox="0 0 72 72" role="img" aria-label={lit ? 'Lamp lit' : 'Lamp dark'}>
		<circle
			cx="36"
			cy="36"
			r="33"
			fill={lit ? 'var(--color-ink)' : 'none'}
			stroke="var(--color-ink)"
			stroke-width="3"
		/>
		{#if !lit}<path d="M13 13 59 59" stroke="var(--color-ink)" stroke-width="3" />{/if}
	</svg>
	<button class="act-quiet" onclick={() => (running ? stop() : play())}
		>{running ? 'Stop' : 'Show it as a lamp'}</button
	>
</div>
