<script lang="ts">
	import { untrack } from 'svelte';
	import type { StandingItem } from '$lib/case/progress/standingItems';
	import { entryForm } from '$lib/ui/entryForm.svelte';
	import Field from '$lib/ui/Field.svelte';
	import FormFoot from '$lib/ui/FormFoot.svelte';
	import type { PageData } from './$types';
	import { said as inOurs } from '$lib/ui/units';

	/** Something that stands before the signature: where it is settled, and a lead's way to let it go by name. */
	let { item, data }: { item: StandingItem; data: PageData } = $props();
	let releasing = $state(false);
	const about = untrack(() => ({ subject: item.subject, of: item.of, words: item.words }));
	const made = entryForm(() => data.releaseForm, {
		id: untrack(() => `release-${item.of}`),
		draftKey: untrack(() => `${data.case.id}:release:${item.of}`),
		about: () => about,
		onSaved: () => (releasing = false)
	});
	const { form, errors, enhance } = made;
</script>

<div class="hair mt-3 py-2">
	<p>{inOurs(item.words)}</p>
	<div class="no-print mt-1 flex flex-wrap gap-3">
		<a class="act-quiet" href="/cases/{data.case.id}/{item.page}">Go to it</a>
		{#if data.maySign}
			<button
				type="button"
				class="act-quiet"
				aria-expanded={releasing}
				onclick={() => (releasing = !releasing)}>Release it</button
			>
		{/if}
	</div>
	{#if releasing}
		<form method="POST" action="?/release" use:enhance class="no-print mt-2 max-w-xl">
			<Field label="Why may it stand?" errors={$errors.reason}
				><textarea class="field" rows="2" bind:value={$form.reason}></textarea></Field
			>
			<FormFoot {made} save="Release it, in my name" />
		</form>
	{/if}
</div>
