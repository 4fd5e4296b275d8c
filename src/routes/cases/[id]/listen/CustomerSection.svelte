<script lang="ts">
	import { untrack } from 'svelte';
	import type { SuperValidated } from 'sveltekit-superforms';
	import type { z } from 'zod';
	import { entryForm } from '$lib/ui/entryForm.svelte';
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
	let found = $state<Known[]>([]);
	let asked = 0;

	async function find() {
		const mine = ++asked;
		const answer = await fetch(`/customers/find?${new URLSearchParams({ q: typed })}`).catch(() => null);
		const those: Known[] = answer?.ok ? await answer.json() : [];
		// The answer to what was typed last counts.
		if (mine === asked) found = those;
	}
	const offered = $derived(typed.trim() === '' && before ? [before] : found);
	const reachedBy = ({ phone, email }: Known) => [phone, email].filter(Boolean).join(', ');
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
		{:else}<p class="text-ink-2">They were taken out of the shop’s list.</p>{/if}
	{/snippet}
	<form method="POST" action="?/customer" use:enhance>
		{#if isNew}
			<CustomerFields bind:values={$form} errors={$errors} />
			<button
				type="button"
				class="mt-2 min-h-11 cursor-pointer underline underline-offset-4"
				onclick={() => (isNew = false)}>Somebody we know</button
			>
			<FormFoot {made} />
		{:else}
			<label class="block max-w-xl"
				><span class="mb-1 block font-semibold">Who brings it?</span>
				<input
					class="field"
					autocomplete="off"
					maxlength="100"
					placeholder="name, number or e-mail"
					bind:value={typed}
					oninput={() => void find()}
					onkeydown={(event) => event.key === 'Enter' && event.preventDefault()}
				/></label
			>
			{#if offered.length > 0}
				<ul class="mt-2 max-w-xl">
					{#each offered as one (one.id)}
						<li class="hair flex flex-wrap items-center justify-between gap-x-4">
							<span
								><strong>{one.name}</strong>
								<span class="num ml-2">{reachedBy(one)}</span>{#if one === before}
									<span class="ml-2 text-ink-2">as the last time</span>{/if}</span
							>
							<button class="act-quiet my-1" onclick={() => ($form.customer = one.id)}
								>{one === before ? 'The same again' : 'It is them'}</button
							>
						</li>
					{/each}
				</ul>
			{:else if typed.trim() !== ''}<p class="mt-2">Nobody of that kind yet.</p>{/if}
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
