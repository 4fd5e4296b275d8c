<script lang="ts">
	import CaseList from '../CaseList.svelte';
	import OnlySome from '../OnlySome.svelte';
	import Pages from '$lib/ui/Pages.svelte';

	let { data } = $props();
</script>

<svelte:head><title>Closed cases · Jaldi</title></svelte:head>
<h1 class="text-2xl font-bold">
	{data.closed.total === 0
		? 'No case is signed yet'
		: data.closed.total === 1
			? 'One case signed'
			: `${data.closed.total} cases signed`}
</h1>
{#if data.closed.total === 0}
	<p class="text-lg">
		A case comes here once a lead has signed it: proven, or closed unproven with a reason.
	</p>
{:else}
	<OnlySome asked={data.asked} found={data.closed.found} of={data.closed.total} />
	{#if data.closed.found === 0}
		<p class="my-8 text-lg">None of the signed cases is one of these.</p>
	{:else}
		<CaseList rows={data.closed.rows} />
		{#if !data.closed.isAll}<p class="mt-3 text-ink-2">
				Looked for among the newest that fit: say more of it to find an older one.
			</p>{/if}
		<Pages page={data.closed.page} pages={data.closed.pages} />
	{/if}
{/if}
