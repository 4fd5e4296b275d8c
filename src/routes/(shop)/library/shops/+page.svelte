<script lang="ts">
	import { enhance } from '$app/forms';
	import AskOnce from '$lib/ui/AskOnce.svelte';

	let { data, form } = $props();
</script>

<svelte:head><title>Other shops · Jaldi</title></svelte:head>
<h1 class="text-2xl leading-tight font-bold">
	{data.trusted.length === 0
		? 'No other shop is trusted yet'
		: data.trusted.length === 1
			? 'One other shop is trusted'
			: `${data.trusted.length} other shops are trusted`}
</h1>
<p class="mt-1 max-w-3xl text-lg text-ink-2">
	Every case that leaves a shop as one file is signed with that shop’s key. A case that comes in says whose
	key it carries: one that is trusted here, one that nobody here knows, or none.
</p>

<section class="mt-5 max-w-3xl" aria-labelledby="own">
	<h2 id="own" class="text-lg font-bold">The key of this shop</h2>
	<p class="mt-1">Give it to other shops by a way that you trust: by phone, or on paper.</p>
	<p class="num mt-2 border-l-4 border-ink pl-3 break-all">{data.own.publicKey}</p>
</section>

<section class="mt-8 max-w-3xl" aria-labelledby="theirs">
	<h2 id="theirs" class="text-lg font-bold">Shops that are trusted</h2>
	<ul>
		{#each data.trusted as shop (shop.id)}
			<li class="hair flex flex-wrap items-center justify-between gap-x-6 gap-y-2 py-2">
				<span
					><strong>{shop.name}</strong> <span class="num pl-2">{shop.short} …</span>
					<span class="pl-2 text-ink-2">by {shop.by}, {shop.at}</span></span
				>
				{#if data.mayChange}
					<form method="POST" action="?/distrust" use:enhance>
						<input type="hidden" name="publicKey" value={shop.id} />
						<AskOnce
							label="Trust it no longer"
							ask="Cases of {shop.name} that come in from now on are shown as signed by somebody unknown."
							yes="Trust {shop.name} no longer"
						/>
					</form>
				{/if}
			</li>
		{:else}<li class="py-2">None.</li>{/each}
	</ul>
	{#if data.mayChange}
		<form method="POST" action="?/trust" use:enhance class="mt-4 space-y-4">
			<label class="block"
				><span class="mb-1 block font-semibold">The shop</span><input
					class="field"
					name="name"
					maxlength="80"
				/></label
			>
			<label class="block"
				><span class="mb-1 block font-semibold">Its key</span><input
					class="field num"
					name="publicKey"
					maxlength="100"
					autocomplete="off"
				/></label
			>
			{#if form?.error}<p role="alert" class="border-l-4 border-ink pl-3 font-semibold">{form.error}</p>{/if}
			<button class="act">Trust this shop</button>
			{#if form?.saved}<span role="status" class="pl-4">Saved; it holds from now on.</span>{/if}
		</form>
	{:else}<p class="mt-3">A lead says which shops are trusted.</p>{/if}
</section>
