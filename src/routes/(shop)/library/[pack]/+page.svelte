<script lang="ts">
	import Pages from '$lib/ui/Pages.svelte';

	let { data } = $props();
	const query = $derived(data.pack.maker ? `?maker=${data.pack.maker}` : '');
</script>

<svelte:head><title>{data.pack.name} · Jaldi</title></svelte:head>
<h1 class="text-2xl leading-tight font-bold">{data.pack.name}</h1>
<p class="mt-1 mb-5 text-lg text-ink-2">
	{data.pack.source}, state of <span class="num">{data.pack.date}</span>; {data.pack.definitions} definitions.
	<a class="underline underline-offset-4" href="/library">All sources</a>
</p>
{#if data.rows.length === 0}
	<p class="text-lg">
		{data.pack.origin === 'shop'
			? 'Nothing is written yet. Open a code – with / or on the page Decode – and a lead writes what this shop has learned of it.'
			: 'This pack is empty.'}
	</p>
{:else}
	<ul>
		{#each data.rows as { text, slug, title, group }, nth (nth)}
			<li class="hair">
				<a
					class="grid min-h-11 items-center gap-x-4 py-1 sm:grid-cols-[7rem_1fr_1fr]"
					href="/codes/{slug}{query}"
				>
					<span class="num underline underline-offset-4">{text}</span>
					<span class="font-semibold">{title}</span>
					<span class="text-sm text-ink-2">{group}</span>
				</a>
			</li>
		{/each}
	</ul>
	<Pages page={data.page} pages={data.pages} />
{/if}
