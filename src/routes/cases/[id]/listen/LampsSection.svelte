<script lang="ts">
	import { untrack } from 'svelte';
	import type { SuperValidated } from 'sveltekit-superforms';
	import type { z } from 'zod';
	import type { PayloadOf } from '$lib/case/entries/entry';
	import { entryForm } from '$lib/ui/entryForm.svelte';
	import OneOf from '$lib/ui/OneOf.svelte';
	import FormFoot from '$lib/ui/FormFoot.svelte';
	import { circumstances } from '$library/vocabulary';
	import type { LampsForm } from './forms';
	import Section from './Section.svelte';

	interface Props {
		saved: PayloadOf<'lamps-reported'> | null;
		data: SuperValidated<z.infer<typeof LampsForm>, string>;
		caseId: string;
		canWrite: boolean;
	}
	let { saved, data, caseId, canWrite }: Props = $props();
	let editing = $state(false);
	const made = entryForm(() => data, {
		id: 'lamps-form',
		draftKey: untrack(() => `${caseId}:lamps`),
		waits: 'Lamps',
		onSaved: () => (editing = false)
	});
	const { form, enhance } = made;
	const MANNERS = ['off', 'steady', 'flashing'] as const;
	const WHEN = [
		'stays on from key-on',
		'never lights at key-on',
		'comes on when moving',
		...[...circumstances.values()].map(({ words }) => words)
	];
</script>

<Section id="lamps-reported" title="Lamps" saved={saved !== null} {canWrite} bind:editing>
	{#snippet summary()}
		{#if saved && saved.lamps.length > 0}
			<ul class="text-lg">
				{#each saved.lamps as { lamp, manner, when }, nth (nth)}<li>
						<strong>{lamp}</strong>
						{manner}, {when}
					</li>{/each}
			</ul>
		{:else}<p class="text-lg">No lamp reported.</p>{/if}
	{/snippet}
	<form method="POST" action="?/lamps" use:enhance>
		<datalist id="lamp-when"
			>{#each WHEN as words (words)}<option value={words}></option>{/each}</datalist
		>
		<ul>
			{#each $form.lamps as row, i (i)}
				<li class="hair grid items-center gap-x-4 gap-y-2 py-2 sm:grid-cols-[10rem_auto_1fr]">
					<span class="font-semibold">{row.lamp}</span>
					<OneOf
						label="{row.lamp} lamp"
						name="{row.lamp}-manner"
						options={MANNERS}
						bind:value={$form.lamps[i]!.manner}
					/>
					{#if row.manner !== 'off'}
						<input
							class="field"
							aria-label="When the {row.lamp} lamp lights"
							list="lamp-when"
							placeholder="when?"
							bind:value={$form.lamps[i]!.when}
						/>
					{/if}
				</li>
			{/each}
		</ul>
		<FormFoot {made} />
	</form>
</Section>
