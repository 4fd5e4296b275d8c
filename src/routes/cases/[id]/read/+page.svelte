<script lang="ts">
	import Act from '$lib/ui/Act.svelte';
	import JobProgress from '../JobProgress.svelte';
	import { getCaseWork } from '../caseWork.svelte';
	import LinkAddress from './LinkAddress.svelte';
	import ModuleReading from './ModuleReading.svelte';
	import NetworkSays from './NetworkSays.svelte';
	import Reported from './Reported.svelte';
	import TakeIn from './TakeIn.svelte';

	let { data } = $props();
	const work = getCaseWork();
	const shown = $derived(data.shown);
	const silent = $derived(shown?.modules.filter((m) => !m.answered) ?? []);
	const codes = $derived(shown?.modules.reduce((sum, m) => sum + m.codes.length, 0) ?? 0);
	const headline = $derived.by(() => {
		if (!shown && data.byLamp && data.lampCodes.length > 0) return 'Its lamp was read';
		if (!shown) return 'Nothing is read yet';
		const where = shown.modules.filter((m) => m.codes.length > 0).length;
		const found =
			codes === 0
				? 'No codes'
				: `${codes} ${codes === 1 ? 'code' : 'codes'} in ${where} ${where === 1 ? 'module' : 'modules'}`;
		const follow =
			shown.following === 0
				? ''
				: ` (${shown.following} ${shown.following === 1 ? 'follow-on code' : 'follow-on codes'})`;
		return silent.length > 0 ? `${found}${follow}, ${silent.length} silent` : `${found}${follow}`;
	});
</script>

<svelte:head><title>{data.case.number} Read · Jaldi</title></svelte:head>
<section id="scan" class="pt-5">
	<div class="flex flex-wrap items-end justify-between gap-4">
		<div>
			<h1 class="text-2xl leading-tight font-bold">{headline}</h1>
			{#if shown}
				<p class="mt-1 text-ink-2">
					{shown.time} by {shown.by}{shown.tool ? ` with ${shown.tool}, on their word` : ''}{shown.outcome ===
					'partial'
						? `, partial: ${shown.modules.length} of ${shown.expected} modules`
						: ''}
					{#if shown.vin}· <span class="num">{shown.vin}</span>{/if}
				</p>
			{:else}
				<p class="mt-2 text-lg">
					{data.byLamp
						? 'It is older than any link: its lamp counts the codes out, and the pedal asks for them.'
						: !data.linkAddress
							? 'Read it with the tool you have and write down what it said, or give the address of its interface.'
							: !data.whereKnown && data.described
								? 'Nobody has told yet where its modules answer: search them once, and they are known.'
								: 'Key on, interface plugged in. Every module is asked, not only the one behind the lamp.'}
				</p>
			{/if}
		</div>
		{#if data.canWrite && !data.case.signed && data.byLamp}
			<a
				data-do
				class={data.lampCodes.length > 0 ? 'act-quiet' : 'act'}
				href="/cases/{data.case.id}/read/lamp">Read its lamp</a
			>
		{:else if data.canWrite && !data.case.signed}
			<div class="flex flex-wrap items-center gap-3">
				{#if data.described && !data.whereKnown}
					<a
						class={data.linkAddress && !shown ? 'act' : 'act-quiet'}
						data-do={data.linkAddress && !shown ? '' : undefined}
						href="/cases/{data.case.id}/read/find">Find its modules</a
					>
				{:else if data.linkAddress || !data.described}
					<Act
						data-do
						class={shown ? 'act-quiet' : 'act'}
						whyNot={work.whyNot}
						onclick={() => work.begin({ do: 'scan' })}>{shown ? 'Scan again' : 'Scan every module'}</Act
					>
				{/if}
				{#if data.described}
					<a
						class={data.linkAddress || shown ? 'act-quiet' : 'act'}
						data-do={data.linkAddress ? undefined : ''}
						href="/cases/{data.case.id}/read/other">Read with another tool</a
					>
				{/if}
			</div>
		{/if}
	</div>
	{#if data.canWrite && !data.case.signed && !data.byLamp}<LinkAddress
			data={data.addressForm}
			saved={data.linkAddress}
			caseId={data.case.id}
		/>{/if}
	{#if data.linkAddress && data.whereKnown && data.canWrite && !data.case.signed && !data.byLamp}
		<p class="text-sm">
			<a
				class="inline-flex min-h-11 items-center underline underline-offset-4"
				href="/cases/{data.case.id}/read/find">Which modules answer there?</a
			>
		</p>
	{/if}
	<JobProgress kinds={['scan']} />
</section>

{#if shown}
	{#if shown.outcome === 'partial'}
		<p class="my-4 border-l-4 border-ink pl-3">
			<strong>Partial.</strong>
			{shown.stoppedBecause} What was read until then is kept below.
		</p>
	{/if}
	{#if shown.vinDiffers}
		<p class="my-4 border-l-4 border-ink pl-3">
			<strong>Another number.</strong> The gateway’s number is not the one written down on Listen.
		</p>
	{/if}
	{#if shown.tool && (shown.printOut || shown.photos.length > 0)}
		<details class="mt-2">
			<summary class="inline-flex min-h-11 cursor-pointer items-center underline underline-offset-4"
				>Its print-out</summary
			>
			{#if shown.printOut}<pre
					class="num max-h-96 overflow-auto border-y border-rule py-2 text-sm whitespace-pre-wrap">{shown.printOut}</pre>{/if}
			{#if shown.photos.length > 0}
				<ul class="mt-2 flex flex-wrap gap-2">
					{#each shown.photos as { id } (id)}
						<li>
							<a href="/cases/{data.case.id}/measure/photo/{id}"
								><img
									class="h-24 w-32 object-cover"
									src="/cases/{data.case.id}/measure/photo/{id}"
									alt="Print-out of {shown.tool}"
									loading="lazy"
								/></a
							>
						</li>
					{/each}
				</ul>
			{/if}
		</details>
	{/if}
	<NetworkSays findings={shown.findings} />
	<div class="mt-5">
		{#each shown.modules as module, nth (nth)}<ModuleReading
				{module}
				comes={data.comes}
				caseId={data.case.id}
				scanId={shown.id}
			/>{/each}
	</div>
{/if}
{#if data.lampCodes.length > 0}
	<section aria-labelledby="lamp-codes" class="mt-6">
		<h2 id="lamp-codes" class="text-lg font-bold">Told by a lamp</h2>
		{#each data.lampCodes as { id, groups, meaning, lamp, repeats, time, by } (id)}
			<p class="hair flex min-h-11 flex-wrap items-baseline gap-x-4 py-2">
				<span class="num text-xl font-bold">{groups.join('-')}</span>
				<span class="flex-1">{meaning || `${lamp}: no table says what it means`}</span>
				<span class="text-sm text-ink-2"
					>{repeats === 1 ? 'seen once' : `seen ${repeats} times`} <span class="num">{time}</span> {by}</span
				>
			</p>
		{/each}
	</section>
{/if}
{#if data.canWrite && !data.case.signed && !data.byLamp}
	<p class="mt-6">
		<a class="act-quiet" href="/cases/{data.case.id}/read/lamp">Read a lamp that flashes</a>
	</p>
{/if}
{#if data.reported.length > 0}<Reported groups={data.reported} caseId={data.case.id} />{/if}
{#if data.canWrite && !data.case.signed}{#key data.case.id}<TakeIn caseId={data.case.id} />{/key}{/if}
{#if data.scans.length > 1}
	<nav aria-label="Earlier readings" class="mt-6">
		<h2 class="font-bold">All readings</h2>
		<ul>
			{#each data.scans as scan (scan.id)}
				<li>
					<a
						class="inline-flex min-h-11 items-center gap-3 {scan.id === shown?.id
							? 'font-bold'
							: 'underline underline-offset-4'}"
						href="?scan={scan.id}"
						data-sveltekit-noscroll
					>
						<span class="num">{scan.time}</span>
						{scan.codes}
						{scan.codes === 1 ? 'code' : 'codes'}{scan.outcome === 'partial' ? ', partial' : ''}, by {scan.by}
					</a>
				</li>
			{/each}
		</ul>
	</nav>
{/if}
