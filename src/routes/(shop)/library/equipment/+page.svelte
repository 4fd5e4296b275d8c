<script lang="ts">
	import { enhance } from '$app/forms';
	import { upperFirst } from '$lib/case/words';

	let { data, form } = $props();
	/** Lines of the list that were refused. */
	const typed = $derived(form && 'rules' in form ? String(form.rules) : null);
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
			<label class="hair flex min-h-12 cursor-pointer flex-wrap items-center gap-x-3 py-1">
				<input type="checkbox" class="checkbox" name="owned" value={one.id} checked={one.owned} />
				<span class="min-w-52 flex-1">{upperFirst(one.words)}</span>
				<span class="text-sm text-ink-2 max-sm:w-full max-sm:pl-9"
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

<section class="mt-10 max-w-3xl border-t border-rule pt-5" aria-labelledby="proof">
	<h2 id="proof" class="text-lg font-bold">What proof this shop asks for</h2>
	<form method="POST" action="?/proof" use:enhance class="mt-2">
		<fieldset disabled={!data.mayChange}>
			<legend>
				A fault that comes and goes is called gone when an unrepaired one would have stayed silent that far
				with a chance of no more than
			</legend>
			<div class="mt-2 flex flex-wrap gap-x-8">
				{#each data.targets as target, nth (nth)}
					<label class="flex min-h-11 cursor-pointer items-center gap-3">
						<input
							type="radio"
							class="radio"
							name="target"
							value={target}
							checked={target === data.target}
						/><span class="num text-lg">{target * 100} %</span>
					</label>
				{/each}
			</div>
			<label class="mt-2 flex min-h-11 cursor-pointer items-center gap-3">
				<input type="checkbox" class="checkbox" name="own" checked={data.signOwnRepair} />
				A lead may sign a case whose last repair is their own
			</label>
		</fieldset>
		{#if form?.proofError}<p role="alert" class="mt-3 border-l-4 border-ink pl-3 font-semibold">
				{form.proofError}
			</p>{/if}
		{#if data.mayChange}
			<div class="mt-3 flex items-center gap-4">
				<button class="act">Save what is asked</button>
				{#if form?.proofSaved}<span role="status">Saved; what was told before keeps its own.</span>{/if}
			</div>
		{/if}
	</form>
</section>

<section class="mt-10 max-w-3xl border-t border-rule pt-5" aria-labelledby="links">
	<h2 id="links" class="text-lg font-bold">Where this shop connects to vehicles</h2>
	<p class="text-ink-2">
		Interfaces and CAN adapters are reached at these hosts and networks only, one a line:
		<span class="num">192.168.4.1</span>, <span class="num">192.168.4.0/24:13400</span>,
		<span class="num">/dev/ttyACM0</span>. <span class="num">127.0.0.1</span> is the machine that Jaldi runs on.
	</p>
	{#if data.pluggedIn.length > 0}
		<p class="mt-1">
			Plugged in at this machine, and not in the list: <span class="num">{data.pluggedIn.join(', ')}</span>
		</p>
	{/if}
	<form
		method="POST"
		action="?/links"
		class="mt-2"
		use:enhance={() =>
			({ update }) =>
				update({ reset: false })}
	>
		<textarea
			class="field num"
			name="rules"
			rows={Math.max(3, data.linkRules.length + 1)}
			aria-label="Hosts, networks and devices"
			readonly={!data.mayChange}
			spellcheck="false"
			value={typed ?? data.linkRules.join('\n')}></textarea>
		{#if form?.linksError}<p role="alert" class="mt-3 border-l-4 border-ink pl-3 font-semibold">
				{form.linksError}
			</p>{/if}
		{#if data.mayChange}
			<div class="mt-3 flex items-center gap-4">
				<button class="act">Save where it connects</button>
				{#if form?.linksSaved}<span role="status">Saved; it holds from now on.</span>{/if}
			</div>
		{/if}
	</form>
</section>
