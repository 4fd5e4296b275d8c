<script lang="ts">
	import { enhance } from '$app/forms';
	import Act from '$lib/ui/Act.svelte';
	import JobProgress from '../../JobProgress.svelte';
	import { getCaseWork } from '../../caseWork.svelte';

	let { data, form } = $props();
	const work = getCaseWork();
	const found = $derived(data.found);
	const headline = $derived(
		!found
			? 'Which modules does it have?'
			: `${found.modules.length} ${found.modules.length === 1 ? 'module answers' : 'modules answer'}${found.silent.length > 0 ? `, ${found.silent.length} silent` : ''}`
	);
	let looking = $state(false);
</script>

<svelte:head><title>{data.case.number} Its modules · Jaldi</title></svelte:head>
<section class="pt-5">
	<div class="flex flex-wrap items-end justify-between gap-4">
		<div class="max-w-2xl">
			<h1 class="text-2xl leading-tight font-bold">{headline}</h1>
			<p class="mt-1 text-ink-2">
				{#if found}
					{found.time} by {found.by}
					{#if found.vin}· <span class="num">{found.vin}</span>{/if}
				{:else}
					Key on. Every address is asked whether somebody is there, and who answers is asked what it is;
					nothing is changed.
				{/if}
			</p>
		</div>
		{#if data.linkAddress}
			<Act
				data-do
				class={found ? 'act-quiet' : 'act'}
				whyNot={work.whyNot}
				onclick={() => work.begin({ do: 'find' })}>{found ? 'Search again' : 'Search its modules'}</Act
			>
		{/if}
	</div>
	<JobProgress kinds={['find']} />
</section>

{#if found?.vinDiffers}
	<p class="my-4 border-l-4 border-ink pl-3">
		<strong>Another number.</strong> It tells another vehicle’s number than the one that is written down here.
	</p>
{/if}
{#if found?.stoppedBecause}
	<p class="my-4 border-l-4 border-ink pl-3"><strong>Not all were asked.</strong> {found.stoppedBecause}</p>
{/if}

{#if data.logs.length > 0 && data.canWrite && !data.case.signed}
	<section class="mt-4" aria-labelledby="logs">
		<h2 id="logs" class="text-lg font-bold">In a frame log of this case</h2>
		<ul class="mt-1">
			{#each data.logs as { id, fileName, modules } (id)}
				<li class="hair flex min-h-12 flex-wrap items-center gap-x-6 gap-y-1 py-1">
					<span class="num font-semibold">{fileName}</span>
					<span>{modules === 1 ? 'one module' : `${modules} modules`}</span>
					<form method="POST" action="?/fromLog" use:enhance class="ml-auto">
						<input type="hidden" name="entryId" value={data.entryId} />
						<input type="hidden" name="logId" value={id} />
						<button class="act-quiet" aria-label="Take them from {fileName}">Take them from it</button>
					</form>
				</li>
			{/each}
		</ul>
		{#if form?.logError}<p role="alert" class="mt-3 border-l-4 border-ink pl-3 font-semibold">
				{form.logError}
			</p>{/if}
	</section>
{/if}

{#if !data.linkAddress}
	<section class="mt-4" aria-labelledby="vehicles">
		<h2 id="vehicles" class="text-lg font-bold">Where does it answer?</h2>
		<form
			method="POST"
			action="?/look"
			class="mt-2"
			use:enhance={() => {
				looking = true;
				return async ({ update }) => {
					looking = false;
					await update({ reset: false });
				};
			}}
		>
			<button class={found ? 'act-quiet' : 'act'} data-do={found ? undefined : ''} disabled={looking}
				>{looking ? 'Asking the network …' : 'Look on the shop’s network'}</button
			>
		</form>
		{#if form?.lookError}<p role="alert" class="mt-3 border-l-4 border-ink pl-3 font-semibold">
				{form.lookError}
			</p>{/if}
		{#if form?.there}
			<div role="status" class="mt-3">
				{#if form.noVehicle}
					<p>
						No vehicle says that it is there. A vehicle on a CAN adapter does not say so by itself: {form
							.there.length > 0
							? 'choose the adapter below, or'
							: ''} give the adapter’s address on
						<a class="underline underline-offset-4" href="/cases/{data.case.id}/read">Read</a>.
					</p>
				{/if}
				<ul>
					{#each form.there as { says, at }, nth (nth)}
						<li class="hair flex min-h-12 flex-wrap items-center gap-x-6 gap-y-1 py-1">
							<span class="num font-semibold">{says}</span>
							<span class="num text-ink-2">{at}</span>
							<form method="POST" action="?/use" use:enhance class="ml-auto">
								<input type="hidden" name="address" value={at} />
								<button class="act-quiet" aria-label="This one: {says}, {at}">This one</button>
							</form>
						</li>
					{/each}
				</ul>
			</div>
		{/if}
	</section>
{/if}

{#if found && found.modules.length > 0}
	<form method="POST" action="?/describe" use:enhance class="mt-4">
		<input type="hidden" name="entryId" value={data.entryId} />
		<input type="hidden" name="foundId" value={found.id} />
		<h2 class="text-lg font-bold">What is each of them?</h2>
		<p class="text-ink-2">
			Proposed by what it calls itself and by the codes it can set. What you leave open is not described.
		</p>
		<ul class="mt-2">
			{#each found.modules as module, nth (nth)}
				<li class="hair grid items-center gap-x-6 gap-y-1 py-2 sm:grid-cols-[6rem_minmax(0,1fr)_16rem]">
					<span class="num text-lg">{module.address}</span>
					<span>
						<span class="font-semibold">{module.name ?? 'does not say what it is'}</span>
						<span class="block text-sm text-ink-2">
							{[
								module.part && `part ${module.part}`,
								module.software && `software ${module.software}`,
								module.codes > 0 && `can set ${module.codes} codes`,
								module.coded && `coded: ${module.coded}`,
								module.tells > 0 && `tells ${module.tells} values`
							]
								.filter(Boolean)
								.join(' · ')}
						</span>
					</span>
					<select
						class="field"
						name="role:{module.address}"
						aria-label="What {module.address} is"
						value={module.role}
					>
						<option value="">left open</option>
						{#each data.roles as { role, name }, i (i)}<option value={role}>{name}</option>{/each}
					</select>
				</li>
			{/each}
			{#each found.silent as { address, silent }, nth (nth)}
				<li class="hair grid items-center gap-x-6 gap-y-1 py-2 sm:grid-cols-[6rem_minmax(0,1fr)]">
					<span class="num text-lg">{address}</span><span
						><span class="font-semibold">silent</span>
						<span class="block text-sm text-ink-2">{silent}</span></span
					>
				</li>
			{/each}
		</ul>
		{#if form?.error}<p role="alert" class="mt-3 border-l-4 border-ink pl-3 font-semibold">
				{form.error}
			</p>{/if}
		{#if data.canWrite && !data.case.signed}
			<div class="mt-4 flex flex-wrap items-center gap-4">
				<button class={data.described ? 'act-quiet' : 'act'}>Make it the description</button>
				{#if data.described}<span class="text-ink-2">The description has them already.</span>{/if}
			</div>
		{/if}
	</form>
{/if}
<p class="mt-6"><a class="act-quiet" href="/cases/{data.case.id}/read">Back to Read</a></p>
