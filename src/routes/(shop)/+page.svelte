<script lang="ts">
	import CaseTable from './CaseTable.svelte';
	import Pages from '$lib/ui/Pages.svelte';

	let { data } = $props();
	const WORDS = [
		'No',
		'One',
		'Two',
		'Three',
		'Four',
		'Five',
		'Six',
		'Seven',
		'Eight',
		'Nine',
		'Ten',
		'Eleven',
		'Twelve'
	];
	const spell = (n: number) => WORDS[n] ?? String(n);
	const waiting = $derived(data.floor.rows.filter((r) => r.summary.next?.station === 'hand-over').length);
	const returned = $derived(data.floor.rows.filter((r) => r.summary.returned).length);
	const today = $derived(
		data.floor.rows.filter(
			(r) => r.toGo?.today === 'yes' && (r.summary.waiting?.what ?? 'nothing') === 'nothing'
		).length
	);
	const tail = $derived(
		waiting > 0
			? `, ${spell(waiting).toLowerCase()} ${waiting === 1 ? 'waits' : 'wait'} only for a lead’s signature`
			: returned > 0
				? `, in ${spell(returned).toLowerCase()} a code came back`
				: ''
	);
	const first = $derived(
		data.floor.rows.find((r) => r.summary.next && r.summary.next.station !== 'hand-over') ?? null
	);
</script>

<svelte:head><title>Floor · Jaldi</title></svelte:head>
{#if data.aside > 0}
	<p role="alert" class="mb-5 border-l-4 border-ink pl-4 text-lg">
		<strong
			>{data.aside === 1 ? 'One piece of work is' : `${data.aside} pieces of work are`} not on a thread.</strong
		>
		<a class="underline underline-offset-4" href="/library/aside">Look at what was put aside</a>
	</p>
{/if}
{#if data.floor.total === 0}
	<h1 class="text-2xl font-bold">No case is open</h1>
	<p class="mt-2 text-lg">
		Open one when a vehicle comes in: press <kbd class="rounded border border-ink px-2 font-mono">n</kbd>.
	</p>
	<a class="act mt-6" href="/cases/new">New case</a>
{:else}
	<h1 class="text-2xl font-bold">
		{spell(data.floor.total)}
		{data.floor.total === 1 ? 'case' : 'cases'} open{today > 0
			? `, ${spell(today).toLowerCase()} can be finished today`
			: ''}{tail}
	</h1>
	{#if first?.summary.next}
		<p class="mt-1 mb-6 text-lg text-ink-2">Next: the {first.vehicle.nickname}. {first.summary.next.why}</p>
	{:else}<div class="mb-6"></div>{/if}
	<CaseTable rows={data.floor.rows} nextCase={first?.id ?? null} />
	<Pages page={data.page} pages={data.floor.pages} />
{/if}
