<script lang="ts">
	import { untrack } from 'svelte';
	import type { SuperValidated } from 'sveltekit-superforms';
	import type { z } from 'zod';
	import type { PayloadOf } from '$lib/case/entries/entry';
	import { checkVin } from '$lib/core/vehicle/vin';
	import { entryForm } from '$lib/ui/entryForm.svelte';
	import Field from '$lib/ui/Field.svelte';
	import FormFoot from '$lib/ui/FormFoot.svelte';
	import type { VehicleForm } from './forms';
	import VinCamera from '../../../VinCamera.svelte';
	import Tick from '$lib/ui/Tick.svelte';
	import Section from './Section.svelte';
	import QuantityInput from '$lib/ui/QuantityInput.svelte';
	import { shown, unitOf } from '$lib/ui/units';

	interface Props {
		saved: PayloadOf<'vehicle-checked'> | null;
		data: SuperValidated<z.infer<typeof VehicleForm>, string>;
		/** What the vehicle itself has told. */
		scanned: { vin: string | null; odometerKm: number | null };
		caseId: string;
		canWrite: boolean;
	}
	let { saved, data, scanned, caseId, canWrite }: Props = $props();
	let editing = $state(false);
	const made = entryForm(() => data, {
		id: 'vehicle-form',
		draftKey: untrack(() => `${caseId}:vehicle`),
		waits: 'Vehicle looked at',
		onSaved: () => (editing = false)
	});
	const { form, errors, enhance, message } = made;
	const checked = $derived(checkVin($form.vin));
	const hint = $derived.by(() => {
		if ($form.vin.trim() === '') return '17 signs, from the plate on the vehicle';
		if (!checked.ok) return checked.error;
		if (checked.value.checkDigitFits) return 'The check digit fits.';
		return `Place 9 should be ${checked.value.expectedCheckDigit}: look again, or the maker uses no check digit.`;
	});
</script>

<Section id="vehicle" title="Vehicle" saved={saved !== null} {canWrite} bind:editing>
	{#snippet summary()}
		{#if saved}
			<p class="num text-lg">
				{saved.vin} <span class="px-2 text-ink-2">at</span>
				{shown(saved.odometerKm, 'distance')}
			</p>
			{#if !saved.checkDigitFits}<p class="text-ink-2">
					Its check digit does not fit; it was kept as read.
				</p>{/if}
			{#if scanned.vin && scanned.vin !== saved.vin}
				<p class="font-semibold">
					The gateway says <span class="num">{scanned.vin}</span>: a module from another vehicle, or a wrong
					copy here.
				</p>
			{/if}
		{/if}
	{/snippet}
	<form method="POST" action="?/vehicle" use:enhance>
		<div class="grid gap-4 sm:grid-cols-[2fr_1fr]">
			<Field label="Vehicle identification number" {hint} errors={$errors.vin}>
				<input
					class="field num uppercase"
					maxlength="24"
					autocapitalize="characters"
					spellcheck="false"
					bind:value={$form.vin}
				/>
			</Field>
			<Field label="Odometer, {unitOf('distance')}" errors={$errors.odometerKm}>
				<QuantityInput kind="distance" whole min={0} step={1} bind:value={$form.odometerKm} />
			</Field>
		</div>
		<VinCamera onvin={(vin) => ($form.vin = vin)} />
		{#if scanned.vin && $form.vin === scanned.vin}<p class="mt-1 text-ink-2">
				Told by the vehicle itself: hold it against the plate.
			</p>{/if}
		{#if $message !== undefined || $form.same}<Tick
				words="It is the same vehicle"
				checked={$form.same}
				onchange={(on) => ($form.same = on)}
			/>{/if}
		<FormFoot {made} />
	</form>
</Section>
