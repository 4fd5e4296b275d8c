<script lang="ts">
	import { ulid } from 'ulid';
	import { goto } from '$app/navigation';
	import { frequencyForSpeedHz } from '$lib/core/electrical/substitute';
	import { positionWords } from '$lib/case/words';
	import OneOf from '$lib/ui/OneOf.svelte';
	import { useKeys } from '$lib/ui/keys';
	import type { Position } from '$library/positions';
	import { speaksInPulses, type SensorKind } from '$library/sensorKinds';
	import { shown } from '$lib/ui/units';

	/** Takes a capture from the oscilloscope at this workplace: which wheels, where along the wire, how long. */
	let {
		caseId,
		at,
		mate,
		family,
		teeth,
		circumferenceM
	}: {
		caseId: string;
		at: Position;
		mate: Position;
		family: SensorKind | null;
		teeth: number | null;
		circumferenceM: number | null;
	} = $props();
	const PLACES = ['at the module', 'at the sensor'] as const;
	const LENGTHS = ['0.5 s', '2 s', '5 s', '10 s'] as const;
	let place = $state<(typeof PLACES)[number]>('at the module');
	let length = $state<(typeof LENGTHS)[number]>('5 s');
	let both = $state(true);
	let name = $state('');
	let good = $state(false);
	let turned = $state(false);
	let taking = $state(false);
	let trouble = $state<string | null>(null);
	const WALK_KMH = 10;
	/** Short pulses want more samples than a wave does. */
	const rateHz = $derived(speaksInPulses(family) ? 200_000 : 50_000);
	const expected = $derived.by(() => {
		if (teeth === null || circumferenceM === null) return null;
		const hz = frequencyForSpeedHz(teeth, WALK_KMH, circumferenceM);
		return `At ${shown(WALK_KMH, 'speed')} expect ${hz.toFixed(0)} pulses a second; ${teeth} teeth are one turn, ${(teeth / hz).toFixed(1)} s.`;
	});
	let id = ulid();

	async function take() {
		if (taking) return;
		taking = true;
		trouble = null;
		try {
			const response = await fetch(`/cases/${caseId}/measure/scope/take`, {
				method: 'POST',
				headers: { 'content-type': 'application/json' },
				body: JSON.stringify({
					id,
					name,
					positions: both ? [at, mate] : [at],
					at: place === 'at the module' ? 'module' : 'sensor',
					rateHz,
					durationS: Number.parseFloat(length),
					knownGood: good,
					turned
				})
			});
			if (response.ok) {
				await goto(`/cases/${caseId}/measure/scope/${id}`);
				return;
			}
			const answer = (await response.json()) as { message?: string };
			trouble = answer.message ?? 'The server refused.';
			id = ulid();
		} catch {
			trouble = 'The server cannot be reached. Try again: nothing is taken twice.';
		} finally {
			taking = false;
		}
	}
	useKeys({ c: () => void take() }, { c: 'take a capture' });
</script>

<div class="flex flex-wrap items-end gap-x-6 gap-y-3">
	<div>
		<p class="text-sm text-ink-2">Tips</p>
		<OneOf label="Where the tips are" name="place" options={PLACES} bind:value={place} />
	</div>
	<div>
		<p class="text-sm text-ink-2">Length</p>
		<OneOf label="Length of the capture" name="length" options={LENGTHS} bind:value={length} />
	</div>
	<label class="flex min-h-11 cursor-pointer items-center gap-2"
		><input type="checkbox" class="checkbox" bind:checked={both} /> {positionWords(mate)} beside it</label
	>
</div>
<div class="mt-3 flex flex-wrap items-end gap-3">
	<label class="min-w-56 flex-1">
		<span class="text-sm text-ink-2">What for, in a word</span>
		<input class="field" bind:value={name} maxlength="120" />
	</label>
	<button class="act" data-do disabled={taking} onclick={take}
		>{taking ? 'Taking it …' : 'Take a capture'} <span class="key border-current">c</span></button
	>
</div>
<label class="flex min-h-11 cursor-pointer items-center gap-2"
	><input type="checkbox" class="checkbox" bind:checked={turned} /> The wheels turn while it is taken</label
>
<label class="flex min-h-11 cursor-pointer items-center gap-2"
	><input type="checkbox" class="checkbox" bind:checked={good} /> A vehicle without a fault here: keep as the shop’s
	reference for this type</label
>
<p class="text-ink-2">
	{expected ?? ''}
	{family === 'passive'
		? 'The tips go across the two lines of the coil.'
		: 'The tip goes to the signal wire, the clip to the body.'} Turn both wheels alike: in gear on stands, or driving.
</p>
{#if trouble}<p class="mt-2 font-semibold" role="alert">{trouble}</p>{/if}
