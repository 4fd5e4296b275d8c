<script lang="ts">
	import { enhance } from '$app/forms';
	import Act from '$lib/ui/Act.svelte';

	let { data, form } = $props();
	let sending = $state(false);
	let chosen = $state('');
</script>

{#snippet asFile(id: string)}
	<a
		class="inline-flex min-h-11 items-center px-1 underline underline-offset-4"
		href="/library/vehicles/{id}/file">JSON</a
	>
{/snippet}

<svelte:head><title>Vehicles · Jaldi</title></svelte:head>
<h1 class="text-2xl leading-tight font-bold">
	{data.own.length === 0
		? 'This shop has described no vehicle yet'
		: `${data.own.length} ${data.own.length === 1 ? 'vehicle is' : 'vehicles are'} described by this shop`}
</h1>
<p class="mt-1 text-lg text-ink-2">
	A description is made when a case is opened on a vehicle that was never here, and put right at the vehicle.
	A case keeps the version that it was worked with.
</p>
<ul class="mt-5 border-t-2 border-ink">
	{#each data.own as { id, name, version, date, time }, nth (nth)}
		<li class="flex flex-wrap items-center gap-x-5 border-b border-rule py-1">
			<a
				class="inline-flex min-h-11 min-w-60 flex-1 items-center font-semibold underline decoration-1 underline-offset-4"
				href="/library/vehicles/{id}">{name}</a
			>
			<span class="text-ink-2"
				>version <span class="num">{version}</span>, <span class="num">{date} {time}</span></span
			>
			{@render asFile(id)}
		</li>
	{/each}
	{#each data.shipped as { id, name, use }, nth (nth)}
		<li class="flex flex-wrap items-center gap-x-5 border-b border-rule py-1">
			<span class="min-w-60 flex-1"
				><a
					class="inline-flex min-h-11 items-center font-semibold underline decoration-1 underline-offset-4"
					href="/library/vehicles/{id}">{name}</a
				>, {use}</span
			>
			<span class="text-ink-2">comes with Jaldi</span>
			{@render asFile(id)}
		</li>
	{/each}
</ul>
{#if data.mayEdit}
	<section class="mt-8" aria-labelledby="bring-in">
		<h2 id="bring-in" class="text-lg font-bold">Bring in a description</h2>
		<p class="mt-1 text-ink-2">
			JSON as this page writes it. Nothing but the wheels is required; the rest is filled in as it is usual
			and marked. A file with a fault is refused whole; one with an id that is here already is its next
			version.
		</p>
		<form
			method="POST"
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
				accept=".json,application/json"
				aria-label="Description of a vehicle"
				class="field max-w-80"
				onchange={(event) => (chosen = event.currentTarget.files?.[0]?.name ?? '')}
			/>
			<Act type="submit" class="act" disabled={sending} whyNot={chosen === '' ? 'Choose a file first.' : null}
				>{sending ? 'Reading…' : 'Bring it in'}</Act
			>
		</form>
		<div aria-live="polite">
			{#if form?.refused}
				<div role="alert" class="mt-3 border-l-4 border-ink pl-3">
					<strong>Refused whole{form.refused.name ? `: ${form.refused.name}` : ''}.</strong> Nothing was
					changed.
					<ul>
						{#each form.refused.problems as { path, reason }, nth (nth)}
							<li><span class="num">{path}</span>{path ? ': ' : ''}{reason}</li>
						{/each}
					</ul>
					{#if form.refused.more > 0}<p>and {form.refused.more} more.</p>{/if}
				</div>
			{:else if form?.taken}
				<p class="mt-3 border-l-4 border-ink pl-3">
					<strong>{form.taken.name}</strong> is in, version {form.taken.version}; {form.taken.assumed === 0
						? 'nothing'
						: form.taken.assumed} of it is assumed.
				</p>
			{/if}
		</div>
	</section>
{/if}
