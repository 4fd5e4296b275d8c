<script lang="ts">
	import { untrack, type Snippet } from 'svelte';
	import { LampCheck } from '$lib/case/entries/lamp-check/payload';
	import { ROADS } from '$lib/case/entries/shapes';
	import Act from '$lib/ui/Act.svelte';
	import AskOnce from '$lib/ui/AskOnce.svelte';
	import Caution from '$lib/ui/Caution.svelte';
	import { entryForm } from '$lib/ui/entryForm.svelte';
	import Field from '$lib/ui/Field.svelte';
	import FormFoot from '$lib/ui/FormFoot.svelte';
	import OneOf from '$lib/ui/OneOf.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import { getCaseWork } from '../caseWork.svelte';
	import type { PageData } from './$types';
	import QuantityInput from '$lib/ui/QuantityInput.svelte';
	import { unitOf } from '$lib/ui/units';

	/** The order of proving: clear, key, lamps, drive, read. Nothing is locked; what was done says when. */
	let { data, caseId }: { data: PageData; caseId: string } = $props();
	const work = getCaseWork();
	const id = untrack(() => caseId);
	const key = entryForm(() => data.keyForm, {
		id: 'key-form',
		draftKey: `${id}:key`,
		waits: 'Ignition off and on'
	});
	const lamps = entryForm(() => data.lampForm, {
		id: 'lamp-form',
		draftKey: `${id}:lamp-check`,
		waits: 'Lamp check'
	});
	const drive = entryForm(() => data.driveForm, {
		id: 'drive-form',
		draftKey: `${id}:drive`,
		waits: 'Drive'
	});
	const cleared = entryForm(() => data.clearedForm, {
		id: 'cleared-form',
		draftKey: `${id}:cleared`,
		waits: 'Codes cleared'
	});
	const { form: clearedForm, errors: clearedErrors, enhance: clearedEnhance } = cleared;
	const { enhance: keyEnhance } = key;
	const { form: lampForm, errors: lampErrors, enhance: lampEnhance } = lamps;
	const { form: driveForm, errors: driveErrors, enhance: driveEnhance } = drive;
	/** Whether a code counts only kilometres that were driven in a certain way: of a drive by hand only its driver knows. */
	const asksHow = $derived(
		data.codes.some(({ proof }) => {
			const when = proof.comes?.showsWhen;
			return when && (when.turning || when.fromKmh !== null || when.toKmh !== null);
		})
	);
	const modulesToClear = $derived(
		data.clear.modules.length > 0 ? `all ${data.clear.modules.length} modules` : 'all modules'
	);
	const RESULTS = LampCheck.shape.lamps.element.shape.result.options;
</script>

{#snippet step(anchor: string, title: string, done: string | null, body: Snippet)}
	<li id={anchor} class="relative pb-7 pl-10">
		<span class="absolute top-0.5 left-0 z-10 bg-base-100"
			><Mark state={done ? 'good' : 'open'} size={22} /></span
		>
		<h3 class="text-lg font-bold">
			{title}{#if done}<span class="num pl-3 text-sm font-normal text-ink-2">{done}</span>{/if}
		</h3>
		<div class="mt-2">{@render body()}</div>
	</li>
{/snippet}

<section aria-labelledby="steps-title" class="mt-2 border-t border-rule pt-5">
	<h2 id="steps-title" class="mb-4 font-bold">In this order</h2>
	<ol
		class="relative before:absolute before:inset-y-3 before:left-[10px] before:border-l-[3px] before:border-dotted before:border-rule"
	>
		{#snippet clearBody()}
			{#if data.clear.refusal}<p>{data.clear.refusal}</p>{/if}
			<AskOnce
				next
				label="Clear {modulesToClear}"
				ask="The codes of {modulesToClear} will be gone from the vehicle. They are recorded here."
				yes="Clear {modulesToClear} now"
				whyNot={work.whyNot ?? (data.clear.refusal === null ? null : 'Not yet.')}
				onyes={() => work.begin({ do: 'clear', only: null })}
			/>
			{#if data.clear.refusal === null}
				<form method="POST" action="?/cleared" use:clearedEnhance class="mt-3 flex flex-wrap items-end gap-3">
					<Field label="Or cleared with another tool" errors={$clearedErrors.tool}
						><input class="field" placeholder="which one" bind:value={$clearedForm.tool} /></Field
					>
					<button class="act-quiet">I cleared {modulesToClear} with it</button>
				</form>
			{/if}
		{/snippet}
		{#if !data.lamp}{@render step('clear', 'Clear the codes', data.done.clear, clearBody)}{/if}

		{#snippet keyBody()}
			<p>Key off, ten seconds, key on. The gateway counts it.</p>
			<div class="mt-2 flex flex-wrap items-center gap-3">
				<Act
					data-do
					whyNot={data.done.clear ? work.whyNot : 'Clear first.'}
					onclick={() => work.begin({ do: 'key' })}>The key is on again: check</Act
				>
				<form method="POST" action="?/key" use:keyEnhance>
					<button class="min-h-11 cursor-pointer px-2 underline underline-offset-4"
						>I did it, the vehicle cannot tell</button
					>
				</form>
			</div>
		{/snippet}
		{#if !data.lamp}{@render step('key', 'Turn the key off and on', data.done.key, keyBody)}{/if}

		{#snippet lampBody()}
			<form method="POST" action="?/lamps" use:lampEnhance>
				{#each $lampForm.lamps as row, i (i)}
					<div class="flex flex-wrap items-center gap-x-4 gap-y-2 py-1">
						<span class="w-28 font-semibold">{row.lamp}</span>
						<OneOf
							label="{row.lamp} lamp at key-on"
							name="{row.lamp}-result"
							options={RESULTS}
							bind:value={
								() => row.result as (typeof RESULTS)[number],
								(result) => ($lampForm.lamps[i]!.result = result)
							}
						/>
					</div>
				{/each}
				{#if $lampErrors.lamps?._errors}<p role="alert" class="mt-2 font-semibold">
						{$lampErrors.lamps._errors[0]}
					</p>{/if}
				<FormFoot made={lamps} save="Save what the lamps did" />
			</form>
		{/snippet}
		{#if !data.lamp}{@render step('lamps', 'Watch the lamps at key-on', data.done.lamps, lampBody)}{/if}

		{#snippet driveBody()}
			<Caution>{data.cautions}</Caution>
			{#if !data.lamp}
				<p class="my-3">
					<a class="act-quiet" href="/cases/{caseId}/prove/drive">Plan it, and cover it as it is driven</a>
				</p>
			{/if}
			<form method="POST" action="?/drive" use:driveEnhance>
				<div class="grid gap-4 sm:grid-cols-3">
					<Field label="Distance, {unitOf('distance')}" errors={$driveErrors.distanceKm}
						><QuantityInput kind="distance" digits={1} min={0} bind:value={$driveForm.distanceKm} /></Field
					>
					{#if asksHow}
						<Field label="Of it as it used to show, {unitOf('distance')}" errors={$driveErrors.asShownKm}
							><QuantityInput kind="distance" digits={1} min={0} bind:value={$driveForm.asShownKm} /></Field
						>
					{/if}
					<Field label="Top speed, {unitOf('speed')}" errors={$driveErrors.topSpeedKmh}
						><QuantityInput kind="speed" digits={0} min={0} bind:value={$driveForm.topSpeedKmh} /></Field
					>
					<Field label="Stops" errors={$driveErrors.stops}
						><input
							class="field num text-right"
							type="number"
							step="1"
							min="0"
							bind:value={$driveForm.stops}
						/></Field
					>
					<Field label="Road"
						><select class="field" bind:value={$driveForm.road}
							>{#each ROADS as road (road)}<option value={road}>{road}</option>{/each}</select
						></Field
					>
					<Field label="Driver"><input class="field" bind:value={$driveForm.driver} /></Field>
					<Field label="Seen on the way"><input class="field" bind:value={$driveForm.note} /></Field>
				</div>
				<FormFoot made={drive} save="Save the drive" />
			</form>
		{/snippet}
		{#snippet forgetBody()}
			<p>By the pedal or the plug: its lamp goes out, and its module judges the sensors anew on the road.</p>
			<a class="act-quiet mt-2" href="/cases/{caseId}/read/lamp">Step by step, at the lamp</a>
		{/snippet}
		{#if data.lamp}{@render step(
				'forget',
				'Make it forget, once it is repaired',
				data.lamp.clean ? data.lamp.drive : null,
				forgetBody
			)}{/if}
		{@render step('drive', 'Drive it', data.lamp ? data.lamp.drive : data.done.drive, driveBody)}

		{#snippet readBody()}
			<p>Every module, not only the one that had a code.</p>
			<p class="mt-2">
				<Act data-do whyNot={work.whyNot} onclick={() => work.begin({ do: 'scan' })}>Read every module</Act>
				<a class="act-quiet ml-3" href="/cases/{caseId}/read/other">Read with another tool</a>
			</p>
		{/snippet}
		{#snippet againBody()}
			<p>Only what it tells after the drive counts.</p>
			<a class="act-quiet mt-2" href="/cases/{caseId}/read/lamp">Read its lamp</a>
		{/snippet}
		{#if data.lamp}
			{@render step('read', 'Read its lamp again', data.lamp.clean ? data.lamp.drive : null, againBody)}
		{:else}{@render step('read', 'Read every module again', data.done.read, readBody)}{/if}
	</ol>
</section>
