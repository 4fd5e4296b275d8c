<script lang="ts">
	import CalledBy from './CalledBy.svelte';
	import OdometerChart from './OdometerChart.svelte';
	import PastList from '$lib/ui/PastList.svelte';
	import Legend from '$lib/ui/Legend.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import { shown } from '$lib/ui/units';
	import Sideways from '$lib/ui/Sideways.svelte';

	let { data } = $props();
	const km = (count: number) => shown(Math.round(count), 'distance');
	const newest = $derived([...data.visits].reverse());
	const driven = $derived(
		data.visits.flatMap(({ at, day, odometerKm }) =>
			odometerKm === null || at === '' ? [] : [{ at, day, km: odometerKm }]
		)
	);
	/** Less than this is no line worth drawing. */
	const LEAST_KM = 100;
	const wasDriven = $derived((driven.at(-1)?.km ?? 0) - (driven[0]?.km ?? 0) >= LEAST_KM);
	const JUDGED = { in: 'good', out: 'bad', borderline: 'suspect' } as const;
	const OFTEN = ['never', 'once', 'twice'];
	const times = $derived(
		`was here ${OFTEN[data.visits.length] ?? `${data.visits.length} times`}${data.isAll ? '' : ' or more'}`
	);
</script>

<svelte:head><title>{data.vehicle.nickname || data.vehicle.name} · Jaldi</title></svelte:head>
<h1 class="text-2xl leading-tight font-bold">
	{data.vehicle.nickname || data.vehicle.name}
	{times}
</h1>
<p class="mt-1 text-lg text-ink-2">
	{data.vehicle.name}{#if data.vehicle.plate}, <span class="num">{data.vehicle.plate}</span>{/if}
	{#each data.vehicle.vins as vin, nth (nth)}<span class="num block sm:ml-4 sm:inline">{vin}</span>{/each}
	{#if data.customer}<span class="block"
			>Brought in by <a class="underline underline-offset-4" href="/customers/{data.customer.id}"
				>{data.customer.name}</a
			></span
		>{/if}
	{#if data.kmPerYear !== null}<span class="block">About {km(data.kmPerYear)} a year</span>{/if}
</p>

{#if data.codes.length > 0}
	<section class="mt-8" aria-labelledby="codes-over">
		<h2 id="codes-over" class="text-xl font-bold">Its codes, visit by visit</h2>
		<Sideways label="Its codes, visit by visit" class="mt-2">
			<table class="border-collapse text-left">
				<thead class="border-b-2 border-ink text-sm">
					<tr>
						<th class="py-2 pr-8 font-semibold">Code</th>
						{#each data.visits as visit (visit.id)}
							<th class="num px-3 py-2 font-semibold whitespace-nowrap"
								><a href="/cases/{visit.id}" class="underline">{visit.number}</a></th
							>
						{/each}
					</tr>
				</thead>
				<tbody>
					{#each data.codes as code (code.key)}
						<tr class="border-b border-rule">
							<th class="py-2 pr-8 font-normal"
								><span class="num">{code.text}</span>
								<span class="block text-sm text-ink-2">{code.called}</span></th
							>
							{#each code.then as then, nth (nth)}
								<td class="px-3 py-2">
									{#if then}<span class="flex justify-center" title={then.says}
											><Mark state={then.state} /><span class="sr-only">{then.says}</span></span
										>{/if}
								</td>
							{/each}
						</tr>
					{/each}
				</tbody>
			</table>
		</Sideways>
		<Legend words={{ good: 'proven clear or released', suspect: 'not settled', bad: 'came back' }} />
	</section>
{/if}

{#if wasDriven}<OdometerChart readings={driven} />{/if}

<section class="mt-8" aria-labelledby="visits">
	<h2 id="visits" class="text-xl font-bold">Its visits</h2>
	<ol>
		{#each newest as visit (visit.id)}
			<li class="grid gap-x-8 gap-y-1 border-b border-rule py-4 sm:grid-cols-[13rem_minmax(0,1fr)]">
				<div>
					<a class="num font-semibold underline underline-offset-4" href="/cases/{visit.id}">{visit.number}</a
					>
					<p>{visit.day}</p>
					{#if visit.odometerKm !== null}<p class="num">{km(visit.odometerKm)}</p>{/if}
					<p class="text-ink-2">{visit.signed ? 'signed' : 'open'}</p>
				</div>
				<div>
					{#if visit.complaint}<p>“{visit.complaint}”</p>{/if}
					{#each visit.repairs as repair, nth (nth)}
						<p class="mt-1 font-semibold">
							{repair.title}
							{#if repair.parts.length > 0}<span class="block text-sm font-normal text-ink-2"
									>{repair.parts.join('; ')}</span
								>{/if}
						</p>
					{/each}
					{#each visit.readings as reading, nth (nth)}
						<p class="mt-1 flex items-start gap-2 text-sm">
							<Mark state={JUDGED[reading.judged]} size={16} /><span>{reading.words}</span>
						</p>
					{/each}
					<p class="mt-1 text-ink-2">{visit.verdict}</p>
				</div>
			</li>
		{/each}
	</ol>
	{#if !data.isAll}<p class="mt-3 text-ink-2">
			The newest {data.visits.length}. Older ones are found by its plate.
		</p>{/if}
</section>

{#if data.mayChange}{#key data.vehicle.id}<CalledBy id={data.vehicle.id} data={data.form} />{/key}{/if}
<PastList past={data.past} now={data.vehicle} names={{ nickname: 'Name', plate: 'Plate', vin: 'VIN' }} />
