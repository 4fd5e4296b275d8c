<script lang="ts">
	import Caution from '$lib/ui/Caution.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import BenchNav from '../BenchNav.svelte';
	import ImportCapture from './ImportCapture.svelte';
	import OnlyUsual from '../../OnlyUsual.svelte';
	import Take from './Take.svelte';

	let { data } = $props();
	const mayWrite = $derived(data.canWrite && !data.case.signed);
	const headline = $derived.by(() => {
		if (data.captures.length === 0) return 'No capture yet';
		const found = data.captures.reduce((sum, { findings }) => sum + findings, 0);
		const count = data.captures.length === 1 ? 'One capture' : `${data.captures.length} captures`;
		return `${count}, ${found === 0 ? 'nothing found' : found === 1 ? 'one finding' : `${found} findings`}`;
	});
</script>

<svelte:head><title>{data.case.number} Oscilloscope · Jaldi</title></svelte:head>
<section class="pt-5">
	<h1 class="text-2xl leading-tight font-bold">{headline}</h1>
	<BenchNav {data} here="/scope" />
</section>

{#if mayWrite}
	<section class="mt-5" aria-labelledby="take">
		<h2 id="take" class="mb-2 text-lg font-bold">
			{data.instrument ? `Capture the ${data.atWords} wheel, turning` : 'No oscilloscope is connected here'}
		</h2>
		{#if data.instrument}
			{#key data.at}
				<Take
					caseId={data.case.id}
					at={data.at}
					mate={data.mate}
					family={data.family}
					teeth={data.teeth}
					circumferenceM={data.circumferenceM}
				/>
			{/key}
		{:else}
			<p class="text-ink-2">Save the capture on the instrument as CSV, and bring the file in.</p>
		{/if}
		{#if data.teeth === null && data.ringPath}
			<p class="text-ink-2">
				Teeth of its ring: <OnlyUsual path={data.ringPath} caseId={data.case.id} says="not told yet" />. They
				tell how long one turn is.
			</p>
		{/if}
		<Caution>{data.cautions}</Caution>
	</section>
{/if}

{#if data.captures.length > 0}
	<section class="mt-5" aria-labelledby="captures">
		<h2 id="captures" class="text-lg font-bold">Captures of this case</h2>
		<ul>
			{#each data.captures as { id, time, by, name, verdict, channels, findings, durationS } (id)}
				<li class="hair">
					<a
						class="grid min-h-12 grid-cols-[1.75rem_minmax(0,1fr)_auto] items-center gap-3 py-2"
						href="/cases/{data.case.id}/measure/scope/{id}"
					>
						<Mark state={findings > 0 ? 'bad' : 'good'} size={18} />
						<span>
							<strong class="underline underline-offset-4">{name || channels.join(' and ')}</strong>
							<span class="text-ink-2">{verdict}</span>
						</span>
						<span class="num text-right text-ink-2">{durationS.toFixed(1)} s · {time} {by}</span>
					</a>
				</li>
			{/each}
		</ul>
	</section>
{/if}
{#if mayWrite}
	<section class="mt-6" aria-label="Bring in a file">
		<ImportCapture caseId={data.case.id} corners={data.corners} teeth={data.teeth} />
	</section>
{/if}
