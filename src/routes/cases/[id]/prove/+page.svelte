<script lang="ts">
	import NetworkBeforeAfter from '$lib/ui/NetworkBeforeAfter.svelte';
	import Legend from '$lib/ui/Legend.svelte';
	import JobProgress from '../JobProgress.svelte';
	import ComplaintAnswers from './ComplaintAnswers.svelte';
	import CodeProof from './CodeProof.svelte';
	import Steps from './Steps.svelte';

	let { data } = $props();
	const lampHeadline = $derived(
		!data.lamp?.read
			? 'Read its lamp first: there is nothing to prove yet'
			: data.lamp.codes.length === 0
				? 'Its lamp tells of no fault'
				: data.lamp.clean && data.open.length === 0
					? 'Proven by its lamp'
					: 'Not proven yet'
	);
	const headline = $derived(
		data.lamp
			? lampHeadline
			: !data.scanned
				? 'Read first: there is nothing to prove yet'
				: data.codes.length === 0
					? 'No module has a code'
					: data.headline
	);
	const rest = $derived(
		data.open.filter((reason) => !data.codes.some((code) => reason.startsWith(code.text)))
	);
</script>

<svelte:head><title>{data.case.number} Prove · Jaldi</title></svelte:head>
<section class="pt-5">
	<h1 class="text-2xl font-bold">{headline}</h1>
	<p class="mt-1 text-ink-2">
		A cleared code is not a fixed fault. It is proven when its test has run since and it stayed away.
	</p>
	{#if data.due.length > 0}
		<p class="mt-1">
			Nothing is proven before <a
				class="underline underline-offset-4"
				href="/cases/{data.case.id}/mend/calibrate"
				>{data.due.length === 1 ? 'one calibration is' : `${data.due.length} calibrations are`} done</a
			>: {data.due.join(', ')}.
		</p>
	{/if}
	{#each rest as reason, nth (nth)}<p class="mt-1">{reason}</p>{/each}
	<JobProgress kinds={['scan', 'clear', 'key']} />
</section>
<section aria-label="Codes" class="mt-3">
	{#each data.codes as code (code.key)}<CodeProof {code} {data} />{/each}
	{#if data.codes.length > 0}
		<Legend
			words={{ good: 'shown', suspect: 'in doubt', bad: 'shown not to be so', open: 'not yet shown' }}
		/>
	{/if}
</section>
{#if data.sides}
	<details class="border-t border-rule py-2">
		<summary class="min-h-11 cursor-pointer py-2.5 font-bold"
			>Before and after, the whole network{data.sides.added.length > 0
				? `: ${data.sides.added.length} new`
				: ''}</summary
		>
		<NetworkBeforeAfter sides={data.sides} />
	</details>
{/if}
{#if data.lamp}
	<section aria-label="Lamp codes" class="mt-3">
		{#each data.lamp.codes as { code, words, now }, nth (nth)}
			<p class="hair flex min-h-11 flex-wrap items-baseline gap-4 py-2">
				<span class="num text-xl font-bold">{code}</span>
				<span class="flex-1">{words}</span>
				<span class="text-ink-2">{now}</span>
			</p>
		{/each}
	</section>
{/if}
{#if data.complaint.length > 0}<ComplaintAnswers {data} />{/if}
{#if data.canWrite && !data.case.signed && (data.scanned || data.lamp)}
	{#key data.case.id}<Steps {data} caseId={data.case.id} />{/key}
{/if}
