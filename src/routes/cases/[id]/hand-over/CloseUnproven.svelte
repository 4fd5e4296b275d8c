<script lang="ts">
	import { untrack } from 'svelte';
	import AskOnce from '$lib/ui/AskOnce.svelte';
	import { entryForm } from '$lib/ui/entryForm.svelte';
	import Field from '$lib/ui/Field.svelte';
	import AddedSince from './AddedSince.svelte';
	import { addedSince } from './addedSince';
	import type { PageData } from './$types';

	/** A lead's way to end a case that cannot be proven: with a reason, and with all that is open on the papers. */
	let { data }: { data: PageData } = $props();
	const made = entryForm(() => data.unprovenForm, {
		id: 'unproven-form',
		draftKey: untrack(() => `${data.case.id}:unproven`)
	});
	const { form, errors, enhance, message } = made;
	const added = $derived(addedSince(data.case, $form.head));
</script>

<details class="no-print mt-4">
	<summary class="min-h-11 cursor-pointer py-2">It cannot be proven: close it with things open</summary>
	{#if data.notUnproven !== null}
		<p class="mt-1">Not yet: {data.notUnproven}</p>
	{:else}
		<p class="mt-1 max-w-xl">
			The customer takes it as it is, the vehicle is gone, a part will not come. The papers then say first
			that it is not proven and what stands open, and nobody’s odds learn from it.
		</p>
		<form method="POST" action="?/unproven" use:enhance class="mt-2 max-w-xl">
			<Field label="Why it is closed unproven" errors={$errors.statement}
				><textarea class="field" rows="3" bind:value={$form.statement}></textarea></Field
			>
			{#if added.length > 0}
				<AddedSince {added} onlooked={() => ($form.head = data.case.headHash)} />
			{:else}
				{#if $message}<p role="alert" class="mt-3 border-l-4 border-ink pl-3 font-semibold">
						{$message}
					</p>{/if}
				<p class="mt-3">
					<AskOnce
						label="Close it unproven"
						ask="Closed with your name, the thread ends here: nothing is added to it any more."
						yes="Close it"
					/>
				</p>
			{/if}
		</form>
	{/if}
</details>
