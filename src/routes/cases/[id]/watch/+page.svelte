<script lang="ts">
	import Act from '$lib/ui/Act.svelte';
	import { upperFirst } from '$lib/case/words';
	import { untrack } from 'svelte';
	import { goto } from '$app/navigation';
	import { expectedRateHz } from '$lib/core/live/refreshRate';
	import Caution from '$lib/ui/Caution.svelte';
	import { useKeys } from '$lib/ui/keys';
	import JobProgress from '../JobProgress.svelte';
	import { getCaseWork } from '../caseWork.svelte';
	import Import from './Import.svelte';
	import { LiveFeed } from './liveFeed.svelte';
	import Recordings from './Recordings.svelte';
	import Rounds from './Rounds.svelte';
	import Running from './Running.svelte';
	import { said } from '$lib/ui/units';

	let { data } = $props();
	const work = getCaseWork();
	const feed = new LiveFeed(() => data.case.id);
	let chosen = $state(
		untrack(() => data.signals.filter(({ why }) => why !== null).map(({ signal }) => signal))
	);
	let name = $state('');
	const mayRecord = $derived(data.canWrite && !data.case.signed);
	const recording = $derived(work.job?.kind === 'record' && work.job.state === 'running');
	const rateHz = $derived.by(() => {
		const asked = data.signals.filter(({ signal }) => chosen.includes(signal));
		const addresses = [...new Set(asked.map(({ address }) => address))];
		return expectedRateHz(addresses.map((address) => asked.filter((one) => one.address === address).length));
	});
	const modules = $derived([...new Set(data.signals.map(({ moduleName }) => moduleName))]);
	const headline = $derived.by(() => {
		if (recording) return 'Recording';
		const [last] = data.recordings;
		if (!last)
			return data.rounds.length > 0 ? 'The wheels are turned, no drive recorded' : 'Nothing watched yet';
		const found = data.recordings.reduce((sum, { findings }) => sum + findings, 0);
		const plural = (count: number, one: string) => (count === 1 ? `One ${one}` : `${count} ${one}s`);
		return `${plural(data.recordings.length, 'recording')}, ${found === 0 ? 'nothing found' : plural(found, 'finding').toLowerCase()}`;
	});

	const start = () => work.begin({ do: 'record', signals: chosen, name });
	const toggle = (signal: string, on: boolean) =>
		(chosen = on ? [...chosen, signal] : chosen.filter((one) => one !== signal));

	useKeys(
		{
			r: () => {
				if (mayRecord && work.whyNot === null && chosen.length > 0) void start();
			},
			Space: () => recording && void work.mark(),
			x: () => recording && void work.cancel(),
			b: () => void goto(`/cases/${data.case.id}/watch/bay`)
		},
		{ r: 'record', Space: 'mark this moment', x: 'stop and keep', b: 'across the bay' }
	);
</script>

<svelte:head><title>{data.case.number} Watch · Jaldi</title></svelte:head>
<section id="watch" class="pt-5">
	<div class="flex flex-wrap items-end justify-between gap-4">
		<div>
			<h1 class="text-2xl leading-tight font-bold">{headline}</h1>
			{#if !recording}
				<p class="mt-1 text-ink-2">
					{said(data.recordings[0]?.verdict ?? 'Record what the modules see: the software does the looking.')}
				</p>
			{/if}
		</div>
		{#if mayRecord && !recording}
			<div class="flex flex-wrap gap-3">
				<a class="act-quiet" href="/cases/{data.case.id}/watch/bay?round=hand">Spin the wheels</a>
				<a class="act-quiet" href="/cases/{data.case.id}/watch/bay?round=gear">In gear on stands</a>
				<a class="act-quiet" href="/cases/{data.case.id}/watch/road">Plan the road test</a>
				<a class="act-quiet" href="/cases/{data.case.id}/watch/tyres">Tyres</a>
			</div>
		{/if}
	</div>
	{#if data.frozen.length > 0}
		<p class="mt-3 border-l-4 border-ink pl-4">
			<strong>{upperFirst(data.frozen.join(' and ').toLowerCase())}: a code fails now.</strong> Many modules
			keep such a value as it was until the code is cleared: save, clear on
			<a class="underline underline-offset-4" href="/cases/{data.case.id}/prove">Prove</a>, then record. Until
			then a value that stands still says nothing.
		</p>
	{/if}
	<JobProgress kinds={['record']} />
</section>

{#if recording}
	<Running
		{feed}
		signals={data.signals}
		caseId={data.case.id}
		onmark={() => work.mark()}
		onstop={() => work.cancel()}
	/>
{:else if mayRecord}
	<section class="mt-6" aria-labelledby="what">
		<div class="flex flex-wrap items-baseline justify-between gap-x-6">
			<h2 id="what" class="text-lg font-bold">What to record</h2>
			<p class="text-ink-2" aria-live="polite">
				{#if chosen.length === 0}
					choose at least one
				{:else}
					<span class="num font-semibold text-ink">{rateHz.toFixed(0)}</span> readings a second · sees nothing
					shorter than <span class="num font-semibold text-ink">{(1000 / rateHz).toFixed(0)}</span> ms
				{/if}
			</p>
		</div>
		<p class="text-ink-2">
			Every value more makes all of them slower. Ticked is what these codes and wheels need.
		</p>
		{#if data.signals.length === 0}
			<p class="my-3">
				The library does not describe what this vehicle can be asked for: bring in a file instead.
			</p>
		{/if}
		<div class="mt-2 grid gap-x-8 sm:grid-cols-2">
			{#each modules as module, nth (nth)}
				<fieldset class="mb-3">
					<legend class="text-sm text-ink-2">{module}</legend>
					{#each data.signals.filter(({ moduleName }) => moduleName === module) as one, nth (nth)}
						<label class="hair flex min-h-11 cursor-pointer items-center gap-3 py-1">
							<input
								type="checkbox"
								class="checkbox"
								checked={chosen.includes(one.signal)}
								onchange={(event) => toggle(one.signal, event.currentTarget.checked)}
							/>
							<span>{one.name}</span>
							{#if one.why}<span class="ml-auto text-right text-sm text-ink-2">{one.why}</span>{/if}
						</label>
					{/each}
				</fieldset>
			{/each}
		</div>
		<div class="mt-2 flex flex-wrap items-end gap-4">
			<label class="min-w-60 flex-1">
				<span class="text-sm text-ink-2">What for, in a word (before repair, road test …)</span>
				<input class="field" bind:value={name} maxlength="120" />
			</label>
			<Act
				data-do
				class="act"
				whyNot={chosen.length === 0 ? 'Choose a signal first.' : work.whyNot}
				onclick={start}>Start recording <span class="key border-current">r</span></Act
			>
		</div>
		{#if !data.linkAddress}<p class="mt-2">
				No interface is set for this vehicle: give its address on Read.
			</p>{/if}
		<Caution>{data.cautions}</Caution>
	</section>
{/if}

<Rounds rounds={data.rounds} />
<Recordings recordings={data.recordings} caseId={data.case.id} />
{#if mayRecord}<Import
		caseId={data.case.id}
		vehicle={data.vehicle}
		channels={data.knownSignals}
		wheels={data.wheels}
	/>{/if}
