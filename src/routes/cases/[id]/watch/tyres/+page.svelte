<script lang="ts">
	import { positionWords } from '$lib/case/words';
	import TrueSpeed from './TrueSpeed.svelte';
	import TyreSums from '$lib/ui/TyreSums.svelte';

	let { data } = $props();
</script>

<svelte:head><title>{data.case.number} Tyres · Jaldi</title></svelte:head>
<section class="pt-5">
	<p class="text-ink-2">
		<a class="underline underline-offset-4" href="/cases/{data.case.id}/watch">Watch</a>
	</p>
	<h1 class="mt-1 mb-4 text-2xl leading-tight font-bold">Tyres against each other</h1>
	<TyreSums fitted={data.fitted} nameOf={positionWords} drive={data.drive} codes={data.codes} />
	{#if data.canWrite && !data.case.signed}
		<TrueSpeed caseId={data.case.id} positions={data.positions} cautions={data.cautions} />
	{/if}
</section>
