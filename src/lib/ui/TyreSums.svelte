<script lang="ts">
	import Act from '$lib/ui/Act.svelte';
	import { untrack } from 'svelte';
	import type { Drive } from '$lib/core/tyres/compareTyres';
	import { crossingSentence, type CodeThreshold } from '$lib/core/tyres/codeThreshold';
	import { USUAL_LOAD_FACTOR } from '$lib/core/tyres/rollingCircumference';
	import { tyreReport, whatIfs, type FittedTyre } from '$lib/core/tyres/tyreReport';
	import Caution from './Caution.svelte';
	import NumberField from './NumberField.svelte';
	import QuantityInput from './QuantityInput.svelte';
	import { digitsOf, said, shown, shownValue, unitOf } from './units';

	/** Tyres of a vehicle against each other: how they roll, what a code and the controller make of it, and what else could be fitted. */
	let {
		fitted,
		nameOf,
		drive: driven,
		codes = []
	}: {
		fitted: FittedTyre[];
		nameOf: (position: string) => string;
		drive: Drive | null;
		codes?: { text: string; threshold: CodeThreshold }[];
	} = $props();
	let tyres = $state(untrack(() => fitted.map((tyre) => ({ ...tyre }))));
	let drive = $state<Drive | ''>(untrack(() => driven ?? ''));
	let loadFactor = $state<number | null>(USUAL_LOAD_FACTOR);
	let thresholdKmh = $state<number | null>(null);
	let speedKmh = $state(80);

	const factorFits = $derived(loadFactor !== null && loadFactor >= 0.8 && loadFactor <= 1);
	const asked = $derived({
		loadFactor: factorFits && loadFactor !== null ? loadFactor : USUAL_LOAD_FACTOR,
		thresholdKmh: thresholdKmh !== null && thresholdKmh > 0 ? thresholdKmh : null,
		drive: drive === '' ? null : drive
	});
	const report = $derived(tyreReport(tyres, asked));
	const errors = $derived(report.ok ? {} : report.error);
	const others = $derived(
		whatIfs(tyres).flatMap(({ name, tyres: changed }) => {
			const made = tyreReport(changed, asked);
			return made.ok ? [{ name, report: made.value }] : [];
		})
	);
	const largest = $derived(
		report.ok ? Math.max(...report.value.wheels.map(({ circumferenceMm }) => circumferenceMm)) : 1
	);
	function fillRest() {
		const size = tyres.find((tyre) => tyre.size.trim() !== '')?.size ?? '';
		for (const tyre of tyres) if (tyre.size.trim() === '') tyre.size = size;
	}
	const percent = (value: number) => `${value.toFixed(1)} %`;
	const missing = $derived(tyres.filter(({ size }) => size.trim() === ''));
	const unreadable = $derived(tyres.some(({ position, size }) => position in errors && size.trim() !== ''));
</script>

<div class="grid gap-x-10 gap-y-6 xl:grid-cols-[1.15fr_1fr]">
	<div>
		<h2 class="text-lg font-bold">Read from the sidewalls</h2>
		<p class="text-ink-2">
			205/55R16, LT245/75R16, 205/75R16C, T125/70D16 or 31x10.50R15; tread, and pressure in % of the right
			one, if you have them.
		</p>
		<table class="mt-2 w-full">
			<thead class="text-left text-sm text-ink-2">
				<tr
					><th class="font-normal">wheel</th><th class="font-normal">size</th><th class="font-normal"
						>tread {unitOf('length')}</th
					><th class="font-normal">pressure %</th></tr
				>
			</thead>
			<tbody>
				{#each tyres as tyre, i (i)}
					<tr class="hair align-top">
						<td class="py-2 pt-4 pr-3 whitespace-nowrap">{nameOf(tyre.position)}</td>
						<td class="py-2 pr-2">
							<input
								class="field num"
								aria-label="Size {nameOf(tyre.position)}"
								aria-invalid={tyre.position in errors && tyre.size.trim() !== ''}
								bind:value={tyres[i]!.size}
								spellcheck="false"
							/>
							{#if tyre.position in errors && tyre.size.trim() !== ''}<p class="text-sm font-semibold">
									{errors[tyre.position]}
								</p>{/if}
						</td>
						<td class="py-2 pr-2"
							><QuantityInput
								kind="length"
								class="field num [appearance:textfield]"
								min={0}
								max={20}
								digits={1}
								label="Tread {nameOf(tyre.position)}"
								bind:value={tyres[i]!.treadMm}
							/></td
						>
						<td class="py-2">
							<input
								class="field num [appearance:textfield]"
								type="number"
								min="10"
								max="150"
								step="5"
								aria-label="Pressure {nameOf(tyre.position)}"
								value={tyre.pressureShare === null ? null : Math.round(tyre.pressureShare * 100)}
								oninput={(event) =>
									(tyres[i]!.pressureShare =
										event.currentTarget.value === '' ? null : Number(event.currentTarget.value) / 100)}
							/>
						</td>
					</tr>
				{/each}
			</tbody>
		</table>
		<div class="mt-3 grid gap-3 sm:grid-cols-3">
			<label
				><span class="text-sm text-ink-2">driven</span>
				<select class="field" bind:value={drive}>
					<option value="">not known</option><option value="front">front axle</option><option value="rear"
						>rear axle</option
					><option value="all">all wheels</option>
				</select>
			</label>
			<NumberField label="a code allows" of="speed" min={0.1} step="any" bind:value={thresholdKmh} />
			<NumberField
				label="load factor"
				min={0.8}
				max={1}
				step={0.005}
				bind:value={loadFactor}
				invalid={!factorFits}
			/>
		</div>
		{#if !factorFits}<p class="mt-1 font-semibold">
				A load factor lies between 0.8 and 1; {USUAL_LOAD_FACTOR} is taken.
			</p>{/if}
	</div>
	<div aria-live="polite">
		{#if missing.length > 0 && !unreadable}
			<h2 class="text-lg font-bold">
				{missing.length === tyres.length ? 'Nothing to compare yet' : `${missing.length} sizes to go`}
			</h2>
			<p>Write the size of each tyre as it stands on its sidewall, not as it should be.</p>
			<Act
				class="act-quiet mt-3"
				whyNot={missing.length === tyres.length ? 'Type one size first.' : null}
				onclick={fillRest}>The rest is the same</Act
			>
		{:else if report.ok}
			{@const { wheels, comparison, believes, cautions } = report.value}
			<h2 class="text-lg font-bold">
				{comparison.spreadPercent < 0.05
					? 'All wheels roll alike'
					: `The wheels roll up to ${percent(comparison.spreadPercent)} apart`}
			</h2>
			<p class="mt-1">{said(believes)}</p>
			{#if comparison.crossesAtKmh !== null}
				<p class="mt-1">
					Readings differ by more than <span class="num">{shown(thresholdKmh ?? 0, 'speed', 1)}</span> from
					<strong class="num">{shown(comparison.crossesAtKmh, 'speed')}</strong> on.
				</p>
			{/if}
			{#each codes as { text, threshold }, nth (nth)}
				<p class="mt-1">
					<span class="num">{text}</span>: {said(crossingSentence(threshold, comparison.spreadPercent))}
				</p>
			{/each}
			<table class="num mt-3 w-full text-right">
				<thead class="font-sans text-sm text-ink-2">
					<tr
						><th class="text-left font-normal">wheel</th><th class="font-normal">round {unitOf('length')}</th
						><th class="font-normal">turns a {unitOf('distance')}</th><th class="font-normal"
							>reads at {shown(speedKmh, 'speed')}</th
						></tr
					>
				</thead>
				<tbody>
					{#each wheels as wheel, nth (nth)}
						<tr class="hair"
							><td class="py-1 text-left font-sans">{nameOf(wheel.position)}</td><td
								>{shownValue(wheel.circumferenceMm, 'length').toFixed(digitsOf('length'))}</td
							><td>{(wheel.revsPerKm / shownValue(1, 'distance')).toFixed(1)}</td><td
								>{shownValue((speedKmh * largest) / wheel.circumferenceMm, 'speed').toFixed(1)}</td
							></tr
						>
					{/each}
				</tbody>
			</table>
			<label class="mt-2 block"
				><span class="text-sm text-ink-2">true speed <span class="num">{shown(speedKmh, 'speed')}</span></span
				><input
					class="w-full accent-current"
					type="range"
					min="5"
					max="200"
					step="5"
					bind:value={speedKmh}
					aria-label="True speed"
				/></label
			>
			{#each cautions as words, nth (nth)}<Caution>{words}</Caution>{/each}
		{:else}
			<h2 class="text-lg font-bold">A size cannot be read</h2>
			<p>What was expected stands beside it.</p>
		{/if}
	</div>
</div>
{#if report.ok && others.length > 0 && report.value.comparison.spreadPercent >= 0.05}
	<section class="mt-8" aria-labelledby="whatif">
		<h2 id="whatif" class="text-lg font-bold">What if</h2>
		<ul>
			{#each others as { name, report: other }, nth (nth)}
				<li class="hair py-2">
					<strong>{name.charAt(0).toUpperCase() + name.slice(1)}</strong>: up to
					<span class="num">{percent(other.comparison.spreadPercent)}</span>
					apart. {said(other.believes)}
					{#if other.comparison.crossesAtKmh !== null}From <span class="num"
							>{shown(other.comparison.crossesAtKmh, 'speed')}</span
						> on over the limit.{/if}
				</li>
			{/each}
		</ul>
		<p class="mt-2 text-ink-2">
			What may be fitted where is for the vehicle’s papers and the tyre’s maker to say.
		</p>
	</section>
{/if}
