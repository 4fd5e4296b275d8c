<script lang="ts">
	import ExchangeList from '$lib/ui/ExchangeList.svelte';
	import Pages from '$lib/ui/Pages.svelte';

	let { data } = $props();
	const { log } = $derived(data);
	const broken = $derived(log.problems.length + log.badLines.length);
</script>

<svelte:head><title>{data.case.number} {log.fileName} · Jaldi</title></svelte:head>
<section class="pt-5">
	<h1 class="text-2xl leading-tight font-bold [overflow-wrap:anywhere]">{log.fileName}</h1>
	<p class="mt-1 text-ink-2">
		{log.frames.toLocaleString('en-GB')} frames in {log.durationS.toFixed(1)} s; {log.exchangeCount.toLocaleString(
			'en-GB'
		)} exchanges{log.kept < log.exchangeCount ? `, the first ${log.kept.toLocaleString('en-GB')} kept` : ''}.
		<a class="underline underline-offset-4" href="/cases/{data.case.id}/read">Back to Read</a>
		{#if data.file}<a class="pl-3 underline underline-offset-4" href={data.file} download
				>The log as it came</a
			>{/if}
	</p>
	{#if broken > 0}
		<details class="mt-2">
			<summary class="inline-flex min-h-11 cursor-pointer items-center underline underline-offset-4"
				>{broken === 1 ? 'One thing' : `${broken} things`} could not be put together</summary
			>
			<ul class="text-sm">
				{#each log.problems as { timeS, id, reason, detail }, i (i)}
					<li class="hair py-1">
						<span class="num">{timeS.toFixed(3)} s {id}</span> <strong>{reason}</strong>: {detail}
					</li>
				{/each}
				{#each log.badLines as { line, reason }, nth (nth)}
					<li class="hair py-1"><span class="num">line {line}</span> {reason}</li>
				{/each}
			</ul>
		</details>
	{/if}
	<ExchangeList exchanges={data.exchanges} />
	<Pages page={data.page} pages={data.pages} />
</section>
