<script lang="ts">
	import { untrack } from 'svelte';
	import type { SuperValidated } from 'sveltekit-superforms';
	import type { z } from 'zod';
	import type { PayloadOf } from '$lib/case/entries/entry';
	import { positionWords, upperFirst } from '$lib/case/words';
	import { entryForm } from '$lib/ui/entryForm.svelte';
	import Field from '$lib/ui/Field.svelte';
	import FormFoot from '$lib/ui/FormFoot.svelte';
	import type { TyresForm } from './forms';
	import Section from './Section.svelte';
	import QuantityInput from '$lib/ui/QuantityInput.svelte';
	import { shown, unitOf } from '$lib/ui/units';

	interface Props {
		saved: PayloadOf<'tyres-fitted'> | null;
		data: SuperValidated<z.infer<typeof TyresForm>, string>;
		caseId: string;
		canWrite: boolean;
	}
	let { saved, data, caseId, canWrite }: Props = $props();
	let editing = $state(false);
	const made = entryForm(() => data, {
		id: 'tyres-form',
		draftKey: untrack(() => `${caseId}:tyres`),
		waits: 'Tyres',
		onSaved: () => (editing = false)
	});
	const { form, errors, enhance } = made;
	const mixed = $derived(new Set(saved?.tyres.map((t) => t.size)).size > 1);

	/** Copies the first corner to the corners that are still empty. */
	function sameAllRound() {
		const [first] = $form.tyres;
		if (!first) return;
		$form.tyres = $form.tyres.map((tyre) =>
			tyre.size === '' ? { ...first, position: tyre.position } : tyre
		);
	}
</script>

<Section id="tyres" title="Tyres, read from the sidewall" saved={saved !== null} {canWrite} bind:editing>
	{#snippet summary()}
		{#if saved}
			<table class="w-full max-w-2xl text-left">
				<tbody>
					{#each saved.tyres as tyre, nth (nth)}
						<tr class="[&>td]:py-1 [&>td]:pr-4">
							<td>{positionWords(tyre.position)}</td>
							<td class="num font-semibold">{tyre.size}</td>
							<td>{tyre.brand}</td>
							<td class="num text-right">{tyre.treadMm === null ? '' : shown(tyre.treadMm, 'length', 1)}</td>
							<td class="num text-right"
								>{tyre.pressureKpa === null ? '' : shown(tyre.pressureKpa, 'pressure')}</td
							>
						</tr>
					{/each}
				</tbody>
			</table>
			{#if saved.placard}<p class="mt-2">
					Should be {[...new Set(saved.placard.map(({ size }) => size))].join(', from front to rear ')}.
				</p>{/if}
			{#if mixed}<p class="mt-2 font-semibold">
					The sizes differ: wheel speeds will differ by the same percentage at every speed.
				</p>{/if}
		{/if}
	{/snippet}
	<form method="POST" action="?/tyres" use:enhance>
		<div class="hidden grid-cols-[7rem_2fr_2fr_1fr_1fr] gap-3 text-sm text-ink-2 sm:grid" aria-hidden="true">
			<span></span><span>size</span><span>brand</span><span>tread, {unitOf('length')}</span><span
				>pressure, {unitOf('pressure')}</span
			>
		</div>
		{#each $form.tyres as tyre, i (i)}
			<div class="grid items-start gap-3 py-1.5 sm:grid-cols-[7rem_2fr_2fr_1fr_1fr]">
				<span class="pt-2.5">{positionWords(tyre.position)}</span>
				<div>
					<input
						class="field num"
						aria-label="Size {positionWords(tyre.position)}"
						placeholder={i === 0 ? '205/65R16C' : ''}
						bind:value={$form.tyres[i]!.size}
						aria-invalid={$errors.tyres?.[i]?.size ? 'true' : undefined}
					/>
					{#if $errors.tyres?.[i]?.size}<span class="mt-1 block font-semibold"
							>{$errors.tyres[i]?.size?.[0]}</span
						>{/if}
				</div>
				<input
					class="field"
					aria-label="Brand {positionWords(tyre.position)}"
					bind:value={$form.tyres[i]!.brand}
				/>
				<QuantityInput
					kind="length"
					digits={1}
					min={0}
					label="Tread {positionWords(tyre.position)}, {unitOf('length')}"
					bind:value={$form.tyres[i]!.treadMm}
				/>
				<QuantityInput
					kind="pressure"
					min={0}
					label="Pressure {positionWords(tyre.position)}, {unitOf('pressure')}"
					bind:value={$form.tyres[i]!.pressureKpa}
				/>
			</div>
		{/each}
		<button type="button" class="act-quiet mt-2" onclick={sameAllRound}>The same all round</button>
		<fieldset class="mt-4">
			<legend class="font-semibold">What belongs on it, by the placard in the door or the handbook</legend>
			<p class="text-ink-2">Two axles that differ do not say which is wrong; this does.</p>
			<div class="mt-1 grid gap-4 sm:grid-cols-[repeat(auto-fill,minmax(12rem,1fr))]">
				{#each $form.placard as row, i (i)}
					<Field label="{upperFirst(row.words)}, by the placard" errors={$errors.placard?.[i]?.size}
						><input class="field num" bind:value={$form.placard[i]!.size} /></Field
					>
				{/each}
			</div>
		</fieldset>
		<FormFoot {made} />
	</form>
</Section>
