<script lang="ts">
	import { refreshCase } from '$lib/ui/refresh';
	import { LEAST_TRUE_KMH, SPEED_SOURCES } from '$lib/case/entries/speed-checked/payload';
	import { positionWords } from '$lib/case/words';
	import { trueSpeedOf } from '$library/reason/trueSpeed';
	import type { Position } from '$library/positions';
	import Caution from '$lib/ui/Caution.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import NumberField from '$lib/ui/NumberField.svelte';
	import OneOf from '$lib/ui/OneOf.svelte';
	import { sendEntry } from '$lib/away/record';
	import { shown } from '$lib/ui/units';

	/** What each wheel tells at a steady speed that is known from elsewhere: the only thing that tells two axles apart. */
	let { caseId, positions, cautions }: { caseId: string; positions: Position[]; cautions: string } = $props();
	let by = $state<(typeof SPEED_SOURCES)[number]>('satellites');
	let trueKmh = $state<number | null>(null);
	let told = $state<Record<string, number | null>>({});
	let saving = $state(false);
	const wheels = $derived(
		positions.flatMap((position) => {
			const kmh = told[position];
			return typeof kmh === 'number' ? [{ position, kmh }] : [];
		})
	);
	const SAYS = {
		right: 'tells it true',
		fast: 'is fast: it is smaller than its module thinks',
		slow: 'is slow: it is bigger than its module thinks'
	};
	const whyNot = $derived(
		trueKmh === null
			? 'Give the true speed.'
			: trueKmh < LEAST_TRUE_KMH
				? `From ${shown(LEAST_TRUE_KMH, 'speed')} on it says something.`
				: wheels.length === 0
					? 'Give what one wheel tells, or more.'
					: null
	);
	async function save() {
		if (trueKmh === null || whyNot) return;
		saving = true;
		if (await sendEntry(caseId, 'speed-checked', { by, trueKmh, wheels })) {
			trueKmh = null;
			told = {};
			await refreshCase();
		}
		saving = false;
	}
</script>

<section class="mt-8" aria-labelledby="true-speed">
	<h2 id="true-speed" class="text-lg font-bold">Which axle is wrong: against a true speed</h2>
	<p class="text-ink-2">
		Hold one speed, read it off a satellite receiver or the roller, and what each wheel tells at that moment.
		Two axles that differ do not say which of them is wrong.
	</p>
	<Caution>{cautions}</Caution>
	<div class="mt-3 flex flex-wrap items-end gap-4">
		<OneOf label="By" name="by" options={SPEED_SOURCES} bind:value={by} />
		<div class="w-36">
			<NumberField label="True speed" of="speed" step="any" min={0} bind:value={trueKmh} />
		</div>
		{#each positions as position, nth (nth)}
			<div class="w-36">
				<NumberField
					label="{positionWords(position)} tells"
					of="speed"
					step="any"
					min={0}
					bind:value={() => told[position] ?? null, (kmh) => (told = { ...told, [position]: kmh })}
				/>
			</div>
		{/each}
	</div>
	{#if trueKmh !== null && trueKmh >= LEAST_TRUE_KMH}
		<ul class="mt-2" aria-live="polite">
			{#each wheels as { position, kmh }, nth (nth)}
				{@const says = trueSpeedOf(kmh, trueKmh)}
				<li class="flex items-center gap-3 py-1">
					<Mark state={says === 'right' ? 'good' : 'bad'} size={18} />
					<span>{positionWords(position)} {SAYS[says]}</span>
				</li>
			{/each}
		</ul>
	{/if}
	<p class="mt-3 flex flex-wrap items-center gap-3">
		<button class="act" disabled={whyNot !== null || saving} onclick={save}>Save it</button>
		{#if whyNot}<span>{whyNot}</span>{/if}
	</p>
</section>
