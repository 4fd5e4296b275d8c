<script lang="ts">
	import { valueWords } from '$lib/case/measure/measureWords';
	import { speedForFrequencyKmh } from '$lib/core/electrical/substitute';
	import type { TraceView } from '$lib/ui/traceDrawing';
	import { shown } from '$lib/ui/units';

	/** What lies between the rulers: time, what that is as a frequency and a speed, and volts. */
	let {
		rulers,
		lanes,
		teeth,
		circumferenceM,
		onlane
	}: {
		rulers: NonNullable<TraceView['rulers']>;
		lanes: string[];
		teeth: number | null;
		circumferenceM: number | null;
		onlane: (lane: number) => void;
	} = $props();
	const between = $derived(Math.abs(rulers.t[1] - rulers.t[0]));
	const hz = $derived(between > 0 ? 1 / between : 0);
	const kmh = $derived(
		teeth !== null && circumferenceM !== null ? speedForFrequencyKmh(teeth, hz, circumferenceM) : null
	);
</script>

<dl class="flex flex-wrap gap-x-8 gap-y-1 border-t border-rule py-2">
	<div class="flex gap-2">
		<dt class="text-ink-2">between the upright ones</dt>
		<dd class="num font-semibold">{(between * 1000).toFixed(between < 0.1 ? 3 : 1)} ms</dd>
	</div>
	<div class="flex gap-2">
		<dt class="text-ink-2">as one tooth</dt>
		<dd class="num font-semibold">{hz.toFixed(1)} Hz{kmh === null ? '' : `, ${shown(kmh, 'speed', 1)}`}</dd>
	</div>
	<div class="flex gap-2">
		<dt class="text-ink-2">between the level ones</dt>
		<dd class="num font-semibold">{valueWords(Math.abs(rulers.v[1] - rulers.v[0]), 'V')}</dd>
	</div>
	<div class="flex gap-2">
		<dt class="text-ink-2">at</dt>
		<dd class="num">
			{(rulers.t[0] * 1000).toFixed(2)} and {(rulers.t[1] * 1000).toFixed(2)} ms, {valueWords(
				rulers.v[0],
				'V'
			)} and {valueWords(rulers.v[1], 'V')}
		</dd>
	</div>
</dl>
{#if lanes.length > 1}
	<label class="flex items-center gap-2">
		<span class="text-ink-2">volts of</span>
		<select
			class="field w-auto!"
			value={rulers.lane}
			onchange={(event) => onlane(Number(event.currentTarget.value))}
		>
			{#each lanes as name, i (i)}<option value={i}>{name}</option>{/each}
		</select>
	</label>
{/if}
