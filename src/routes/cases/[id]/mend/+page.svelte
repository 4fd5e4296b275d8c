<script lang="ts">
	import AgreedLine from '$lib/ui/AgreedLine.svelte';
	import { untrack } from 'svelte';
	import { goOn } from '../../../goOn';
	import { GRADES } from '$lib/case/entries/shapes';
	import { positionWords } from '$lib/case/words';
	import Caution from '$lib/ui/Caution.svelte';
	import { entryForm } from '$lib/ui/entryForm.svelte';
	import Field from '$lib/ui/Field.svelte';
	import FormFoot from '$lib/ui/FormFoot.svelte';

	import RepairChoice from './RepairChoice.svelte';
	import MendNav from './MendNav.svelte';

	let { data } = $props();
	const caseId = untrack(() => data.case.id);
	const repair = entryForm(() => data.repairForm, {
		id: 'repair-form',
		draftKey: `${caseId}:repair`,
		waits: 'Repair',
		onSaved: () => goOn(`/cases/${caseId}/mend`)
	});
	const { form, errors, enhance } = repair;
	const note = entryForm(() => data.noteForm, { id: 'note-form', draftKey: `${caseId}:note`, waits: 'Note' });
	const { form: noteForm, errors: noteErrors, enhance: noteEnhance } = note;
</script>

<svelte:head><title>{data.case.number} Mend · Jaldi</title></svelte:head>
<section class="pt-5">
	<h1 class="text-2xl font-bold">
		{data.repairs.length === 0
			? 'Nothing is mended yet'
			: data.repairs.length === 1
				? 'One repair is written down'
				: `${data.repairs.length} repairs are written down`}
	</h1>
	{#if data.repairs.length === 0 && data.codes.length > 0}
		<p class="mt-1 text-ink-2">
			{[...new Set(data.codes.map((c) => c.text))].join(', ')}: a code names a circuit, never a part.
		</p>
	{/if}
	<MendNav caseId={data.case.id} here="" />
	<AgreedLine words={data.openWithCustomer} href="/cases/{data.case.id}/mend/estimate" />
	<ol class="mt-2 [&>li:first-child]:border-t-0">
		{#each data.repairs as done (done.id)}
			<li class="hair flex flex-wrap items-baseline justify-between gap-x-4 py-3">
				<div>
					<p class="text-lg font-bold">{done.title}{done.temporary ? ' (temporary)' : ''}</p>
					<p>
						{[
							done.position ? positionWords(done.position) : null,
							...done.parts.map((p) => `${p.name}${p.number ? ` ${p.number}` : ''}, ${p.grade}`)
						]
							.filter(Boolean)
							.join(' · ')}
					</p>
					{#if done.note}<p class="text-ink-2">{done.note}</p>{/if}
				</div>
				<p class="flex items-center gap-3 text-sm text-ink-2">
					<span class="num">{done.time}</span>{done.by}
					{#if data.canWrite && !data.case.signed}<a
							class="inline-flex min-h-11 items-center underline underline-offset-4"
							href="?correct={done.id}"
							data-sveltekit-noscroll>Correct</a
						>{/if}
				</p>
			</li>
		{/each}
	</ol>
</section>

{#if data.canWrite && !data.case.signed}
	<Caution>
		{data.cautions} The maker’s procedure and local law come first.
	</Caution>
	<section id="repair" aria-labelledby="repair-title" class="py-2">
		<h2 id="repair-title" class="text-lg font-bold">
			{data.correcting ? 'Correct the repair' : 'What was done'}
		</h2>
		<form method="POST" action="?/repair" use:enhance class="mt-3 space-y-4">
			<div class="grid gap-4 sm:grid-cols-[2fr_1fr]">
				<Field label="Done" errors={$errors.title}
					><input class="field" placeholder="Lead to the sensor renewed" bind:value={$form.title} /></Field
				>
				<Field label="Where">
					<select class="field" bind:value={$form.position}>
						<option value="">not at a wheel</option>
						{#each data.positions as position, nth (nth)}<option value={position}
								>{positionWords(position)}</option
							>{/each}
					</select>
				</Field>
			</div>
			{#each $form.parts as _, i (i)}
				<div class="grid items-start gap-3 sm:grid-cols-[2fr_1fr_1fr_auto]">
					<div>
						<input
							class="field"
							aria-label="Part {i + 1}"
							placeholder="part fitted"
							bind:value={$form.parts[i]!.name}
							aria-invalid={$errors.parts?.[i]?.name ? 'true' : undefined}
						/>
						{#if $errors.parts?.[i]?.name}<span class="mt-1 block font-semibold"
								>{$errors.parts[i]?.name?.[0]}</span
							>{/if}
					</div>
					<input
						class="field num"
						aria-label="Part number"
						placeholder="number"
						bind:value={$form.parts[i]!.number}
					/>
					<select class="field" aria-label="Grade" bind:value={$form.parts[i]!.grade}>
						{#each GRADES as grade (grade)}<option value={grade}>{grade}</option>{/each}
					</select>
					<button
						type="button"
						class="act-quiet"
						onclick={() => ($form.parts = $form.parts.filter((_, at) => at !== i))}>Remove</button
					>
				</div>
			{/each}
			<div class="flex flex-wrap items-center gap-5">
				<button
					type="button"
					class="act-quiet"
					onclick={() => ($form.parts = [...$form.parts, { name: '', number: '', grade: 'maker’s own' }])}
					>Add a part fitted</button
				>
				<label class="flex min-h-11 cursor-pointer items-center gap-3"
					><input type="checkbox" class="checkbox" bind:checked={$form.temporary} /> temporary: it has to be done
					again</label
				>
			</div>
			{#if $form.does && data.chosen}
				<p>
					<a
						class="inline-flex min-h-11 items-center underline underline-offset-4"
						href="/cases/{data.case.id}/mend/plan?does={data.chosen.kind}&place={data.chosen.place}"
						>{data.chosen.calibrates
							? 'It can be done through the link: look before it begins'
							: 'Can this shop finish it, and is there a better way? Look before it begins'}</a
					>
				</p>
			{/if}
			<RepairChoice
				kinds={data.kinds}
				typed={[$form.title, ...$form.parts.map(({ name }) => name)].join(' ')}
				position={$form.position}
				bind:does={$form.does}
			/>
			<Field label="Note" errors={$errors.note}
				><textarea
					class="field"
					rows="2"
					bind:value={$form.note}
					placeholder="routing, torque, what was found"></textarea></Field
			>
			<FormFoot made={repair} save="Save the repair" />
		</form>
	</section>
	<section aria-labelledby="note-title" class="mt-6 border-t border-rule py-5">
		<h2 id="note-title" class="text-lg font-bold">A reading or a thought</h2>
		<form method="POST" action="?/note" use:noteEnhance class="mt-2">
			<Field label="Note for the thread" errors={$noteErrors.text}
				><textarea class="field" rows="2" bind:value={$noteForm.text}></textarea></Field
			>
			<FormFoot made={note} save="Save the note" />
		</form>
	</section>
{/if}
{#if data.notes.length > 0}
	<section class="py-4">
		<h2 class="font-bold">Notes</h2>
		{#each data.notes as { id, time, by, text } (id)}<p class="hair py-2">
				{text} <span class="text-sm text-ink-2"><span class="num">{time}</span> {by}</span>
			</p>{/each}
	</section>
{/if}
