<script lang="ts">
	import { upperFirst } from '$lib/case/words';
	import { untrack } from 'svelte';
	import { LAMPS, POSITIONS } from '$library/positions';
	import type { Condition } from '$lib/core/conditions/condition';
	import { conditionSentence } from '$lib/core/conditions/conditionSentence';
	import ConditionForm, { freshCondition } from '$lib/ui/ConditionForm.svelte';
	import { entryForm } from '$lib/ui/entryForm.svelte';
	import Field from '$lib/ui/Field.svelte';

	let { data } = $props();
	const made = entryForm(() => data.form, {
		id: 'definition-form',
		draftKey: untrack(() => `code:${data.code}`)
	});
	const { form, errors, message, enhance, submitting } = made;
	const CONDITIONS = [
		{
			field: 'setConditions',
			title: 'What sets it',
			none: 'Not written down: what the module watches, above which limit, for how long.'
		},
		{
			field: 'testConditions',
			title: 'What its test needs to complete as good',
			none: 'Not written down: the drive or the state in which the module can say that all is well.'
		}
	] as const;
	const say = (condition: Condition) =>
		conditionSentence(
			condition,
			(signal) => data.signals.find((s) => s.signal === signal) ?? { name: signal, unit: '', isSwitch: false }
		);
</script>

<svelte:head><title>{data.code}, the shop’s own words · Jaldi</title></svelte:head>
<h1 class="text-2xl font-bold"><span class="num font-normal">{data.code}</span> in this shop’s own words</h1>
<p class="mt-1 text-ink-2">
	{data.from ? `It begins with ${data.from}.` : 'No source describes it yet.'} What you save stands first for everybody;
	other sources and older versions stay beside it.
</p>
<form method="POST" use:enhance class="mt-5 max-w-4xl space-y-5">
	<div class="grid gap-4 sm:grid-cols-[1fr_11rem]">
		<Field label="Called" errors={$errors.title}><input class="field" bind:value={$form.title} /></Field>
		{#if data.isOwn}
			<Field label="It tells of" errors={$errors.failureType}>
				<select class="field" bind:value={$form.failureType}>
					<option value="">no kind of failure</option>
					{#each data.kinds as { byte, text }, nth (nth)}<option value={byte}>{text}</option>{/each}
				</select>
			</Field>
		{:else if !data.heavy}
			<Field label="Only for suffix" hint="empty = every suffix" errors={$errors.failureType}
				><input class="field num" maxlength="2" bind:value={$form.failureType} /></Field
			>
		{/if}
	</div>
	<div class="grid gap-4 sm:grid-cols-3">
		<Field label="Circuit" errors={$errors.group}>
			<select class="field" bind:value={$form.group}>
				{#each data.groups as [group, words], nth (nth)}<option value={group}>{words}</option>{/each}
			</select>
		</Field>
		<Field label="Corner">
			<select class="field" bind:value={$form.corner}>
				<option value="">none</option>
				{#each POSITIONS as corner (corner)}<option value={corner}>{corner.replace('-', ' ')}</option>{/each}
			</select>
		</Field>
		<Field label="Driving">
			<select class="field" bind:value={$form.driving}>
				{#each data.driving as [driving, words], nth (nth)}<option value={driving}>{words}</option>{/each}
			</select>
		</Field>
	</div>
	<fieldset>
		<legend class="mb-1 font-semibold">Lamps it lights</legend>
		<div class="flex flex-wrap gap-x-5">
			{#each LAMPS as lamp (lamp)}
				<label class="inline-flex min-h-11 items-center gap-2"
					><input type="checkbox" class="checkbox" value={lamp} bind:group={$form.lamps} />{lamp}</label
				>
			{/each}
		</div>
	</fieldset>
	{#each CONDITIONS as { field, title, none } (field)}
		{@const condition = $form[field] as Condition | null}
		<section class="hair pt-3" aria-label={title}>
			<h2 class="font-semibold">{title}</h2>
			{#if condition}
				<p class="my-2 border-l-4 border-ink pl-3 text-lg">
					{upperFirst(say(condition))}.
				</p>
				<ConditionForm
					{condition}
					signals={data.signals}
					onchange={(next) => ($form[field] = next as never)}
					onremove={() => ($form[field] = null)}
				/>
				{#if $errors[field]}<p role="alert" class="font-semibold">
						A part of it is not right: no time of zero, no empty number.
					</p>{/if}
			{:else}
				<p class="mt-1 text-ink-2">{none}</p>
				<button
					type="button"
					class="act-quiet mt-2"
					onclick={() => ($form[field] = freshCondition() as never)}>Write it down</button
				>
			{/if}
		</section>
	{/each}
	<div class="grid gap-4 sm:grid-cols-2">
		<Field label="Possible causes" hint="one a line, the likeliest first"
			><textarea class="field" rows="5" bind:value={$form.causes}></textarea></Field
		>
		<Field label="Notes" errors={$errors.notes}
			><textarea class="field" rows="5" bind:value={$form.notes}></textarea></Field
		>
	</div>
	<Field label="Why" hint="What you saw or read that others should trust" errors={$errors.why}
		><input class="field" bind:value={$form.why} /></Field
	>
	{#if $message}<p role="alert" class="border-l-4 border-ink pl-3 font-semibold">{$message}</p>{/if}
	<div class="flex flex-wrap items-center gap-3">
		<button class="act" disabled={$submitting}>{$submitting ? 'Saving…' : 'Save a new version'}</button>
		<a class="act-quiet" href="/codes/{data.slug}">Leave it as it is</a>
		{#if made.restored}<span class="text-sm text-ink-2">Brought back what you typed before.</span>
			<button type="button" class="act-quiet" onclick={made.forget}>Discard</button>{/if}
	</div>
</form>
