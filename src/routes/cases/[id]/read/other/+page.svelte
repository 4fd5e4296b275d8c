<script lang="ts">
	import { untrack } from 'svelte';
	import { deserialize } from '$app/forms';
	import { goOn } from '../../../../goOn';
	import { refreshCase } from '$lib/ui/refresh';
	import { roleCalled, undescribedModules, writtenCodes } from '$lib/case/codes/otherTool';
	import { findCodes } from '$lib/core/codes/findCodes';
	import { codeCalled } from '$lib/core/codes/spelling';
	import { entryForm } from '$lib/ui/entryForm.svelte';
	import Field from '$lib/ui/Field.svelte';
	import FormFoot from '$lib/ui/FormFoot.svelte';
	import OfferFile from '$lib/ui/OfferFile.svelte';
	import { PhotoBox } from '../../photos.svelte';
	import PhotoStrip from '../../PhotoStrip.svelte';
	import Understood from './Understood.svelte';

	let { data } = $props();
	const id = untrack(() => data.case.id);
	const made = entryForm(() => data.form, {
		id: 'other-tool',
		draftKey: `${id}:other-tool`,
		waits: 'Codes of another tool',
		onSaved: () => goOn(`/cases/${id}/read`)
	});
	const { form, errors, enhance } = made;
	const photos = new PhotoBox(() => id);
	photos.kept = untrack(() => $form.photos);
	$effect(() => {
		$form.photos = $state.snapshot(photos.kept);
	});
	const SAID = [
		['no-codes', 'no codes'],
		['codes', 'codes'],
		['no-answer', 'no answer'],
		['not-asked', 'not asked']
	] as const;
	/** What the paste held that no module could be found for. */
	let homeless = $state<string[]>([]);
	/** Modules that the print-out names and nobody has described. */
	let unknown = $state<ReturnType<typeof undescribedModules>>([]);
	const names = $derived(new Map<string, string>(data.modules.map(({ role, name }) => [role, name])));
	const codesIn = $derived($form.modules.filter(({ said }) => said === 'codes').length);
	const notAsked = $derived($form.modules.filter(({ said }) => said === 'not-asked').length);

	/** Lays a print-out's codes beside the modules that it names. */
	function take(text: string) {
		homeless = [];
		const byRole: Record<string, string[]> = {};
		const found = findCodes(text);
		unknown = undescribedModules(found.headings, data);
		for (const { name, codes } of found.modules) {
			const role = name === null ? null : roleCalled(name, data);
			const told = codes.map(({ code, words, told: beside }) =>
				[
					codeCalled(code),
					...words.map((word) => word.toLowerCase()),
					...(beside ? [`– ${beside}`] : [])
				].join(' ')
			);
			if (role === null) homeless.push(...told);
			else byRole[role] = [...(byRole[role] ?? []), ...told];
		}
		$form.text = text;
		$form.modules = $form.modules.map((module) => {
			const told = byRole[module.role];
			return told ? { ...module, said: 'codes' as const, codes: told.join('\n') } : module;
		});
	}
	/** One press for what a print-out leaves out because there is nothing to say. */
	function restClean() {
		$form.modules = $form.modules.map((module) =>
			module.said === 'not-asked' ? { ...module, said: 'no-codes' as const } : module
		);
	}
	// Modules that come to the description come to the form; what was written down stays.
	$effect(() => {
		const { modules } = data;
		untrack(() => {
			const written = new Map($form.modules.map((module) => [module.role, module]));
			if (modules.every(({ role }) => written.has(role))) return;
			$form.modules = modules.map(
				({ role }) => written.get(role) ?? { role, said: 'not-asked' as const, codes: '' }
			);
			if ($form.text !== '') take($form.text);
		});
	});
	let growing = $state(false);
	let growTrouble = $state<string | null>(null);
	/** The description grows by what the print-out names; what was written down on this page stays. */
	async function grow() {
		const body = new FormData();
		body.set('entryId', data.growId);
		for (const { role } of unknown) body.append('role', role);
		growing = true;
		growTrouble = null;
		try {
			const answer = await fetch('?/grow', { method: 'POST', body });
			const result = deserialize<{ grown: true }, { growError?: string }>(await answer.text());
			if (result.type !== 'success')
				growTrouble =
					(result.type === 'failure' && result.data?.growError) ||
					'It could not be added. Nothing was changed.';
			else await refreshCase();
		} catch {
			growTrouble = 'The server cannot be reached. Nothing was changed.';
		}
		growing = false;
	}
	const takeFile = async (file: File) => take(await file.text());
</script>

<svelte:head><title>{data.case.number} Read with another tool · Jaldi</title></svelte:head>
<section class="pt-5">
	<h1 class="text-2xl font-bold">What did the other tool read?</h1>
	<p class="mt-1 text-ink-2">
		It counts as a reading, on your word. Say of every module what the tool said: one that was not asked is
		not clean.
	</p>
</section>
<form method="POST" action="?/save" use:enhance class="mt-4 space-y-5">
	<div class="max-w-md">
		<Field label="Read with" errors={$errors.tool}
			><input class="field" bind:value={$form.tool} placeholder="the tool of the shop" /></Field
		>
	</div>
	<section aria-labelledby="print-out">
		<h2 id="print-out" class="font-bold">Its print-out, if there is one</h2>
		<OfferFile
			label="Print-out of the other tool"
			hint="Paste it here: its codes go to the modules below"
			bind:text={$form.text}
			ontext={(text) => take(text)}
			onfile={(file) => void takeFile(file)}
		>
			{#snippet more()}<PhotoStrip {photos} alt="Print-out of the other tool" />{/snippet}
		</OfferFile>
		{#if unknown.length > 0}
			<div class="mt-2 border-l-4 border-ink pl-3" role="status">
				<p>
					<strong>It names {unknown.map(({ called }) => called).join(', ')}</strong>, which this vehicle is
					not described with.
				</p>
				<button type="button" class="act-quiet mt-2" disabled={growing} onclick={() => void grow()}
					>Add {unknown.length === 1 ? 'it' : 'them'} to the description</button
				>
				{#if growTrouble}<p class="font-semibold" role="alert">{growTrouble}</p>{/if}
			</div>
		{/if}
		{#if homeless.length > 0}
			<p class="mt-2 border-l-4 border-ink pl-3" role="status">
				<strong>No module is named for</strong>
				<span class="num">{homeless.join(', ')}</span>: write each at the module it was read from.
			</p>
		{/if}
	</section>
	<fieldset>
		<legend class="font-bold">Module by module</legend>
		<ul class="mt-1">
			{#each $form.modules as module, i (i)}
				<li class="hair grid items-start gap-x-4 gap-y-1 py-2 sm:grid-cols-[14rem_10rem_minmax(0,1fr)]">
					<span class="pt-2.5 font-semibold">{names.get(module.role)}</span>
					<select class="field" aria-label="{names.get(module.role)}: what it said" bind:value={module.said}>
						{#each SAID as [value, words] (value)}<option {value}>{words}</option>{/each}
					</select>
					{#if module.said === 'codes'}
						<div>
							<textarea
								class="field num [field-sizing:content]"
								rows={Math.max(1, module.codes.split('\n').length)}
								aria-label="Codes of {names.get(module.role)}"
								placeholder="one a line, as the tool has it: C0035-14 active, 01314 stored"
								spellcheck="false"
								bind:value={$form.modules[i]!.codes}></textarea>
							<Understood
								codes={writtenCodes(module.codes)}
								onbytes={(written) =>
									($form.modules[i]!.codes = module.codes.replace(new RegExp(written, 'i'), `0x${written}`))}
							/>
						</div>
					{/if}
				</li>
			{/each}
		</ul>
	</fieldset>
	{#if data.sinceClear}
		<label class="flex min-h-11 cursor-pointer items-center gap-3">
			<input type="checkbox" class="checkbox" bind:checked={$form.testsRan} />
			<span>The tool says that the tests of its codes have run since the clear</span>
		</label>
	{/if}
	{#if notAsked > 0}
		<p>
			<button type="button" class="act-quiet" onclick={restClean}
				>{notAsked === data.modules.length ? 'All' : 'All the others'} were asked and had no codes</button
			>
		</p>
	{/if}
	<p class="text-ink-2" role="status">
		{codesIn === 0
			? 'No module has a code'
			: `${codesIn} ${codesIn === 1 ? 'module has' : 'modules have'} codes`}{notAsked > 0
			? `; ${notAsked} not asked: it is a reading in part`
			: '; every module was asked'}.
	</p>
	<FormFoot {made} save="Save the reading" />
</form>
