<script lang="ts">
	let { data } = $props();
</script>

<svelte:head><title>What was changed · Jaldi</title></svelte:head>
<p><a class="inline-flex min-h-11 items-center underline underline-offset-4" href="/people">People</a></p>
<h1 class="text-2xl leading-tight font-bold">
	{data.acts.length === 0 ? 'Nothing was changed yet' : 'What was changed in this shop'}
</h1>
<p class="mt-1 max-w-3xl text-lg text-ink-2">
	Who changed whom, and what everybody works by. Nothing is ever taken off this list.
	{#if data.acts.length > 0}<a class="underline underline-offset-4" href="/people/log/file"
			>All of it as a file (CSV)</a
		>{/if}
</p>
<ol class="mt-4 max-w-4xl border-t-2 border-ink">
	{#each data.acts as act (act.seq)}
		<li class="hair grid gap-x-4 py-2 sm:grid-cols-[9rem_1fr]">
			<span class="num text-ink-2">{act.at}</span>
			<span class="[overflow-wrap:anywhere]"><strong>{act.by}</strong> {act.words}</span>
		</li>
	{/each}
</ol>
<p class="mt-3 flex gap-6">
	{#if !data.first}<a class="act-quiet" href="/people/log">Newest</a>{/if}
	{#if data.older !== null}<a class="act-quiet" href="/people/log?before={data.older}">Older</a>{/if}
</p>
