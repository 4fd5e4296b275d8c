<script lang="ts">
	import { untrack } from 'svelte';
	import type { SuperValidated } from 'sveltekit-superforms';
	import { complaintDetails } from '$lib/case/listen/complaint';
	import type { PayloadOf } from '$lib/case/entries/entry';
	import { circumstances, symptoms } from '$library/vocabulary';
	import { entryForm } from '$lib/ui/entryForm.svelte';
	import Field from '$lib/ui/Field.svelte';
	import FormFoot from '$lib/ui/FormFoot.svelte';
	import Choices from './Choices.svelte';
	import type { ComplaintForm } from './forms';
	import Section from './Section.svelte';
	import type { z } from 'zod';
	import QuantityInput from '$lib/ui/QuantityInput.svelte';
	import { said, unitOf } from '$lib/ui/units';

	interface Props {
		saved: PayloadOf<'complaint'> | null;
		data: SuperValidated<z.infer<typeof ComplaintForm>, string>;
		caseId: string;
		canWrite: boolean;
	}
	let { saved, data, caseId, canWrite }: Props = $props();
	let editing = $state(false);
	const made = entryForm(() => data, {
		id: 'complaint-form',
		draftKey: untrack(() => `${caseId}:complaint`),
		waits: 'Complaint',
		onSaved: () => (editing = false)
	});
	const { form, errors, enhance } = made;
</script>

<Section id="complaint" title="Complaint" saved={saved !== null} {canWrite} bind:editing>
	{#snippet summary()}
		<p class="text-lg">“{saved?.words}”</p>
		{#if saved && complaintDetails(saved).length > 0}
			<p class="mt-1 text-ink-2">{complaintDetails(saved).map(said).join(' · ')}</p>
		{/if}
	{/snippet}
	<form method="POST" action="?/complaint" use:enhance>
		<Field label="In the customer’s own words" errors={$errors.words}>
			<textarea
				class="field"
				rows="2"
				bind:value={$form.words}
				placeholder="The lamp comes on when we leave the ferry"></textarea>
		</Field>
		<Choices
			label="What is felt"
			list={symptoms}
			typed={$form.words}
			bind:chosen={$form.felt}
			bind:own={$form.symptoms}
		/>
		<Choices
			label="When"
			list={circumstances}
			typed={$form.words}
			bind:chosen={$form.when}
			bind:own={$form.conditions}
		/>
		<div class="mt-3 max-w-60">
			<Field label="At about what speed, {unitOf('speed')}" errors={$errors.atKmh}
				><QuantityInput kind="speed" class="field num" bind:value={$form.atKmh} /></Field
			>
		</div>
		<FormFoot {made} />
	</form>
</Section>
