<script lang="ts">
	import Act from '$lib/ui/Act.svelte';
	import { upperFirst } from '$lib/case/words';
	import OneOf from '$lib/ui/OneOf.svelte';
	import Tick from '$lib/ui/Tick.svelte';
	import { BLEED_WAYS, type Fit } from './fit.svelte';
	import type { PageData } from './$types';

	/** One step of a sheet: ticked, counted, measured or drawn tight; or left out, with why. */
	type Step = NonNullable<PageData['sheet']>['steps'][number];
	let { one, fit, bleed, within }: { one: Step; fit: Fit; bleed: PageData['bleed']; within: boolean | null } =
		$props();
	const entered = $derived(fit.of(one.id));
	const numberIn = ({ currentTarget: { value } }: Event & { currentTarget: HTMLInputElement }) =>
		value === '' ? null : Number(value);
	const bled = (id: string, on: boolean) =>
		fit.set(one.id, { bled: on ? [...entered.bled, id] : entered.bled.filter((other) => other !== id) });
</script>

<div>
	{#if one.do === 'tick'}
		<Tick
			words={one.words}
			checked={entered.done}
			disabled={entered.leftOut !== null}
			onchange={(done) => fit.set(one.id, { done })}
		/>
	{:else if one.do === 'clips'}
		<div class="flex flex-wrap items-center gap-4">
			<span class="flex-1">{one.words}</span>
			<span class="num text-xl font-bold">{entered.clips} of {one.count}</span>
			<Act
				class="act-quiet"
				whyNot={entered.clips >= one.count ? 'All are in.' : null}
				onclick={() => fit.set(one.id, { clips: entered.clips + 1 })}>One more clip</Act
			>
			{#if entered.clips > 0}<button
					class="act-quiet"
					onclick={() => fit.set(one.id, { clips: entered.clips - 1 })}>One less</button
				>{/if}
		</div>
	{:else if one.do === 'bleed'}
		<div class="flex flex-wrap items-center gap-4">
			<p>{one.words}</p>
			<OneOf
				label="Bled how"
				name="bled-how"
				options={BLEED_WAYS}
				bind:value={() => entered.how, (how) => fit.set(one.id, { how })}
			/>
		</div>
		<ol class="flex flex-wrap gap-x-6">
			{#each bleed as { id, words }, i (id)}
				<li>
					<Tick
						words={`${i + 1}. ${upperFirst(words)}`}
						checked={entered.bled.includes(id)}
						disabled={i > 0 && !entered.bled.includes(bleed[i - 1]?.id ?? '')}
						onchange={(on) => bled(id, on)}
					/>
				</li>
			{/each}
		</ol>
	{:else}
		<label class="flex flex-wrap items-center gap-x-4 gap-y-1">
			<span class="min-w-0 basis-full sm:flex-1 sm:basis-0"
				>{one.words}{one.optional ? ', if it can be' : ''}
				<span class="block text-ink-2"
					>{#if one.do === 'torque'}for example {one.torque}{one.singleUse
							? '; new fastener'
							: ''}{:else}<span class="num">{one.low} to {one.high} {one.unit}</span>{/if}</span
				></span
			>
			<input
				class="field num w-32! text-right"
				type="number"
				step="any"
				value={entered.value ?? ''}
				aria-label={one.words}
				aria-invalid={within === false ? 'true' : undefined}
				oninput={(event) => fit.set(one.id, { value: numberIn(event) })}
			/>
			<span class="w-12">{one.do === 'torque' ? (fit.draft.inPounds ? 'lb·ft' : 'N·m') : one.unit}</span>
		</label>
		{#if one.do === 'torque'}
			<div class="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1">
				<label class="flex items-center gap-x-4"
					><span>The maker asks for</span>
					<input
						class="field num w-32! text-right"
						type="number"
						step="any"
						value={entered.asked ?? ''}
						aria-label="{one.words}: the maker’s value"
						oninput={(event) => fit.set(one.id, { asked: numberIn(event) })}
					/></label
				>
				<input
					class="field min-w-40 flex-1"
					aria-label="{one.words}: where that stands"
					placeholder="where that stands: page, date"
					maxlength="200"
					value={entered.source}
					oninput={(event) => fit.set(one.id, { source: event.currentTarget.value })}
				/>
			</div>
			{#if entered.value !== null && entered.asked === null}<p class="mt-1 text-ink-2">
					Held against nothing: the example is not this maker’s value.
				</p>{/if}
		{/if}
		{#if within === false}<p role="alert" class="mt-1 font-semibold">
				That is not what was asked: do it again, or write down why.
			</p>{/if}
	{/if}
	{#if entered.leftOut !== null}
		<div class="mt-2 flex flex-wrap items-center gap-3">
			<input
				class="field flex-1"
				aria-label="Why it is left out"
				placeholder="why it is left out"
				maxlength="500"
				value={entered.leftOut}
				oninput={(event) => fit.set(one.id, { leftOut: event.currentTarget.value })}
			/>
			<button class="act-quiet" onclick={() => fit.set(one.id, { leftOut: null })}>Do it after all</button>
		</div>
	{:else if !one.optional && !(one.do === 'tick' && entered.done)}
		<button
			class="min-h-11 cursor-pointer text-sm text-ink-2 underline underline-offset-4"
			onclick={() => fit.set(one.id, { leftOut: '' })}>leave it out</button
		>
	{/if}
</div>
