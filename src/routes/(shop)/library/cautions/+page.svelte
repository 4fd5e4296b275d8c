<script lang="ts">
	import { enhance } from '$app/forms';
	import { upperFirst } from '$lib/case/words';

	let { data, form } = $props();
	const own = $derived(data.exposures.filter((one) => one.own !== '').length);
</script>

<svelte:head><title>Cautions · Jaldi</title></svelte:head>
<h1 class="text-2xl leading-tight font-bold">
	{own === 0
		? 'The library’s cautions; none of this shop’s own yet'
		: own === 1
			? 'One caution of this shop’s own'
			: `${own} cautions of this shop’s own`}
</h1>
<p class="mt-1 max-w-3xl text-lg text-ink-2">
	A step says what it exposes; what is said about that stands here, once. It shows on every test, sheet and
	calibration that exposes it. Nothing of the library can be taken away, and the maker’s procedure and local
	law come before all of it.
</p>
{#if form?.error}<p role="alert" class="mt-3 border-l-4 border-ink pl-3 font-semibold">{form.error}</p>{/if}
<ul class="mt-5 max-w-4xl">
	{#each data.exposures as one (one.id)}
		<li class="hair py-3">
			<h2 class="font-bold">When {one.what}</h2>
			{#each one.cautions as words, nth (nth)}<p>{words}</p>{/each}
			{#if data.mayChange}
				<form method="POST" action="?/save" use:enhance class="mt-2 flex flex-wrap items-center gap-3">
					<input type="hidden" name="exposure" value={one.id} />
					<input
						class="field min-w-60 flex-1"
						name="words"
						maxlength={data.mostLetters}
						aria-label="{upperFirst(one.what)}: this shop’s own words"
						placeholder="this shop’s own words"
						value={one.own}
					/>
					<button class="act-quiet">Save</button>
					{#if form?.saved === one.id}<span role="status">Saved; it shows from now on.</span>{/if}
				</form>
			{:else if one.own}<p class="border-l-4 border-ink pl-3">{one.own}</p>{/if}
		</li>
	{/each}
</ul>
