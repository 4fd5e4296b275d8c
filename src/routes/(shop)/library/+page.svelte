<script lang="ts">
	import Act from '$lib/ui/Act.svelte';
	import { enhance } from '$app/forms';
	import Sideways from '$lib/ui/Sideways.svelte';

	let { data, form } = $props();
	const ORIGIN = { shipped: 'comes with Jaldi', imported: 'brought in', shop: 'written here' };
	const total = $derived(data.packs.reduce((sum, pack) => sum + pack.definitions, 0));
	let sending = $state(false);
	let chosen = $state('');
</script>

<svelte:head><title>Library · Jaldi</title></svelte:head>
<h1 class="text-2xl leading-tight font-bold">
	{total.toLocaleString('en-GB')} definitions from {data.packs.length} sources
</h1>
<p class="mt-1 text-lg text-ink-2">
	Each source is a pack of its own. Where two speak of one code they stand side by side; this shop’s own words
	come first. <span class="of-keys">Find any of them with <kbd class="key">/</kbd></span>
</p>
<p class="mt-2">
	<a class="inline-flex min-h-11 items-center underline underline-offset-4" href="/library/reasoning"
		>Minutes, prices and odds that Reason goes by</a
	>
	<a class="ml-6 inline-flex min-h-11 items-center underline underline-offset-4" href="/library/learned"
		>What its own cases have taught</a
	>
	<a class="ml-6 inline-flex min-h-11 items-center underline underline-offset-4" href="/library/vehicles"
		>Vehicles</a
	>
	<a class="ml-6 inline-flex min-h-11 items-center underline underline-offset-4" href="/library/equipment"
		>What this shop can do</a
	>
	<a class="ml-6 inline-flex min-h-11 items-center underline underline-offset-4" href="/library/cautions"
		>Cautions</a
	>
	<a class="ml-6 inline-flex min-h-11 items-center underline underline-offset-4" href="/library/shops"
		>Other shops and their keys</a
	>
</p>
<Sideways label="Sources" class="mt-5">
	<table class="w-full min-w-[700px] border-collapse text-left">
		<thead class="border-b-2 border-ink text-sm">
			<tr class="[&>th]:pr-4 [&>th]:pb-2 [&>th]:font-semibold">
				<th>Source</th><th>For</th><th>State</th><th class="text-right">Definitions</th><th
					class="max-lg:hidden">Brought in</th
				><th>As a file</th>
			</tr>
		</thead>
		<tbody>
			{#each data.packs as pack (pack.id)}
				<tr class="border-b border-rule [&>td]:py-2 [&>td]:pr-4">
					<td>
						<a
							class="inline-flex min-h-11 items-center font-semibold underline underline-offset-4"
							href="/library/{pack.id}">{pack.name}</a
						>
						<span class="block text-sm text-ink-2">{pack.source}</span>
					</td>
					<td>{pack.maker ?? 'any maker'}</td>
					<td class="num whitespace-nowrap">{pack.date}</td>
					<td class="num text-right">{pack.definitions}</td>
					<td class="text-ink-2 max-lg:hidden"
						>{ORIGIN[pack.origin]}{pack.addedBy ? ` by ${pack.addedBy}` : ''}</td
					>
					<td class="whitespace-nowrap">
						<a
							class="inline-flex min-h-11 items-center px-1 underline underline-offset-4"
							href="/library/{pack.id}/file?as=json">JSON</a
						>
						<a
							class="inline-flex min-h-11 items-center px-1 underline underline-offset-4"
							href="/library/{pack.id}/file?as=csv">CSV</a
						>
						{#if data.mayEdit && pack.origin === 'imported'}
							<form method="POST" action="?/remove" use:enhance class="inline">
								<input type="hidden" name="id" value={pack.id} />
								<button class="min-h-11 cursor-pointer px-1 underline underline-offset-4">Take away</button>
							</form>
						{/if}
					</td>
				</tr>
			{/each}
		</tbody>
	</table>
</Sideways>

{#if data.mayEdit}
	<section class="mt-8" aria-labelledby="bring-in">
		<h2 id="bring-in" class="text-lg font-bold">Bring in a pack</h2>
		<p class="mt-1 text-ink-2">
			JSON by <a class="underline underline-offset-4" href="/library/pack.schema.json">the published schema</a
			>, or the CSV that this page writes. A pack with a fault is refused whole, with its line; one with an id
			that is here already replaces it.
		</p>
		<form
			method="POST"
			action="?/import"
			enctype="multipart/form-data"
			class="mt-3 flex flex-wrap items-center gap-3"
			use:enhance={() => {
				sending = true;
				return async ({ update }) => {
					await update();
					sending = false;
					chosen = '';
				};
			}}
		>
			<input
				type="file"
				name="file"
				accept=".json,.csv,application/json,text/csv"
				aria-label="Pack file"
				class="field max-w-80"
				onchange={(event) => (chosen = event.currentTarget.files?.[0]?.name ?? '')}
			/>
			<Act type="submit" class="act" disabled={sending} whyNot={chosen === '' ? 'Choose a file first.' : null}
				>{sending ? 'Reading…' : 'Bring it in'}</Act
			>
		</form>
		<div aria-live="polite">
			{#if form?.refused}
				<p role="alert" class="mt-3 border-l-4 border-ink pl-3">
					<strong>Refused whole{form.refused.name ? `: ${form.refused.name}` : ''}.</strong>
					{form.refused.line === null ? '' : `Line ${form.refused.line}: `}{form.refused.reason}. Nothing was
					changed.
				</p>
			{:else if form?.taken}
				<p class="mt-3 border-l-4 border-ink pl-3">
					<strong>{form.taken.name}</strong> is in, {form.taken.definitions} definitions.
				</p>
			{:else if form?.removed}
				<p class="mt-3 border-l-4 border-ink pl-3">The pack is taken away.</p>
			{/if}
		</div>
	</section>
{/if}
