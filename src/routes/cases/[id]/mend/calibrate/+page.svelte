<script lang="ts">
	import JobProgress from '../../JobProgress.svelte';
	import MendNav from '../MendNav.svelte';
	import CalibrationStep from './CalibrationStep.svelte';

	let { data } = $props();
	const open = $derived(data.calibrations.filter(({ state }) => state !== 'done' && state !== 'waived'));
	const first = $derived(open.find(({ waitsFor }) => waitsFor.length === 0)?.id ?? null);
	const plural = (n: number) => (n === 1 ? 'One calibration is due' : `${n} calibrations are due`);
</script>

<svelte:head><title>{data.case.number} Calibrate · Jaldi</title></svelte:head>
<section class="pt-5">
	<h1 class="text-2xl font-bold">
		{data.calibrations.length === 0
			? 'No calibration due'
			: open.length === 0
				? 'Every calibration is done'
				: plural(open.length)}
	</h1>
	<p class="mt-1 text-ink-2">
		{data.calibrations.length === 0
			? 'Write down on Repair what was done: what it calls for appears here, in its order.'
			: open.length === 0
				? 'Now clear the codes and prove it.'
				: 'Base brakes only until this is done: no anti-lock, no stability control. Say so to whoever moves the vehicle.'}
	</p>
	<MendNav caseId={data.case.id} here="/calibrate" />
	<JobProgress kinds={['calibrate']} />
</section>
{#if data.calibrations.length > 0}
	<ol
		id="calibrate"
		class="relative mt-5 before:absolute before:inset-y-3 before:left-[10px] before:border-l-[3px] before:border-dotted before:border-rule"
		aria-label="In this order"
	>
		{#each data.calibrations as one (one.id)}
			<CalibrationStep {one} {data} isNext={one.id === first} />
		{/each}
	</ol>
{/if}
