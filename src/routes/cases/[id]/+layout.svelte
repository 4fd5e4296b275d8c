<script lang="ts">
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { onMount, tick, untrack } from 'svelte';
	import { STATIONS } from '$lib/case/progress/stations';
	import Caution from '$lib/ui/Caution.svelte';
	import KeysHelp from '$lib/ui/KeysHelp.svelte';
	import { useKeys } from '$lib/ui/keys';
	import Part from '$lib/ui/Part.svelte';
	import NextStrip from '$lib/ui/NextStrip.svelte';
	import StationLine from '$lib/ui/StationLine.svelte';
	import ThreadPanel from '$lib/ui/ThreadPanel.svelte';
	import WhoAmI from '$lib/ui/WhoAmI.svelte';
	import Wordmark from '$lib/ui/Wordmark.svelte';
	import type { JobStatus } from '$lib/case/progress/jobStatus';
	import { sendEntry } from '$lib/away/record';
	import { followCase } from '../../caseStream';
	import { keepInTime } from '$lib/away/keepPages';
	import { PAGES_OF_CASE } from '$lib/away/keptPages';
	import { outbox } from '$lib/away/outbox.svelte';
	import { setCaseWork } from './caseWork.svelte';
	import { refreshCase } from '$lib/ui/refresh';
	import HeldSignals from './HeldSignals.svelte';
	import StandIn from './StandIn.svelte';
	import WorkBar from './WorkBar.svelte';

	let { children, data } = $props();
	let help: KeysHelp;
	let threadOpen = $state(false);
	const shown = $derived(data.case);
	const here = $derived(page.url.pathname.split('/')[3] ?? null);
	const work = setCaseWork(
		() => shown.id,
		untrack(() => data.job),
		() => ({ linkAddress: shown.vehicle.linkAddress, elsewhere: data.elsewhere })
	);

	onMount(() => {
		const caseId = shown.id;
		return followCase({ caseId, live: 'none' }, ({ name, value }) => {
			if (name === 'job') work.set(value as JobStatus | null);
			else if (name === 'head' && value !== shown.headSeq) void refreshCase();
			else if (name === 'next' && shown.nextStamp !== null && value !== shown.nextStamp) void refreshCase();
		});
	});

	/** In the yard the whole case is at hand, as it stands now. */
	$effect(() => {
		if (outbox.away || !data.member || shown.signed) return;
		keepInTime(
			PAGES_OF_CASE.map((path) => `/cases/${shown.id}/${path}`),
			String(shown.headSeq)
		);
	});

	/** Takes an entry out of what counts, with its reason. */
	async function withdraw(entryId: string, what: string, because: string): Promise<boolean> {
		const sent = await sendEntry(shown.id, 'withdrawn', { entryId, what: what.slice(0, 300), because });
		if (sent) await refreshCase();
		return sent !== false;
	}

	/** Goes to the next step; already there, does it or puts the cursor into it. */
	async function doNext() {
		const next = shown.next;
		if (!next) return;
		const path = `/cases/${shown.id}/${next.path ?? [next.station, next.page].filter(Boolean).join('/')}`;
		const there = next.path
			? page.url.pathname + page.url.search === path
			: next.page
				? page.url.pathname === path
				: here === next.station;
		if (!there) await goto(path);
		await tick();
		const place = next.anchor ? document.getElementById(next.anchor) : null;
		place?.scrollIntoView({ block: 'center' });
		const button = place?.querySelector<HTMLButtonElement>('[data-do]');
		if (there && button && !button.disabled) button.click();
		else place?.querySelector<HTMLElement>('input, textarea, select, [data-do], button')?.focus();
	}

	useKeys({
		...Object.fromEntries(
			STATIONS.map(({ id }, i) => [String(i + 1), () => void goto(`/cases/${shown.id}/${id}`)])
		),
		'.': () => void doNext(),
		t: () => (threadOpen = !threadOpen),
		f: () => void goto('/'),
		n: () => void goto('/cases/new'),
		'Shift+?': () => help.open()
	});
</script>

<a class="skip no-print" href="#main">To the page</a>
<header
	class="no-print flex min-h-16 items-center gap-x-3 gap-y-1 border-b border-rule px-4 py-2 sm:flex-wrap sm:gap-x-5 sm:px-6"
>
	<Wordmark />
	<!-- On a phone number and vehicle stand one above the other: the whole header is one row. -->
	<div class="relative flex min-w-0 flex-1 flex-col items-start sm:contents">
		<span class="num rounded bg-neutral px-[10px] text-neutral-content max-sm:text-sm sm:py-1"
			>{shown.number}</span
		>
		<p class="max-w-full min-w-0 truncate font-bold sm:text-xl sm:leading-tight max-lg:sm:flex-1">
			<a
				href="/cases/{shown.id}/vehicle"
				class="hover:underline max-sm:block max-sm:truncate max-sm:py-1 max-sm:after:absolute max-sm:after:inset-0"
				>{shown.vehicleName} · {shown.vehicle.nickname}</a
			>
		</p>
	</div>
	<p class="hidden min-w-0 flex-1 truncate text-ink-2 xl:block">{shown.complaint ?? ''}</p>
	<ul class="ml-auto hidden gap-2 lg:flex xl:ml-0">
		{#each shown.lampWords.slice(0, 2) as words, nth (nth)}
			<li class="max-w-80 truncate rounded-full border border-ink px-3 py-0.5 text-sm" title={words}>
				{words}
			</li>
		{/each}
	</ul>
	<div class="ml-auto flex items-center gap-2 lg:ml-0">
		<button class="act-quiet lg:hidden" aria-expanded={threadOpen} onclick={() => (threadOpen = !threadOpen)}
			>Thread · {shown.headSeq}</button
		>
		{#if data.member}<div class="max-sm:hidden">
				<WhoAmI name={data.member.name} theme={data.theme} />
			</div>{/if}
	</div>
</header>
<StationLine stations={shown.stations} {here} caseId={shown.id} />
<div class="grid lg:grid-cols-[minmax(0,1fr)_348px] print:block">
	<main id="main" tabindex="-1" class="min-w-0 px-4 pt-4 pb-24 sm:px-6">
		{#if shown.chain}<p role="alert" class="mb-3 border-l-4 border-bad pl-4 text-lg font-semibold">
				This thread is not as it was written: {shown.chain}. Nothing can be added to it or signed. Ask a lead.
			</p>{/if}
		{#if data.vehicleCautions}<Caution>{data.vehicleCautions}</Caution>{/if}
		<WorkBar />
		<HeldSignals
			held={data.held}
			caseId={shown.id}
			mayWrite={data.canWrite && !shown.signed && !shown.vehicle.standInAddress}
		/>
		{#if shown.next && data.canWrite}<NextStrip next={shown.next} onstart={doNext} />{/if}
		<Part what="This page">{@render children()}</Part>
	</main>
	<aside
		class="no-print border-l border-rule bg-raised {threadOpen
			? 'fixed inset-y-0 right-0 z-20 w-[348px] overflow-y-auto lg:static'
			: 'hidden lg:block'} lg:min-h-[calc(100vh-127px)]"
		aria-label="Thread"
	>
		<div class="mx-5 mt-4 flex flex-wrap items-center justify-between gap-2 lg:hidden">
			<button class="act-quiet" onclick={() => (threadOpen = false)}>Close</button>
			{#if data.member}<div class="sm:hidden"><WhoAmI name={data.member.name} theme={data.theme} /></div>{/if}
		</div>
		<Part what="The thread"
			><ThreadPanel
				lines={shown.lines}
				total={shown.headSeq}
				broken={shown.chain}
				withdraw={data.canWrite && !shown.signed ? withdraw : null}
			/></Part
		>
	</aside>
</div>
{#if shown.vehicle.standInAddress && data.canWrite}<StandIn caseId={shown.id} />{/if}
<KeysHelp
	bind:this={help}
	keys={[
		['1 – 8', 'go to a station'],
		['.', 'the next step'],
		['t', 'show or hide the thread (tablet)'],
		['/', 'decode a code or find one by words'],
		['f', 'to the floor'],
		['n', 'new case'],
		['?', 'these keys']
	]}
/>
