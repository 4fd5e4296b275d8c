<script lang="ts">
	import { untrack } from 'svelte';
	import { MARK_NAMES } from '$lib/case/proof/proofView';
	import type { WAIVABLE } from '$lib/core/prove/proof';
	import { entryForm } from '$lib/ui/entryForm.svelte';
	import Field from '$lib/ui/Field.svelte';
	import FormFoot from '$lib/ui/FormFoot.svelte';
	import OneOf from '$lib/ui/OneOf.svelte';
	import type { PageData } from './$types';

	/** A lead releases a code that is not wholly proven: by name, with a reason, and with the customer's word. */
	type Waivable = (typeof WAIVABLE)[number];
	let { code, data }: { code: PageData['codes'][number]; data: PageData } = $props();
	const key = untrack(() => code.key);
	const letGo = entryForm(() => data.letGoForm, {
		id: `let-go-${key}`,
		draftKey: untrack(() => `${data.case.id}:let-go:${key}`),
		waits: 'Proof let go',
		about: () => ({ code: key })
	});
	const { form, errors, enhance } = letGo;
	const open = $derived(code.proof.waivable as Waivable[]);
	$effect(() => {
		if (!open.includes($form.mark) && open[0]) $form.mark = open[0];
	});
	const mark = $derived(open.includes($form.mark) ? $form.mark : (open[0] ?? 'exposure'));
</script>

<details>
	<summary class="min-h-11 cursor-pointer py-2.5 font-semibold">Release it without, in your name</summary>
	<form method="POST" action="?/letGo" use:enhance>
		{#if open.length > 1}
			<OneOf
				label="Without"
				name="{key}-without"
				options={open.map((one) => MARK_NAMES[one])}
				bind:value={
					() => MARK_NAMES[mark],
					(name) => ($form.mark = open.find((one) => MARK_NAMES[one] === name) ?? mark)
				}
			/>
		{:else}<p>Without: {MARK_NAMES[mark]}.</p>{/if}
		<div class="mt-3 grid gap-4 sm:grid-cols-2">
			<Field label="Why" errors={$errors.reason}><input class="field" bind:value={$form.reason} /></Field>
			<Field label="What the customer said to it"><input class="field" bind:value={$form.customer} /></Field>
		</div>
		<FormFoot made={letGo} save="Release it, in my name" />
	</form>
</details>
