<script lang="ts">
	import { untrack } from 'svelte';
	import { toast } from 'svelte-sonner';
	import { ulid } from 'ulid';
	import Field from '$lib/ui/Field.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import OneOf from '$lib/ui/OneOf.svelte';
	import Tick from '$lib/ui/Tick.svelte';
	import { leftByFitting } from '$lib/case/mend/fittings';
	import { GRADES } from '$lib/case/entries/shapes';
	import type { PayloadOf } from '$lib/case/entries/entry';
	import { upperFirst } from '$lib/case/words';
	import { Position } from '$library/positions';
	import { repairs } from '$library/repairs';
	import type { FittingSheet } from '$library/fittingSheets';
	import { sendEntry } from '$lib/away/record';
	import { standInHand } from '../../standInHand';
	import { PhotoBox } from '../../photos.svelte';
	import PhotoStrip from '../../PhotoStrip.svelte';
	import { Fit } from './fit.svelte';
	import StepRow from './StepRow.svelte';
	import type { PageData } from './$types';

	/** One sheet: cautions by name, then the part, then step by step. */
	let {
		data,
		sheet,
		onsaved
	}: { data: PageData; sheet: NonNullable<PageData['sheet']>; onsaved: () => void } = $props();
	const fit = new Fit(untrack(() => `jaldi:fit:${data.case.id}:${sheet.id}:${data.place ?? ''}`));
	const whole: FittingSheet = untrack(() => sheet);
	const photos = new PhotoBox(() => data.case.id);
	photos.kept = untrack(() => fit.draft.photos);
	let entryId = ulid();
	let repairId = ulid();
	let saving = $state(false);
	/** Repair that the sheet is; empty = it is written down apart. */
	let asRepair = $state<string>(untrack(() => data.asRepair ?? ''));
	let grade = $state<(typeof GRADES)[number]>('maker’s own');
	const repairKind = $derived(repairs.get(asRepair));
	/** Repair that is done on the stand-in vehicle; empty = none. */
	let hands = $state<string>(untrack(() => data.standInRepair ?? ''));
	const unread = $derived(sheet.cautions.filter(({ id }) => !fit.draft.acknowledged.includes(id)));
	const steps = $derived(whole.steps.map((one) => fit.step(one, data.bleed)));
	const left = $derived(steps.filter(({ state }) => state === 'open').length);
	const wrong = $derived(steps.filter(({ within }) => within === false).length);
	const hasTorque = whole.steps.some((one) => one.do === 'torque');
	$effect(() => {
		fit.draft.photos = $state.snapshot(photos.kept);
	});
	$effect(() => {
		JSON.stringify(fit.draft);
		fit.keep();
	});

	/** The stand-in vehicle is worked on as the sheet says, what is not right included. */
	async function workOnStandIn(leaves: string[]) {
		try {
			await standInHand(data.case.id, { do: 'mend', at: data.place ?? 'vehicle', repair: hands, leaves });
			toast.success('Done on the simulator, as the sheet says.');
		} catch (caught) {
			toast.error((caught as Error).message);
		}
	}

	function repairOf(part: PayloadOf<'fitting'>['part']): PayloadOf<'repair'> {
		const wheel = Position.safeParse(data.place);
		return {
			title: upperFirst(repairKind?.name ?? ''),
			position: wheel.success ? wheel.data : null,
			parts: repairKind?.part ? [{ name: whole.part.name, number: part.number, grade }] : [],
			temporary: false,
			note: '',
			does: { kind: asRepair, place: data.place ?? 'vehicle' }
		};
	}

	async function save() {
		if (saving) return;
		saving = true;
		const payload = fit.payload(whole, data.place, data.bleed);
		// The repair first: what the sheet shows is of that repair. Sent again it is still the same one.
		const done =
			(!repairKind || (await sendEntry(data.case.id, 'repair', repairOf(payload.part), repairId))) &&
			(await sendEntry(data.case.id, 'fitting', payload, entryId));
		saving = false;
		if (!done) return;
		if (done === 'stored')
			toast.success(
				repairKind ? 'The repair and its sheet are on the thread.' : 'The sheet is on the thread.'
			);
		if (hands) await workOnStandIn(leftByFitting(payload));
		entryId = ulid();
		repairId = ulid();
		fit.forget();
		photos.kept = [];
		onsaved();
	}
</script>

<section class="mt-5" aria-labelledby="cautions">
	<h2 id="cautions" class="text-lg font-bold">
		{unread.length > 0 ? 'First: read, and tick each off by name' : 'Read and ticked off'}
	</h2>
	<div class="mt-2 border-y-2 border-ink py-1">
		{#each sheet.cautions as { id, words } (id)}
			<Tick
				{words}
				checked={fit.draft.acknowledged.includes(id)}
				onchange={(on) => fit.toggle('acknowledged', id, on)}
			/>
		{/each}
	</div>
</section>
{#if unread.length > 0}
	<p class="mt-3">The steps open once all {sheet.cautions.length} are read.</p>
{:else}
	<section class="mt-5" aria-labelledby="part">
		<h2 id="part" class="text-lg font-bold">The {sheet.part.name}, before it goes on</h2>
		<p class="text-ink-2">{sheet.part.look}</p>
		<div class="mt-2 grid gap-4 sm:grid-cols-[1fr_auto]">
			<Field label="Number on the part"
				><input class="field num" maxlength="100" bind:value={fit.draft.number} /></Field
			>
			<div>
				<span class="mb-1 block font-semibold">Right for {data.plate || 'this vehicle'}</span>
				<OneOf
					label="Right for this vehicle"
					name="fits"
					options={['yes', 'no', 'not looked'] as const}
					bind:value={fit.draft.fits}
				/>
			</div>
		</div>
		<p class="mt-3 font-semibold">Not in the box</p>
		<div class="flex flex-wrap gap-x-6">
			{#each sheet.part.complete as { id, words } (id)}
				<Tick
					{words}
					checked={fit.draft.missing.includes(id)}
					onchange={(on) => fit.toggle('missing', id, on)}
				/>
			{/each}
		</div>
		<Field label="Damage, if there is any"
			><input class="field" maxlength="500" bind:value={fit.draft.damage} /></Field
		>
		<div class="mt-3 flex flex-wrap items-center gap-3">
			<PhotoStrip {photos} alt="of the part, to be kept with the sheet" />
		</div>
	</section>
	<section class="mt-6" aria-labelledby="steps">
		<div class="flex flex-wrap items-end justify-between gap-3">
			<h2 id="steps" class="text-lg font-bold">
				{left === 0 ? 'Every step is done' : left === 1 ? 'One step is left' : `${left} steps are left`}
			</h2>
			{#if hasTorque}
				<OneOf
					label="Torque in"
					name="torque-unit"
					options={['N·m', 'lb·ft'] as const}
					bind:value={
						() => (fit.draft.inPounds ? 'lb·ft' : 'N·m'), (unit) => (fit.draft.inPounds = unit === 'lb·ft')
					}
				/>
			{/if}
		</div>
		<ol class="mt-2">
			{#each sheet.steps as one, i (one.id)}
				{@const now = steps[i]}
				<li class="hair grid grid-cols-[auto_minmax(0,1fr)] items-start gap-x-3 py-3">
					<span class="mt-1"
						><Mark
							state={now?.within === false
								? 'bad'
								: now?.state === 'done'
									? 'good'
									: now?.state === 'left-out' && !one.optional
										? 'suspect'
										: 'open'}
							size={20}
						/></span
					>
					<StepRow {one} {fit} bleed={data.bleed} within={now?.within ?? null} />
				</li>
			{/each}
		</ol>
		{#if sheet.repairs.length > 0}
			<div class="mt-4 grid max-w-2xl gap-4 sm:grid-cols-2">
				<Field label="It is this repair">
					<select class="field" bind:value={asRepair}>
						<option value="">none: it is written down apart</option>
						{#each data.mayBe as id (id)}<option value={id}>{upperFirst(repairs.get(id)?.name ?? id)}</option
							>{/each}
					</select></Field
				>
				{#if repairKind?.part}<Field label="Grade of the part">
						<select class="field" bind:value={grade}>
							{#each GRADES as one (one)}<option value={one}>{one}</option>{/each}
						</select></Field
					>{/if}
			</div>
		{/if}
		{#if data.standInRepair !== null}
			<label class="mt-4 block max-w-md"
				><span class="mb-1 block font-semibold">And on the simulator</span>
				<select class="field" bind:value={hands}>
					<option value="">nothing: only the sheet</option>
					{#each sheet.repairs as id (id)}<option value={id}>{repairs.get(id)?.name ?? id}</option>{/each}
				</select></label
			>
		{/if}
		<div class="mt-4 flex flex-wrap items-center gap-4">
			<button class="act" disabled={saving} onclick={save}
				>{left > 0
					? 'Put it on the thread as it stands'
					: repairKind
						? 'Put repair and sheet on the thread'
						: 'Put the sheet on the thread'}</button
			>
			{#if wrong > 0}<span class="font-semibold"
					>{wrong === 1 ? 'One value is' : `${wrong} values are`} not right</span
				>{/if}
		</div>
	</section>
{/if}
