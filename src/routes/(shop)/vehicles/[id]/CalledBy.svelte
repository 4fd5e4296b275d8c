<script lang="ts">
	import { untrack } from 'svelte';
	import type { SuperValidated } from 'sveltekit-superforms';
	import { accountForm } from '$lib/ui/accountForm';
	import Field from '$lib/ui/Field.svelte';

	/** What one vehicle is called by, to be put right. */
	let {
		id,
		data
	}: {
		id: string;
		data: SuperValidated<{ nickname: string; plate: string; vin: string; version: number }, string>;
	} = $props();
	const { form, errors, message, enhance, submitting } = accountForm(
		untrack(() => data),
		{ dataType: 'json', draftKey: untrack(() => `vehicle:${id}`) }
	);
</script>

<section class="mt-10 max-w-3xl border-t border-rule pt-5" aria-labelledby="called">
	<h2 id="called" class="text-lg font-bold">What it is called by</h2>
	<form method="POST" use:enhance class="mt-3">
		<div class="grid gap-4 sm:grid-cols-3">
			<Field label="Name in the shop" errors={$errors.nickname}
				><input class="field" maxlength="80" bind:value={$form.nickname} /></Field
			>
			<Field label="Plate" errors={$errors.plate}
				><input class="field num" maxlength="20" bind:value={$form.plate} /></Field
			>
			<Field label="Its number (VIN)" errors={$errors.vin}
				><input class="field num" maxlength="40" bind:value={$form.vin} /></Field
			>
		</div>
		<div class="mt-4 flex flex-wrap items-center gap-4">
			<button class="act" disabled={$submitting}>Save</button>
			{#if $message}<span role="status">{$message}</span>{/if}
		</div>
	</form>
</section>
