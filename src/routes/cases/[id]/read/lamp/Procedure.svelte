<script lang="ts">
	import { onMount, untrack } from 'svelte';
	import {
		proceed,
		PROCEDURE_START,
		progressWords,
		type ProcedureEvent,
		type ProcedureStep
	} from '$lib/core/blink/procedure';
	import { Beep } from '$lib/ui/beep';
	import Mark from '$lib/ui/Mark.svelte';

	/** Pedal, plug and key by the clock: what to do now, how far it is, and again where it was too slow. */
	let { steps, onend }: { steps: ProcedureStep[]; onend?: () => void } = $props();
	const TICK_MS = 100;
	let at = $state.raw(PROCEDURE_START);
	let nowMs = $state(0);
	const beep = new Beep();
	const step = $derived(steps[at.at] ?? null);
	const LABEL = { say: 'Done', press: 'Press', hold: 'Hold' } as const;

	function take(kind: ProcedureEvent['kind'], atMs: number) {
		const before = at;
		nowMs = atMs;
		at = proceed(steps, before, { kind, atS: atMs / 1000 });
		if (at.at > before.at) beep.done();
		else if (at.failed && at.failed !== before.failed) beep.again();
		else if (kind === 'down') beep.tick();
		if (at.at >= steps.length && before.at < steps.length) onend?.();
	}
	onMount(() => {
		const timer = setInterval(() => {
			if (at.downS !== null || at.presses.length > 0) take('tick', performance.now());
		}, TICK_MS);
		return () => {
			clearInterval(timer);
			beep.stop();
		};
	});
	const restart = () => (at = untrack(() => PROCEDURE_START));
</script>

<ol class="mt-1">
	{#each steps as one, i (i)}
		<li class="flex items-start gap-3 py-2 {i === at.at ? 'text-lg font-bold' : 'text-ink-2'}">
			<span class="mt-1"><Mark state={i < at.at ? 'good' : 'open'} size={18} /></span>{one.words}
		</li>
	{/each}
</ol>
{#if step}
	<div class="mt-1 flex flex-wrap items-center gap-4">
		<button
			type="button"
			class="act min-h-16! min-w-40 touch-none text-xl select-none"
			onpointerdown={(event) => take('down', event.timeStamp)}
			onpointerup={(event) => take('up', event.timeStamp)}
			onpointerleave={(event) => take('up', event.timeStamp)}
			onkeydown={(event) => {
				if (event.code !== 'Enter' || event.repeat) return;
				event.preventDefault();
				take('down', event.timeStamp);
			}}
			onkeyup={(event) => event.code === 'Enter' && take('up', event.timeStamp)}
			>{LABEL[step.do]} <span class="key">enter</span></button
		>
		<span class="num text-xl font-bold" aria-live="polite">{progressWords(step, at, nowMs / 1000)}</span>
	</div>
	{#if at.failed}<p role="alert" class="mt-2 border-l-4 border-ink pl-3 font-semibold">
			{at.failed}
		</p>{/if}
{:else}
	<p class="mt-1 flex flex-wrap items-center gap-4 font-bold">
		All done.
		<button type="button" class="act-quiet font-normal" onclick={restart}>Once more</button>
	</p>
{/if}
