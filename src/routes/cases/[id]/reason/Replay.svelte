<script lang="ts">
	/** Drag along the thread to see what was known at a moment. */
	let {
		moments,
		upTo,
		onmove
	}: {
		moments: { seq: number; time: string; title: string }[];
		upTo: number | null;
		/** Null = now. */
		onmove: (seq: number | null) => void;
	} = $props();
	let at = $derived(upTo ?? moments.length);
	const moment = $derived(moments[at - 1]);
</script>

<section class="mt-6 border-t border-rule pt-4" aria-labelledby="replay">
	<h2 id="replay" class="text-lg font-bold">
		{upTo === null
			? 'See an earlier state: drag back along the thread'
			: `As it was after “${moment?.title ?? ''}”`}
	</h2>
	<div class="mt-1 flex flex-wrap items-center gap-4">
		<input
			type="range"
			class="range min-w-60 flex-1 range-sm"
			min="1"
			max={moments.length}
			bind:value={at}
			aria-label="Moment on the thread"
			aria-valuetext={moment ? `${moment.time} ${moment.title}` : ''}
			onchange={() => onmove(at >= moments.length ? null : at)}
		/>
		<span class="min-w-52"><span class="num">{moment?.time ?? ''}</span> {moment?.title ?? ''}</span>
		{#if upTo !== null}<button class="act-quiet" onclick={() => onmove(null)}>Back to now</button>{/if}
	</div>
</section>
