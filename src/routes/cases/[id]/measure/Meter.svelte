<script lang="ts">
	import OnlyUsual from '../OnlyUsual.svelte';
	import Act from '$lib/ui/Act.svelte';
	import { tick, untrack } from 'svelte';
	import { valueWords, windowWords } from '$lib/case/measure/measureWords';
	import { quantityOf } from '$lib/case/measure/meterJudgement';
	import Caution from '$lib/ui/Caution.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import NumberField from '$lib/ui/NumberField.svelte';
	import { keepDraft } from '$lib/ui/draft.svelte';
	import { useKeys } from '$lib/ui/keys';
	import { sendEntry } from '$lib/away/record';
	import { MeterForm, unitsOf, type MeterAbout, type Offered } from './meterForm.svelte';
	import { said, shown } from '$lib/ui/units';

	/** One measurement: what to expect, the reading, and what it says at once. */
	let {
		one,
		about,
		mateWords,
		mateHref,
		mayWrite,
		standIn,
		onsaved
	}: {
		one: Offered;
		about: MeterAbout;
		mateWords: string;
		mateHref: string;
		mayWrite: boolean;
		standIn: boolean;
		onsaved: () => void;
	} = $props();
	const form = new MeterForm(() => ({ ...about, one }));
	const { measurement } = untrack(() => one);
	const quantity = quantityOf(measurement.mode);
	const STATE = { in: 'good', out: 'bad', borderline: 'suspect' } as const;
	const WORDS = { in: 'In its window', out: 'Out of its window', borderline: 'On the edge' };
	const OPEN = { sensor: 'the sensor’s plug', module: 'the module’s plug' };
	const needs = $derived([
		`key ${measurement.key}`,
		measurement.open.length > 0
			? `${measurement.open.map((plug) => OPEN[plug]).join(' and ')} open`
			: 'everything plugged',
		measurement.wheel === 'turns' ? 'wheel turned' : 'wheel at rest'
	]);
	const usesSupply = $derived(measurement.windows[about.family]?.kind === 'supply');
	let saving = $state(false);

	async function save() {
		const { payload } = form;
		if (!payload || saving) return;
		saving = true;
		if (await sendEntry(about.caseId, 'meter-reading', payload)) {
			form.text = '';
			form.over = false;
			await tick();
			onsaved();
		}
		saving = false;
	}
	keepDraft(
		`meter:${untrack(() => `${about.caseId}:${about.at}:${one.measurement.id}`)}`,
		() =>
			form.text === '' && !form.over
				? null
				: { text: form.text, unit: form.unit, over: form.over, temperatureC: form.temperatureC, by: form.by },
		(kept) => Object.assign(form, kept)
	);
	useKeys({ r: () => void (standIn && mayWrite && form.read()) }, { r: 'read the meter' });
</script>

<div class="grid gap-x-8 gap-y-3 lg:grid-cols-[minmax(0,1fr)_17rem]">
	<div>
		<p class="text-lg">{said(measurement.asks)}</p>
		<p class="mt-1 text-ink-2">
			{needs.join(', ')} · red on <strong class="text-ink">{one.red}</strong>{#if one.redUntold}
				(which pin: <OnlyUsual path={one.redUntold} caseId={about.caseId} says="not told yet" />)
			{:else if one.redNode}&nbsp;<span class="num">({one.redNode.replace(':w', ', wire')})</span>{/if} · black
			on
			<strong class="text-ink">{one.black}</strong>
		</p>
	</div>
	<div>
		<p class="text-sm text-ink-2">Expected</p>
		{#if form.window}
			<p class="num text-lg font-semibold">{windowWords(form.window, quantity)}</p>
			<p class="text-sm text-ink-2">{form.window.because}</p>
		{/if}
	</div>
</div>
{#if !one.mateReading}
	<p class="mt-2 text-ink-2">
		Its mate has not been measured: <a class="underline underline-offset-4" href={mateHref}
			>measure {mateWords} first</a
		>, a number without a reference is only a number.
	</p>
{:else}
	<p class="mt-2 text-ink-2">
		{mateWords} read
		<span class="num text-ink">{valueWords(one.mateReading.value, quantity)}</span>.
	</p>
{/if}
{#if one.cautions}<Caution>{one.cautions}</Caution>{/if}
{#if mayWrite}
	<form
		class="mt-3 flex flex-wrap items-end gap-3"
		onsubmit={(event) => {
			event.preventDefault();
			void save();
		}}
	>
		<label class="flex flex-col">
			<span class="text-sm text-ink-2">Reading</span>
			<input
				class="field num w-36! text-lg"
				inputmode="decimal"
				autocomplete="off"
				disabled={form.over}
				bind:value={form.text}
				oninput={() => (form.by = 'hand')}
			/>
		</label>
		<label class="flex flex-col">
			<span class="text-sm text-ink-2">Unit</span>
			<select class="field w-auto!" bind:value={form.unit}>
				{#each unitsOf(measurement.mode) as unit, nth (nth)}<option>{unit}</option>{/each}
			</select>
		</label>
		{#if measurement.mode === 'ohms'}
			<label class="flex min-h-11 cursor-pointer items-center gap-2"
				><input type="checkbox" class="checkbox" bind:checked={form.over} /> over the range</label
			>
		{/if}
		{#if measurement.atTemperature}
			<div class="w-32">
				<NumberField
					label="Coil at"
					of="temperature"
					step="any"
					digits={0}
					bind:value={form.temperatureC}
					min={-60}
					max={200}
					required
				/>
			</div>
		{/if}
		{#if usesSupply}
			<div class="w-36">
				<NumberField label="Battery now, V" bind:value={form.supplyVolts} min={0} max={60} step="any" />
			</div>
		{/if}
		{#if standIn}
			<button type="button" class="act-quiet" disabled={form.reading} onclick={() => form.read()}
				>Read the meter <span class="key">r</span></button
			>
		{/if}
		<Act
			type="submit"
			class="act"
			disabled={saving}
			whyNot={form.judgement ? null : 'Type the reading first.'}
			>Save <span class="key border-current">↵</span></Act
		>
	</form>
	<div aria-live="polite" class="min-h-14">
		{#if form.trouble}<p class="mt-2 font-semibold" role="alert">{form.trouble}</p>{/if}
		{#if form.judgement}
			<p class="mt-3 flex items-start gap-3 text-lg">
				<span class="mt-1"><Mark state={STATE[form.judgement.judged]} /></span>
				<span>
					<strong
						>{WORDS[
							form.judgement.judged
						]}{#if measurement.atTemperature && Number.isFinite(form.judgement.judgedValue)}, <span
								class="num">{valueWords(form.judgement.judgedValue, quantity)}</span
							>
							at {shown(20, 'temperature')}{/if}.</strong
					>
					{form.judgement.says}
				</span>
			</p>
			{#if form.judgement.judged === 'in'}
				<label class="flex min-h-11 cursor-pointer items-center gap-2"
					><input type="checkbox" class="checkbox" bind:checked={form.keepAsGood} /> A vehicle without a fault here:
					keep as the shop’s reference for this type</label
				>
			{/if}
		{/if}
	</div>
{/if}
