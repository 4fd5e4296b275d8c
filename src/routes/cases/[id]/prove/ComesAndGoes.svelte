<script lang="ts">
	import { untrack } from 'svelte';
	import { RETURNS_FROM } from '$lib/case/provePayloads';
	import { entryForm } from '$lib/ui/entryForm.svelte';
	import Field from '$lib/ui/Field.svelte';
	import FormFoot from '$lib/ui/FormFoot.svelte';
	import type { PageData } from './$types';

	/** A fault that comes and goes: how often it came, how far it has stayed away, and what that is worth. */
	type Code = PageData['codes'][number];
	let { code, comes, data }: { code: Code; comes: NonNullable<Code['proof']['comes']>; data: PageData } =
		$props();
	const key = untrack(() => code.key);
	const told = entryForm(() => data.returnsForm, {
		id: `returns-${key}`,
		draftKey: untrack(() => `${data.case.id}:returns:${key}`),
		about: { code: key }
	});
	const { form, errors, enhance } = told;
	const percent = (share: number) => `${Number((share * 100).toFixed(share < 0.1 ? 1 : 0))} %`;
	const km = (distance: number) => `${distance.toFixed(distance < 10 ? 1 : 0)} km`;
	const share = $derived(
		comes.furtherKm === null ? 0 : comes.afterKm / Math.max(0.001, comes.afterKm + comes.furtherKm)
	);
</script>

{#if comes.before && comes.residual !== null && comes.furtherKm !== null}
	<dl class="mt-2 grid grid-cols-2 gap-x-6 gap-y-1 sm:grid-cols-4">
		<div>
			<dt class="text-sm text-ink-2">before it was mended</dt>
			<dd class="num text-xl">{comes.before.returns}× in {km(comes.before.km)}</dd>
		</div>
		<div>
			<dt class="text-sm text-ink-2">without it since</dt>
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
	<details class="mt-1" open={comes.before === null}>
		<summary class="min-h-11 cursor-pointer py-2.5 font-semibold"
			>{comes.before ? 'Say it otherwise' : 'How often did it come before?'}</summary
		>
		<form method="POST" action="?/returns" use:enhance>
			<div class="grid gap-4 sm:grid-cols-[8rem_8rem_1fr_1fr]">
				<Field label="Times" errors={$errors.returns}
					><input class="field num text-right" type="number" step="1" bind:value={$form.returns} /></Field
				>
				<Field label="in km" errors={$errors.overKm}
					><input class="field num text-right" type="number" step="0.1" bind:value={$form.overKm} /></Field
				>
				<Field label="By whose word"
					><select class="field" bind:value={$form.from}
						>{#each RETURNS_FROM as from (from)}<option value={from}>{from}</option>{/each}</select
					></Field
				>
				<Field label="When it shows"><input class="field" bind:value={$form.conditions} /></Field>
			</div>
			<FormFoot made={told} save="Save it" />
		</form>
	</details>
{/if}
