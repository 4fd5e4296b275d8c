<script lang="ts">
	import OnlyUsual from '../OnlyUsual.svelte';
	import { untrack } from 'svelte';
	import { page } from '$app/state';
	import { refreshCase } from '$lib/ui/refresh';
	import { positionWords, upperFirst } from '$lib/case/words';
	import { valueWords, windowWords } from '$lib/case/measure/measureWords';
	import Chain from '$lib/ui/Chain.svelte';
	import Legend from '$lib/ui/Legend.svelte';
	import { keepDraft } from '$lib/ui/draft.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import { FAMILY_WORDS } from '$library/sensorFamilies';
	import BenchNav from './BenchNav.svelte';
	import Identify from './Identify.svelte';
	import Meter from './Meter.svelte';
	import NotOnThis from './NotOnThis.svelte';
	import Sideways from '$lib/ui/Sideways.svelte';

	let { data } = $props();
	/** Sent here for one test, it is the one that is open. */
	let picked = $derived(page.url.searchParams.get('test'));
	let identifying = $state(false);
	let all = $state(false);
	const SHOWN = 6;
	const mayWrite = $derived(data.canWrite && !data.case.signed);
	const chosen = $derived(
		data.offered.find(({ measurement }) => measurement.id === picked) ?? data.offered[0]
	);
	const rows = $derived(data.offered.filter((one) => one !== chosen));
	const openFeedVolts = $derived(
		data.offered.find(({ measurement }) => measurement.id === 'feed-at-sensor')?.reading?.value ?? null
	);
	const read = $derived(data.offered.filter(({ reading }) => reading));
	const out = $derived(read.filter(({ reading }) => reading?.judged === 'out').length);
	const headline = $derived.by(() => {
		const where = upperFirst(data.atWords);
		if (read.length === 0) return `${where}: nothing measured yet`;
		if (read.length === 1)
			return `${where}: one reading, ${out === 0 ? 'as it should be' : 'out of its window'}`;
		const said =
			out === 0
				? 'all as they should be'
				: out === 1
					? 'one out of its window'
					: `${out} out of their windows`;
		return `${where}: ${read.length} readings, ${said}`;
	});
	const STATE = { in: 'good', out: 'bad', borderline: 'suspect' } as const;
	const SAYS = { good: 'proven good', suspect: 'suspect', open: 'not tested' };
	const chain = $derived(
		data.chain.map(({ word, state }) => ({ state, word, says: `${word}, ${SAYS[state]}` }))
	);
	keepDraft(
		untrack(() => `measurement:${data.case.id}`),
		() => (picked === null ? null : { picked }),
		(kept) => (picked = kept.picked)
	);
</script>

<svelte:head><title>{data.case.number} Measure · Jaldi</title></svelte:head>
<section id="measure" class="pt-5">
	<h1 class="text-2xl leading-tight font-bold">{headline}</h1>
	<BenchNav {data} here="" />
	<Sideways label="The path of the signal" class="pt-4 pb-1"
		><Chain links={chain} step={92} size={20} /></Sideways
	>
</section>

<section class="mt-4" aria-label="Sensor">
	<p>
		{#if data.family}
			<strong>{upperFirst(FAMILY_WORDS[data.family.family].name)}</strong>, {data.family.from === 'vehicle'
				? 'by the vehicle’s data'
				: 'as identified here'}:
			<span class="text-ink-2">{FAMILY_WORDS[data.family.family].works}.</span>
		{:else}
			<strong>Which sensor is it?</strong> Nobody has said yet, and the wrong test condemns a good part: find out
			first.
		{/if}
		{#if mayWrite && data.family}
			<button class="act-quiet ml-2" aria-expanded={identifying} onclick={() => (identifying = !identifying)}
				>{identifying ? 'Close' : 'Make sure'}</button
			>
		{/if}
	</p>
	{#if mayWrite && (identifying || !data.family)}
		<Identify
			caseId={data.case.id}
			at={data.at}
			atWords={data.atWords}
			questions={data.questions}
			prior={data.prior}
			ondone={() => {
				identifying = false;
				void refreshCase();
			}}
		/>
	{/if}
</section>

{#if chosen && data.family}
	<section class="mt-6 border-t-2 border-ink pt-4" aria-labelledby="now">
		<div class="mb-2 flex flex-wrap items-baseline justify-between gap-x-6">
			<h2 id="now" class="text-xl font-bold">{chosen.measurement.name}</h2>
			<p class="text-ink-2">
				<span class="num">{chosen.minutes}</span> min, as things are open now{#if chosen.assumed}: <OnlyUsual
						path={chosen.assumed}
						caseId={data.case.id}
					/>{/if}
			</p>
		</div>
		{#key `${data.at} ${chosen.measurement.id}`}
			<Meter
				one={chosen}
				about={{
					caseId: data.case.id,
					at: data.at,
					typeId: data.typeId,
					family: data.family.family,
					senseResistorOhms: data.senseResistorOhms,
					openFeedVolts
				}}
				mateWords={positionWords(data.mate)}
				mateHref="?at={data.mate}"
				{mayWrite}
				standIn={data.standIn}
				onsaved={() => {
					picked = null;
					void refreshCase();
				}}
			/>
		{/key}
	</section>

	<section class="mt-6" aria-labelledby="others">
		<h2 id="others" class="text-lg font-bold">
			What else tells something here, the most for its minutes first
		</h2>
		<ul>
			{#each all ? rows : rows.slice(0, SHOWN) as one (one.measurement.id)}
				<li class="hair">
					<button
						class="grid min-h-12 w-full cursor-pointer grid-cols-[1.75rem_minmax(0,1fr)_auto] items-center gap-3 py-1 text-left"
						onclick={() => {
							picked = one.measurement.id;
							document.getElementById('now')?.scrollIntoView({ block: 'center' });
						}}
					>
						<Mark state={one.reading ? STATE[one.reading.judged] : 'open'} size={18} />
						<span>
							{one.measurement.name}
							{#if one.reading}<span class="text-ink-2"
									>· <span class="num">{valueWords(one.reading.value, one.reading.quantity)}</span>, expected
									<span class="num">{windowWords(one.reading.window, one.reading.quantity)}</span></span
								>{/if}
						</span>
						<span class="num text-right text-ink-2">{one.minutes} min</span>
					</button>
				</li>
			{/each}
		</ul>
		{#if rows.length > SHOWN}<button class="act-quiet mt-2" onclick={() => (all = !all)}
				>{all ? 'Fewer' : `${rows.length - SHOWN} more`}</button
			>{/if}
	</section>
{/if}

<NotOnThis tests={data.unsuited} />

{#if data.done.length > 0}
	<section class="mt-6" aria-labelledby="done">
		<h2 id="done" class="text-lg font-bold">Done at the bench</h2>
		<ul>
			{#each data.done as { id, kind, title, detail, bad, time } (id)}
				<li class="hair grid grid-cols-[1.75rem_minmax(0,1fr)_auto] gap-3 py-2">
					<span class="mt-0.5"><Mark state={bad ? 'bad' : 'good'} size={16} /></span>
					<span
						>{#if kind === 'scope-capture'}<a
								class="font-semibold underline underline-offset-4"
								href="/cases/{data.case.id}/measure/scope/{id}">{title}</a
							>{:else}<strong>{title}</strong>{/if} <span class="text-ink-2">{detail}</span></span
					>
					<span class="num text-ink-2">{time}</span>
				</li>
			{/each}
		</ul>
	</section>
{/if}
<Legend words={{ good: 'proven good', suspect: 'suspect', bad: 'out of its window', open: 'not tested' }} />
