<script lang="ts">
	import { untrack } from 'svelte';
	import { RETURNS_FROM } from '$lib/case/entries/returns-told/payload';
	import { ROADS } from '$lib/case/entries/shapes';
	import { entryForm } from '$lib/ui/entryForm.svelte';
	import Field from '$lib/ui/Field.svelte';
	import FormFoot from '$lib/ui/FormFoot.svelte';
	import Tick from '$lib/ui/Tick.svelte';
	import type { PageData } from './$types';
	import QuantityInput from '$lib/ui/QuantityInput.svelte';
	import { said as inOurs, shown, unitOf } from '$lib/ui/units';

	/** A fault that comes and goes: how often it came, how far it has stayed away, and what that is worth. */
	type Code = PageData['codes'][number];
	let { code, comes, data }: { code: Code; comes: NonNullable<Code['proof']['comes']>; data: PageData } =
		$props();
	const key = untrack(() => code.key);
	/** What was said last is what is said otherwise. */
	const said = () => {
		if (!comes.before || !comes.from) return {};
		const start = {
			returns: comes.before.returns,
			overKm: Number(comes.before.km.toFixed(1)),
			from: comes.from,
			...(comes.conditions ? { conditions: comes.conditions } : {})
		};
		const when = comes.showsWhen;
		return when ? { ...start, ...when, road: when.road ?? ('' as const) } : start;
	};
	let open = $state(untrack(() => comes.before === null));
	const told = entryForm(() => data.returnsForm, {
		id: `returns-${key}`,
		draftKey: untrack(() => `${data.case.id}:returns:${key}`),
		waits: 'How often it comes',
		about: () => ({ code: key, ...said() }),
		onSaved: () => (open = false)
	});
	const { form, errors, enhance } = told;
	const percent = (share: number) => `${Number((share * 100).toFixed(share < 0.1 ? 1 : 0))} %`;
	const km = (distance: number) => shown(distance, 'distance', distance < 10 ? 1 : 0);
	const take = ({ from, returns, km }: (typeof comes.known)[number]) => {
		$form.from = from;
		$form.returns = returns;
		$form.overKm = Number(km.toFixed(1));
	};
	const share = $derived(
		comes.furtherKm === null ? 0 : comes.afterKm / Math.max(0.001, comes.afterKm + comes.furtherKm)
	);
</script>

{#if comes.before && comes.residual !== null && comes.furtherKm !== null}
	<dl class="mt-2 grid grid-cols-2 items-end gap-x-6 gap-y-1 sm:grid-cols-4">
		<div>
			<dt class="text-sm text-ink-2">before it was mended, by {comes.from}</dt>
			<dd class="num text-xl">{comes.before.returns}× in {km(comes.before.km)}</dd>
		</div>
		<div>
			<dt class="text-sm text-ink-2">
				without it since{comes.drivenSo ? `, ${inOurs(comes.drivenSo)}` : ''}
			</dt>
			<dd class="num text-xl">{km(comes.afterKm)}</dd>
		</div>
		<div>
			<dt class="text-sm text-ink-2">silent even if unrepaired</dt>
			<dd class="num text-xl font-bold">{percent(comes.residual)}</dd>
		</div>
		<div>
			<dt class="text-sm text-ink-2">still to drive, for {percent(comes.target)}</dt>
			<dd class="num text-xl font-bold">{comes.furtherKm > 0 ? km(comes.furtherKm) : 'nothing'}</dd>
		</div>
	</dl>
	<div class="mt-2 h-2 border border-ink-2" role="img" aria-label="{percent(share)} of the distance driven">
		<div class="h-full bg-good" style:width="{share * 100}%"></div>
	</div>
{/if}
{#if data.canWrite && !data.case.signed}
	<details class="mt-1" bind:open>
		<summary class="min-h-11 cursor-pointer py-2.5 font-semibold"
			>{comes.before ? 'Say it otherwise' : 'How often did it come before?'}</summary
		>
		<form method="POST" action="?/returns" use:enhance>
			{#each comes.known as one, nth (nth)}
				<p class="mb-2 flex flex-wrap items-center gap-x-4">
					<span>By {one.from}: <span class="num">{one.returns}× in {km(one.km)}</span></span>
					<button
						type="button"
						class="min-h-11 cursor-pointer underline underline-offset-4"
						onclick={() => take(one)}>Take it</button
					>
				</p>
			{/each}
			<div class="grid gap-4 sm:grid-cols-[8rem_8rem_1fr_1fr]">
				<Field label="Times" errors={$errors.returns}
					><input class="field num text-right" type="number" step="1" bind:value={$form.returns} /></Field
				>
				<Field label="in {unitOf('distance')} driven so" errors={$errors.overKm}
					><QuantityInput kind="distance" digits={1} bind:value={$form.overKm} /></Field
				>
				<Field label="By whose word"
					><select class="field" bind:value={$form.from}
						>{#each RETURNS_FROM as from (from)}<option value={from}>{from}</option>{/each}</select
					></Field
				>
				<Field label="When it shows, in words"><input class="field" bind:value={$form.conditions} /></Field>
			</div>
			<fieldset class="mt-4">
				<legend class="font-semibold">Only driving like this counts; leave open what does not matter</legend>
				<div class="mt-1 grid items-end gap-4 sm:grid-cols-[8rem_8rem_1fr_1fr]">
					<Field label="From {unitOf('speed')}" errors={$errors.fromKmh}
						><QuantityInput kind="speed" bind:value={$form.fromKmh} /></Field
					>
					<Field label="To {unitOf('speed')}" errors={$errors.toKmh}
						><QuantityInput kind="speed" bind:value={$form.toKmh} /></Field
					>
					<Field label="Road"
						><select class="field" bind:value={$form.road}
							><option value="">any</option>{#each ROADS as road (road)}<option value={road}>{road}</option
								>{/each}</select
						></Field
					>
					<Tick words="only in bends" checked={$form.turning} onchange={(on) => ($form.turning = on)} />
				</div>
			</fieldset>
			<FormFoot made={told} save="Save it" />
		</form>
	</details>
{/if}
