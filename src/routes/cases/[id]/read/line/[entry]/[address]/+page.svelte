<script lang="ts">
	import { page } from '$app/state';
	import ExchangeList from '$lib/ui/ExchangeList.svelte';

	let { data } = $props();
</script>

<svelte:head><title>{data.case.number} {data.name}, on the line · Jaldi</title></svelte:head>
<section class="pt-5">
	<h1 class="text-2xl leading-tight font-bold">{data.name}, as it went over the line</h1>
	<p class="mt-1 text-ink-2">
		Module <span class="num">{data.address}</span>, read <span class="num">{data.time}</span>.
		<a class="underline underline-offset-4" href="/cases/{data.case.id}/read?scan={page.params.entry}"
			>Back to Read</a
		>
	</p>
	<ExchangeList exchanges={data.exchanges} />
</section>
