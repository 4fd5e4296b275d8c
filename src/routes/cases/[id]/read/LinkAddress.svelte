<script lang="ts">
	import { untrack } from 'svelte';
	import type { SuperValidated } from 'sveltekit-superforms';
	import { entryForm } from '$lib/ui/entryForm.svelte';
	import Field from '$lib/ui/Field.svelte';

	/** Where the vehicle's interface answers, and the way to change it. */
	let {
		data,
		saved,
		caseId
	}: { data: SuperValidated<{ address: string }, string>; saved: string | null; caseId: string } = $props();
	let asked = $state(false);
	const made = entryForm(() => data, {
		id: 'address-form',
		draftKey: untrack(() => `${caseId}:address`),
		onSaved: () => (asked = false)
	});
	const { form, errors, enhance } = made;
</script>

{#if saved && !asked}
	<p class="text-sm text-ink-2">
		Interface at <span class="num">{saved}</span>
		<button class="min-h-11 cursor-pointer px-1 underline underline-offset-4" onclick={() => (asked = true)}
			>change</button
		>
	</p>
{:else}
	<form method="POST" action="?/address" use:enhance class="mt-3 flex flex-wrap items-end gap-3">
		<div class="w-72">
			<Field
				label="Interface address"
				hint="host:port; slcan://host:port for a CAN adapter"
				errors={$errors.address}
			>
				<input class="field num" bind:value={$form.address} placeholder="192.168.4.1:13400" />
			</Field>
		</div>
		<button class="act-quiet mb-6">Save the address</button>
	</form>
{/if}
