<script lang="ts">
	import { enhance } from '$app/forms';
	import { upperFirst } from '$lib/case/words';
	import { shown } from '$lib/ui/units';

	let { data, form } = $props();
	const heeded = $derived(data.cases.filter(({ off }) => off === null).length);
	/** The case that is being taken off. */
	let asking = $state<string | null>(null);
</script>

<svelte:head><title>What is learned · Jaldi</title></svelte:head>
<h1 class="text-2xl leading-tight font-bold">
	{heeded === 0
		? 'Nothing is learned from this shop’s own cases yet'
		: `${heeded} ${heeded === 1 ? 'case has' : 'cases have'} taught something`}
</h1>
<p class="mt-1 max-w-3xl text-lg text-ink-2">
	Each was signed with everything proven and has not come back. Its last repair speaks for the faults that it
	cures: most on a vehicle of its type with such codes, less on others, and by how alike odometer and time of
	the year are. What was released or closed unproven teaches nothing.
</p>
{#if form?.error}<p role="alert" class="mt-3 border-l-4 border-ink pl-3 font-semibold">{form.error}</p>{/if}
<ul class="mt-5 max-w-4xl border-t-2 border-ink">
	{#each data.cases as one (one.id)}
		<li class="hair py-3">
			<div class="flex flex-wrap items-start justify-between gap-x-6 gap-y-2">
				<p class={one.off ? 'text-ink-2' : ''}>
					<strong>{upperFirst(one.repair)}</strong>, {one.place}<br />
					<a class="num underline underline-offset-4" href="/cases/{one.id}/hand-over">{one.number}</a>, {one.vehicle}<br
					/>
					<span class="text-ink-2"
						>{[...one.codes, ...(one.km === null ? [] : [shown(one.km, 'distance')]), one.day].join(
							', '
						)}</span
					>
					{#if one.off}<br />Taken off by {one.off.by}: {one.off.why}{/if}
				</p>
				{#if data.mayChange && one.off}
					<form method="POST" action="?/again" use:enhance>
						<input type="hidden" name="caseId" value={one.id} />
						<button class="act-quiet">Learn from it again</button>
					</form>
				{:else if data.mayChange}
					<button
						type="button"
						class="act-quiet"
						aria-expanded={asking === one.id}
						onclick={() => (asking = asking === one.id ? null : one.id)}>Do not learn from it</button
					>
				{/if}
			</div>
			{#if asking === one.id && !one.off}
				<form
					method="POST"
					action="?/off"
					use:enhance={() =>
						({ update, result }) => {
							if (result.type === 'success') asking = null;
							void update({ reset: false });
						}}
					class="mt-2 max-w-xl"
				>
					<input type="hidden" name="caseId" value={one.id} />
					<label class="block"
						><span class="mb-1 block font-semibold">Why not?</span><input
							class="field"
							name="reason"
							maxlength="300"
						/></label
					>
					<button class="act mt-3">Take it off</button>
				</form>
			{/if}
		</li>
	{:else}<li class="py-3">
			Cases come here by themselves once a lead has signed them with everything proven.
		</li>{/each}
</ul>
{#if !data.mayChange && data.cases.length > 0}<p class="mt-3">A lead says what is learned from.</p>{/if}
