<script lang="ts">
	import { untrack } from 'svelte';
	import type { SuperValidated } from 'sveltekit-superforms';
	import type { z } from 'zod';
	import { accountForm } from '$lib/ui/accountForm';
	import CustomerFields from '../CustomerFields.svelte';
	import type { ChangedCustomer } from '../forms';

	/** What is written down of one customer, to be put right. */
	let { id, data }: { id: string; data: SuperValidated<z.infer<typeof ChangedCustomer>, string> } = $props();
	const { form, errors, message, enhance, submitting } = accountForm(
		untrack(() => data),
		{ dataType: 'json', draftKey: untrack(() => `customer:${id}`) }
	);
</script>

<section class="mt-10 max-w-3xl border-t border-rule pt-5" aria-labelledby="change">
	<h2 id="change" class="text-lg font-bold">What is written down</h2>
	<form method="POST" action="?/change" use:enhance class="mt-3">
		<CustomerFields bind:values={$form} errors={$errors} />
		{#if $message}<p role="status" class="mt-3 font-semibold">{$message}</p>{/if}
		<button class="act mt-4" disabled={$submitting}>Save</button>
	</form>
</section>
