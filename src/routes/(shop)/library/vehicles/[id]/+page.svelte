<script lang="ts">
	import type { ComponentProps } from 'svelte';
	import { enhance } from '$app/forms';
	import { invalidateAll } from '$app/navigation';
	import { upperFirst } from '$lib/case/words';
	import GraphDrawing from '$lib/ui/GraphDrawing.svelte';
	import VehicleFields from '$lib/ui/VehicleFields.svelte';

	let { data, form } = $props();

	const keep: ComponentProps<typeof VehicleFields>['keep'] = async (told) => {
		const response = await fetch(`/library/vehicles/${data.id}`, {
			method: 'PUT',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify(told)
		});
		if (response.ok) {
			await invalidateAll();
			return null;
		}
		const answer = (await response.json().catch(() => null)) as { message?: string } | null;
		return answer?.message ?? 'The server refused. What you typed is kept here.';
	};
	const words = (value: string | null) => (value === null ? 'not there' : value === '' ? 'nothing' : value);
</script>

<svelte:head><title>{data.name} · Jaldi</title></svelte:head>
<p>
	<a class="inline-flex min-h-11 items-center underline underline-offset-4" href="/library/vehicles"
		>All vehicles</a
	>
</p>
<h1 class="text-2xl leading-tight font-bold">
	{upperFirst(data.name)}: {data.assumed === 0
		? 'all of it is known'
		: `${data.assumed} things are only assumed`}
</h1>
<p class="mt-1 text-lg text-ink-2">
	Version <span class="num">{data.version}</span>. What is only assumed is drawn dotted. A case that is open
	keeps the version that it is worked with.
</p>
{#if form?.refused}<p role="alert" class="mt-3 border-l-4 border-ink pl-3 font-semibold">
		{form.refused}
	</p>{/if}
{#if form?.kept}<p role="status" class="mt-3">Kept as version <span class="num">{form.kept}</span>.</p>{/if}

<section class="mt-6" aria-labelledby="network">
	<h2 id="network" class="text-lg font-bold">What hangs on what</h2>
	<p class="text-ink-2">
		Fuses on the left, modules with where they answer, then grounds and the bus, drawn thick.
	</p>
	<div class="mt-3">
		<GraphDrawing graph={data.network} label="Modules, segments, fuses and grounds of {data.name}" />
	</div>
</section>
{#if data.corner}
	<section class="mt-8" aria-labelledby="corner">
		<h2 id="corner" class="text-lg font-bold">The circuit of one wheel</h2>
		<nav aria-label="Wheels" class="mt-1 flex flex-wrap gap-x-6">
			{#each data.wheels as position, nth (nth)}
				<a
					href="?wheel={position}"
					data-sveltekit-noscroll
					aria-current={position === data.corner.position ? 'true' : undefined}
					class="inline-flex min-h-11 items-center {position === data.corner.position
						? 'border-b-4 border-ink pt-1 font-bold'
						: 'text-ink-2'}">{position.replaceAll('-', ' ')}</a
				>
			{/each}
		</nav>
		<div class="mt-3">
			<GraphDrawing
				graph={data.corner.drawing}
				label="Wires of the sensor at the {data.corner.position.replaceAll('-', ' ')}"
			/>
		</div>
	</section>
{/if}

{#if data.mayEdit}
	<form method="POST" action="?/roles" use:enhance class="mt-8 border-t border-rule pt-4">
		<fieldset>
			<legend class="float-left text-lg font-bold">Which modules does it have?</legend>
			<div class="clear-both grid gap-x-6 pt-1 sm:grid-cols-2 lg:grid-cols-3">
				{#each data.roles as { role, name, has }, nth (nth)}
					<label class="flex min-h-11 cursor-pointer items-center gap-3">
						<input type="checkbox" class="checkbox" name="role" value={role} checked={has} />
						{name}
					</label>
				{/each}
			</div>
		</fieldset>
		<button class="act-quiet mt-2">Keep these modules</button>
	</form>
{/if}

<VehicleFields
	sections={data.sections}
	mayWrite={data.mayEdit}
	draftKey="jaldi:draft:library:{data.id}"
	open={1}
	{keep}
/>

{#if data.versions.length > 0}
	<section class="mt-10 border-t border-rule pt-4" aria-labelledby="versions">
		<h2 id="versions" class="text-lg font-bold">Versions</h2>
		<ul class="mt-2">
			{#each data.versions as { version, because, made }, nth (nth)}
				<li class="hair flex min-h-12 flex-wrap items-center gap-x-6 gap-y-1 py-1">
					<span class="w-28">Version <span class="num">{version}</span></span>
					<span class="flex-1"><span class="num pr-3 text-ink-2">{made}</span>{because}</span>
					{#if version !== data.version}
						<a
							class="inline-flex min-h-11 items-center underline underline-offset-4"
							href="?against={version}#compared">What has changed since</a
						>
						{#if data.mayEdit}
							<form method="POST" action="?/restore" use:enhance>
								<input type="hidden" name="version" value={version} />
								<button class="act-quiet" aria-label="Take version {version} up again"
									>Take it up again</button
								>
							</form>
						{/if}
					{:else}<span class="font-semibold">stands</span>{/if}
				</li>
			{/each}
		</ul>
	</section>
{/if}
{#if data.compared}
	<section class="mt-6" aria-labelledby="compared">
		<h2 id="compared" class="text-lg font-bold">
			{data.compared.rows.length === 0
				? `Nothing is said otherwise than in version ${data.compared.with}`
				: `${data.compared.rows.length + data.compared.more} ${data.compared.rows.length + data.compared.more === 1 ? 'thing is' : 'things are'} said otherwise than in version ${data.compared.with}`}
		</h2>
		{#if data.compared.learned > 0}
			<p class="text-ink-2">{data.compared.learned} that were only assumed are known by now.</p>
		{/if}
		<ul class="mt-2">
			{#each data.compared.rows as { path, before, after }, nth (nth)}
				<li class="hair grid gap-x-6 py-2 md:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
					<span class="num break-all">{path}</span>
					<span><span class="text-ink-2">{words(before)}</span> → <strong>{words(after)}</strong></span>
				</li>
			{/each}
		</ul>
		{#if data.compared.more > 0}<p>and {data.compared.more} more.</p>{/if}
	</section>
{/if}
