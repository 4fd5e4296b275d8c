<script lang="ts">
	import { untrack } from 'svelte';
	import type { SuperValidated } from 'sveltekit-superforms';
	import type { z } from 'zod';
	import { GRADES } from '$lib/case/entries/shapes';
	import { AGO, FITTERS } from '$lib/case/entries/prior-work/payload';
	import { positionWords } from '$lib/case/words';
	import type { PayloadOf } from '$lib/case/entries/entry';
	import { entryForm } from '$lib/ui/entryForm.svelte';
	import Field from '$lib/ui/Field.svelte';
	import FormFoot from '$lib/ui/FormFoot.svelte';
	import { offeredFor, works } from '$library/vocabulary';
	import type { PriorWorkForm } from './forms';
	import Section from './Section.svelte';

	interface Props {
		saved: PayloadOf<'prior-work'> | null;
		data: SuperValidated<z.infer<typeof PriorWorkForm>, string>;
		caseId: string;
		canWrite: boolean;
		positions: { position: string; words: string }[];
	}
	let { saved, data, caseId, canWrite, positions }: Props = $props();
	let editing = $state(false);
	const made = entryForm(() => data, {
		id: 'work-form',
		draftKey: untrack(() => `${caseId}:work`),
		waits: 'Work done before',
		onSaved: () => (editing = false)
	});
	const { form, errors, enhance } = made;
	const NEW = {
		part: '',
		work: '',
		when: '',
		by: '',
		grade: 'unknown',
		position: '',
		ago: '',
		fitter: '',
		seen: '',
		stayed: ''
	} as const;
	/** What the typed part sounds like, as long as nothing is chosen. */
	const offered = (i: number) => {
		const one = $form.works[i];
		return one && !one.work ? offeredFor(works, one.part, []).slice(0, 2) : [];
	};
</script>

<Section id="prior-work" title="Work already done by others" saved={saved !== null} {canWrite} bind:editing>
	{#snippet summary()}
		{#if saved && saved.works.length > 0}
			<ul class="text-lg">
				{#each saved.works as { part, when, by, grade, position, stayed, seen }, i (i)}
					<li>
						<strong>{part}</strong>{position ? `, ${positionWords(position).toLowerCase()}` : ''}{when
							? `, ${when}`
							: ''}{by ? `, by ${by}` : ''}
						<span class="text-ink-2">({grade}{seen === false ? ', only told' : ''})</span
						>{#if stayed === true}: the fault stayed{:else if stayed === false}: the fault went then{/if}
					</li>
				{/each}
			</ul>
			<p class="text-ink-2">A part replaced by others is not proven good.</p>
		{:else}<p class="text-lg">None known.</p>{/if}
	{/snippet}
	<form method="POST" action="?/work" use:enhance>
		{#each $form.works as _, i (i)}
			<div class="hair grid gap-3 py-3 sm:grid-cols-[2fr_2fr_1fr_1fr_1fr_auto]">
				<div>
					<input
						class="field"
						aria-label="Part {i + 1}"
						placeholder="part"
						bind:value={$form.works[i]!.part}
						aria-invalid={$errors.works?.[i]?.part ? 'true' : undefined}
					/>
					{#if $errors.works?.[i]?.part}<span class="mt-1 block font-semibold"
							>{$errors.works[i]?.part?.[0]}</span
						>{/if}
				</div>
				<select class="field" aria-label="What part {i + 1} is" bind:value={$form.works[i]!.work}>
					<option value="">what it is …</option>
					{#each works.values() as { id, words } (id)}<option value={id}>{words}</option>{/each}
				</select>
				<input class="field" aria-label="When" placeholder="when" bind:value={$form.works[i]!.when} />
				<input class="field" aria-label="By whom" placeholder="by whom" bind:value={$form.works[i]!.by} />
				<select class="field" aria-label="Grade" bind:value={$form.works[i]!.grade}>
					{#each GRADES as grade (grade)}<option value={grade}>{grade}</option>{/each}
				</select>
				<div class="grid gap-3 sm:col-span-full sm:grid-cols-5">
					<Field label="The fault after it"
						><select class="field" bind:value={$form.works[i]!.stayed}
							><option value="">nobody says</option><option value="yes">stayed as before</option><option
								value="no">went</option
							></select
						></Field
					>
					<Field label="At which wheel"
						><select class="field" bind:value={$form.works[i]!.position}
							><option value="">not known, or none</option
							>{#each positions as { position, words }, nth (nth)}<option value={position}>{words}</option
								>{/each}</select
						></Field
					>
					<Field label="How long ago"
						><select class="field" bind:value={$form.works[i]!.ago}
							><option value="">not known</option>{#each AGO as one (one)}<option value={one}>{one}</option
								>{/each}</select
						></Field
					>
					<Field label="Fitted by"
						><select class="field" bind:value={$form.works[i]!.fitter}
							><option value="">not known</option>{#each FITTERS as one (one)}<option value={one}
									>{one}</option
								>{/each}</select
						></Field
					>
					<Field label="Part or bill"
						><select class="field" bind:value={$form.works[i]!.seen}
							><option value="">not asked</option><option value="yes">seen</option><option value="no"
								>only told of</option
							></select
						></Field
					>
				</div>
				{#each offered(i) as { id, words } (id)}
					<button type="button" class="act-quiet order-last" onclick={() => ($form.works[i]!.work = id)}
						>It is: {words}</button
					>
				{/each}
				<button
					type="button"
					class="act-quiet"
					onclick={() => ($form.works = $form.works.filter((_, at) => at !== i))}>Remove</button
				>
			</div>
		{/each}
		<button type="button" class="act-quiet" onclick={() => ($form.works = [...$form.works, { ...NEW }])}
			>Add a part</button
		>
		<FormFoot {made} save={$form.works.length === 0 ? 'Save: none known' : 'Save'} />
	</form>
</Section>
