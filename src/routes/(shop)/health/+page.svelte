<script lang="ts">
	let { data } = $props();
	const health = $derived(data.health);
	const size = (bytes: number): string =>
		bytes >= 1e9 ? `${(bytes / 1e9).toFixed(1)} GB` : `${Math.max(1, Math.round(bytes / 1e6))} MB`;
	const long = (seconds: number): string =>
		seconds < 5400
			? `${Math.max(1, Math.round(seconds / 60))} min`
			: seconds < 172_800
				? `${Math.round(seconds / 3600)} h`
				: `${Math.round(seconds / 86_400)} days`;
	const figures = $derived([
		['Runs for', long(health.upSeconds)],
		['Cases, entries', `${health.cases.toLocaleString('en-GB')}, ${health.entries.toLocaleString('en-GB')}`],
		...(health.database
			? [
					['Database', size(health.database.bytes)],
					['Room on its disk', size(health.database.freeBytes)]
				]
			: [
					['Database', 'on another machine'],
					['Other servers on it', data.others.length > 0 ? data.others.join(', ') : 'none']
				]),
		['Newest backup', data.backups ? (data.backups.last ?? 'none yet') : 'none is made here'],
		['Memory', size(health.memoryBytes)],
		['Longest stall, of 99 in 100', `${data.stallMs.toFixed(0)} ms`]
	] as [string, string][]);
	const KINDS = {
		server: 'failed at the server',
		browser: 'failed in a browser',
		slow: 'slow at the server',
		'slow-in-browser': 'slow in a browser'
	} as const;
</script>

<svelte:head><title>The server · Jaldi</title></svelte:head>
<p><a class="inline-flex min-h-11 items-center underline underline-offset-4" href="/people">People</a></p>
<h1 class="text-2xl leading-tight font-bold">
	{health.concerns.length > 0
		? 'The server needs somebody'
		: data.troubles.length === 0
			? 'The server is well'
			: 'The server is well; some things went wrong'}
</h1>
{#each health.concerns as concern, nth (nth)}<p class="mt-2 border-l-4 border-ink pl-3 text-lg font-semibold">
		{concern}
	</p>{/each}
<dl class="mt-4 grid max-w-3xl grid-cols-1 border-t-2 border-ink sm:grid-cols-2 sm:gap-x-12">
	{#each figures as [name, value], nth (nth)}
		<div
			class="hair flex min-h-12 items-center justify-between gap-4 py-2 first:border-t-0 sm:[&:nth-child(2)]:border-t-0"
		>
			<dt class="text-ink-2">{name}</dt>
			<dd class="text-right font-semibold [overflow-wrap:anywhere] {/\d/.test(value) ? 'num' : ''}">
				{value}
			</dd>
		</div>
	{/each}
</dl>
<h2 class="mt-8 text-lg font-bold">
	{data.troubles.length === 0
		? 'Nothing went wrong since it was started'
		: 'What went wrong since it was started'}
</h2>
<ul class="mt-2 max-w-5xl {data.troubles.length > 0 ? 'border-t border-ink' : ''}">
	{#each data.troubles as trouble, nth (nth)}
		<li class="hair grid gap-x-6 py-2 sm:grid-cols-[6rem_12rem_1fr]">
			<span class="num text-ink-2">{trouble.at}</span>
			<span class="font-semibold">{KINDS[trouble.kind]}</span>
			<span class="[overflow-wrap:anywhere]">
				{trouble.text}<br /><span class="num text-sm text-ink-2"
					>{trouble.path}{trouble.username ? `, ${trouble.username}` : ''}{trouble.requestId
						? `, in the log: ${trouble.requestId}`
						: ''}</span
				>
			</span>
		</li>
	{/each}
</ul>
