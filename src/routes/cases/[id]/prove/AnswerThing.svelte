<script lang="ts">
	import { untrack } from 'svelte';
	import { ANSWER_CHOICES } from '$lib/case/listen/complaintWords';
	import { entryForm } from '$lib/ui/entryForm.svelte';
	import Field from '$lib/ui/Field.svelte';
	import FormFoot from '$lib/ui/FormFoot.svelte';
	import OneOf from '$lib/ui/OneOf.svelte';
	import type { PageData } from './$types';

	/** What came of one thing that the customer said, with how it was tried or what explains it. */
	let { one, data }: { one: PageData['complaint'][number]; data: PageData } = $props();
	const key = untrack(() => one.key);
	const made = entryForm(() => data.answerForm, {
		id: `answer-${key}`,
		draftKey: untrack(() => `${data.case.id}:answer:${key}`),
		waits: 'Answer to the complaint',
		about: () => ({ what: one.what, thing: one.thing })
	});
	const { form, errors, enhance } = made;
	const choices = $derived(ANSWER_CHOICES.filter(({ how }) => how !== 'gone' || data.mended));
	const chosen = $derived(choices.find(({ how }) => how === $form.how) ?? choices[0]);
</script>

<details>
	<summary class="min-h-11 cursor-pointer py-2.5 font-semibold"
		>{one.answer ? 'Say something else of it' : 'Say what came of it'}</summary
	>
	<form method="POST" action="?/answer" use:enhance>
		<OneOf
			label="It"
			name="{key}-how"
			options={choices.map(({ label }) => label)}
			bind:value={
				() => chosen?.label ?? '',
				(label) => ($form.how = choices.find((each) => each.label === label)?.how ?? $form.how)
			}
		/>
		<div class="mt-3">
			<Field label={chosen?.asks ?? ''} errors={$errors.reason}
				><input class="field" bind:value={$form.reason} /></Field
			>
		</div>
		<FormFoot {made} save="Save it" />
	</form>
</details>
