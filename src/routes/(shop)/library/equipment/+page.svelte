<script lang="ts">
	import { enhance } from '$app/forms';
	import { upperFirst } from '$lib/case/words';

	let { data, form } = $props();
	const owned = $derived(data.functions.filter((one) => one.owned).length);
</script>

<svelte:head><title>What this shop can do · Jaldi</title></svelte:head>
<h1 class="text-2xl leading-tight font-bold">
	This shop can do {owned} of {data.functions.length} things that repairs may call for
</h1>
<p class="mt-1 text-lg text-ink-2">
	Before a repair is begun, what it needs is held against this list: yes, partly, or better somewhere else.
</p>
<form method="POST" action="?/save" use:enhance class="mt-5 max-w-3xl">
	<fieldset disabled={!data.mayChange}>
		<legend class="sr-only">What this shop can do itself</legend>
		{#each data.functions as one (one.id)}
			<label class="hair flex min-h-12 cursor-pointer items-center gap-3 py-1">
				<input type="checkbox" class="checkbox" name="owned" value={one.id} checked={one.owned} />
				<span class="flex-1">{upperFirst(one.words)}</span>
				<span class="text-sm text-ink-2"
					>{one.before ? 'without it work is not begun' : 'can be done elsewhere afterwards'}</span
				>
			</label>
		{/each}
	</fieldset>
	{#if form?.error}<p role="alert" class="mt-3 border-l-4 border-ink pl-3 font-semibold">{form.error}</p>{/if}
	{#if data.mayChange}
		<div class="mt-4 flex items-center gap-4">
			<button class="act">Save the list</button>
			{#if form?.saved}<span role="status">Saved; it holds from now on.</span>{/if}
		</div>
	{:else}<p class="mt-4">A lead keeps this list.</p>{/if}
</form>
