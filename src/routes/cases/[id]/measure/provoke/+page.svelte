<script lang="ts">
	import { thingKey } from '$lib/case/entries/live-recording/triedWords';
	import { lowerFirst } from '$lib/case/words';
	import { Latest } from '../../../../latest.svelte';
	import { getCaseWork } from '../../caseWork.svelte';
	import JobProgress from '../../JobProgress.svelte';
	import BenchNav from '../BenchNav.svelte';
	import Hands from './Hands.svelte';
	import InGear from './InGear.svelte';
	import Tried from './Tried.svelte';
	import Ways from './Ways.svelte';

	let { data } = $props();
	const work = getCaseWork();
	const latest = new Latest(() => data.ways);
	const mayWrite = $derived(data.canWrite && !data.case.signed);
	const found = $derived(
		data.tries.filter(({ before }) => before.changes > 0).sort((a, b) => rate(b.before) - rate(a.before))
	);
	const rate = ({ changes, seconds }: { changes: number; seconds: number }) => changes / Math.max(1, seconds);
	const fails = $derived(data.codes.filter(({ failsNow }) => failsNow));
	const fickle = $derived(data.codes.filter(({ comesAndGoes }) => comesAndGoes));
	const listed = (codes: { text: string }[]) => codes.map(({ text }) => text).join(', ');
	const headline = $derived.by(() => {
		if (data.again?.changedAgain) return `It is still there: it changed again with ${data.again.words}`;
		if (data.again && data.again.furtherS > 0)
			return `The same again: ${data.again.words}, ${Math.ceil(data.again.furtherS)} s`;
		if (data.again) return `Done again as before, and nothing: ${data.again.words}`;
		if (found[0]) return `Found: it lets go with ${found[0].words}`;
		return 'It comes and goes: make it come';
	});
	const again = $derived.by(() => {
		const { again: due } = data;
		const label = due && data.hands.find((one) => thingKey(one) === due.key)?.label;
		return due && label ? { label, furtherS: due.furtherS } : null;
	});
</script>

<svelte:head><title>{data.case.number} It comes and goes · Jaldi</title></svelte:head>
<section class="pt-5">
	<h1 class="text-2xl leading-tight font-bold">{headline}</h1>
	<p class="mt-1 text-lg">
		{#if data.again}
			What made it show before the repair is the best proof that it is mended. It is part of the proof.
		{:else if found[0]}
			It changed {found[0].before.changes === 1 ? 'once' : `${found[0].before.changes} times`} in
			<span class="num">{found[0].before.seconds.toFixed(0)}</span> s. Mend it there; then the same is done again.
		{:else if fails.length > 0}
			{listed(fails)} fails now: it is measured, not provoked. What follows is for what comes and goes.
		{:else if fickle.length > 0}
			{listed(fickle)} was stored and does not fail now. At rest everything reads well: nothing is measured, it
			is provoked.
		{:else}No code of this wheel comes and goes. Somebody has felt it? Provoke it all the same.{/if}
	</p>
	{#if found[0] && !data.again && mayWrite}
		<p class="mt-2 flex flex-wrap gap-3">
			<a class="act" href="/cases/{data.case.id}/reason">What to mend</a>
		</p>
	{:else if data.again && data.again.furtherS === 0 && !data.again.changedAgain}
		<p class="mt-2"><a class="act" href="/cases/{data.case.id}/prove">Go on proving</a></p>
	{/if}
	<BenchNav {data} here="/provoke" />
	<JobProgress kinds={['record']} />
</section>

{#if data.signal && data.linkAddress && mayWrite}
	{#key data.at}
		<Hands
			caseId={data.case.id}
			position={data.at}
			atWords={data.atWords}
			signal={data.signal}
			hands={data.hands}
			cautions={data.cautions}
			{again}
		/>
		{#if data.inGear.length > 0 && !work.recordsFor('wiggle', data.at)}
			<InGear
				caseId={data.case.id}
				wheels={data.inGear}
				cautions={data.gearCautions}
				againS={data.again?.key === 'in-gear' ? data.again.furtherS : null}
			/>
		{/if}
	{/key}
{:else if mayWrite}
	<p class="mt-5 text-lg">
		{data.signal
			? 'Without an interface the value is watched with the tool at hand: write down on Reason what each test showed.'
			: `Nobody has told how the speed of ${lowerFirst(data.atWords)} is read: watch it with the tool at hand, and write down on Reason what each test showed.`}
	</p>
{/if}
{#if data.tries.length > 0}<Tried tries={data.tries} mended={data.mended} />{/if}
{#if latest.value}<Ways caseId={data.case.id} position={data.at} ways={latest.value} />{/if}
