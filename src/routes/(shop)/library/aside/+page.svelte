<script lang="ts">
	import { enhance } from '$app/forms';

	let { data } = $props();
	const shownDraft = (draft: string) => {
		try {
			return JSON.stringify(JSON.parse(draft), null, 2);
		} catch {
			return draft;
		}
	};
</script>

<svelte:head><title>Put aside · Jaldi</title></svelte:head>
<h1 class="text-2xl leading-tight font-bold">
	{data.works.length === 0
		? 'Nothing is put aside'
		: data.works.length === 1
			? 'One piece of work is not on its thread'
			: `${data.works.length} pieces of work are not on their threads`}
</h1>
<p class="mt-1 max-w-3xl text-lg text-ink-2">
	Work on a vehicle that a stopped server had begun, and that its thread did not take. Nothing of it is lost:
	look at what it had come to, do it again on the case if it still matters, then put it away.
</p>
<ul class="mt-5 max-w-3xl">
	{#each data.works as work (work.id)}
		<li class="hair py-4">
			<p class="text-lg">
				<strong>{work.what}</strong>, begun by {work.author}, on
				<a class="num underline underline-offset-4" href="/cases/{work.caseId}">{work.number}</a>,
				<span class="num">{work.time}</span>
			</p>
			<p class="mt-1">{work.why}</p>
			<details class="mt-1">
				<summary class="min-h-11 cursor-pointer py-2.5">What it had come to</summary>
				<pre class="num overflow-x-auto text-sm">{shownDraft(work.draft)}</pre>
			</details>
			{#if data.mayLook}
				<form method="POST" use:enhance>
					<input type="hidden" name="id" value={work.id} />
					<button class="act-quiet">I have looked at it</button>
				</form>
			{:else}<p>A lead puts it away.</p>{/if}
		</li>
	{/each}
</ul>
