<script lang="ts">
	import { tick, untrack } from 'svelte';
	import type { SuperValidated } from 'sveltekit-superforms';
	import type { z } from 'zod';
	import { entryForm } from '$lib/ui/entryForm.svelte';
	import Pick, { type Picked } from '$lib/ui/Pick.svelte';
	import FormFoot from '$lib/ui/FormFoot.svelte';
	import CustomerFields from '../../../(shop)/customers/CustomerFields.svelte';
	import type { CustomerForm } from './forms';
	import Section from './Section.svelte';

	interface Known {
		id: string;
		name: string;
		phone: string;
		email: string;
	}
	interface Props {
		saved: Known | null;
		/** Whether the thread names somebody; they may have been taken out since. */
		named: boolean;
		/** Who brought this vehicle in the last time. */
		before: Known | null;
		data: SuperValidated<z.infer<typeof CustomerForm>, string>;
		caseId: string;
		canWrite: boolean;
	}
	let { saved, named, before, data, caseId, canWrite }: Props = $props();
	let editing = $state(false);
	let isNew = $state(false);
	const made = entryForm(() => data, {
		id: 'customer-form',
		draftKey: untrack(() => `${caseId}:customer`),
		onSaved: () => (editing = isNew = false)
	});
	const { form, errors, enhance } = made;
	let typed = $state('');
	let sender: HTMLFormElement;

	const reachedBy = ({ phone, email }: Known) => [phone, email].filter(Boolean).join(', ');
	const asPicked = (one: Known): Picked => ({ id: one.id, name: one.name, detail: reachedBy(one) });
	async function find(text: string): Promise<Picked[]> {
		const answer = await fetch(`/customers/find?${new URLSearchParams({ q: text })}`).catch(() => null);
		const those: Known[] = answer?.ok ? await answer.json() : [];
		return those.map(asPicked);
	}
	const offered = $derived(before ? [{ ...asPicked(before), pick: 'The same as the last time' }] : []);
	async function take({ id }: Picked) {
		$form.customer = id;
		await tick();
		sender.requestSubmit();
	}
</script>

<Section id="customer" title="Customer" saved={named} {canWrite} bind:editing>
	{#snippet summary()}
		{#if saved}
			<p class="text-lg">
				<a class="underline underline-offset-4" href="/customers/{saved.id}">{saved.name}</a>
				{#if saved.phone}<a class="num ml-4 underline underline-offset-4" href="tel:{saved.phone}"
						>{saved.phone}</a
					>{/if}
			</p>
		{:else}<p class="text-ink-2">They do not stand in this shop’s list, or no longer.</p>{/if}
	{/snippet}
	<form bind:this={sender} method="POST" action="?/customer" use:enhance>
		{#if isNew}
			<CustomerFields bind:values={$form} errors={$errors} />
			<button
				type="button"
				class="mt-2 min-h-11 cursor-pointer underline underline-offset-4"
				onclick={() => (isNew = false)}>Somebody we know</button
			>
			<FormFoot {made} />
		{:else}
			<Pick
				label="Who brings it?"
				placeholder="name, number or e-mail"
				{find}
				{offered}
				pick="It is them"
				nothing="Nobody of that kind yet."
				onpick={(one) => void take(one)}
				bind:typed
			/>
			<button
				type="button"
				class="act-quiet mt-3"
				onclick={() => {
					isNew = true;
					$form.customer = '';
					if ($form.name === '') $form.name = typed;
				}}>New customer</button
			>
		{/if}
	</form>
</Section>
