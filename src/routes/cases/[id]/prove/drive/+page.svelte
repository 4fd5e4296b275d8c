<script lang="ts">
	import Act from '$lib/ui/Act.svelte';
	import { browser } from '$app/environment';
	import { page } from '$app/state';
	import { onMount, untrack } from 'svelte';
	import { toast } from 'svelte-sonner';
	import { ulid } from 'ulid';
	import { driveEntry, driveHeadline, driveProgress, type GoalStanding } from '$lib/case/proof/driveProgress';
	import { cameBack } from '$lib/case/listen/hearing';
	import { ROADS } from '$lib/case/entries/shapes';
	import type { MarkState } from '$lib/core/prove/proof';
	import { Beep } from '$lib/ui/beep';
	import Caution from '$lib/ui/Caution.svelte';
	import Field from '$lib/ui/Field.svelte';
	import { useKeys } from '$lib/ui/keys';
	import { keepPage } from '$lib/away/keepPages';
	import { outbox } from '$lib/away/outbox.svelte';
	import { sendEntry } from '$lib/away/record';
	import { goOn } from '../../../../goOn';
	import JobProgress from '../../JobProgress.svelte';
	import { getCaseWork } from '../../caseWork.svelte';
	import { LiveFeed } from '../../watch/liveFeed.svelte';
	import Running from '../../watch/Running.svelte';
	import Goals from './Goals.svelte';
	import { ProvingDrive } from './drive.svelte';
	import { said, shown } from '$lib/ui/units';

	let { data } = $props();
	const work = getCaseWork();
	const plan = untrack(() => data.plan);
	const sound = new Beep();
	const feed = new LiveFeed(() => data.case.id, true);
	const drive = browser
		? new ProvingDrive(
				plan.tasks,
				// What was driven before another clear proves nothing of what comes after it.
				untrack(() => `jaldi:proving:${data.case.id}:${data.cleared ?? ''}`),
				() => data.counted
			)
		: null;
	let road = $state<(typeof ROADS)[number]>('dry');
	let driver = $state('');
	let note = $state('');
	let saving = $state(false);
	let entryId = ulid();
	const mayWrite = $derived(data.canWrite && !data.case.signed);
	const recording = $derived(work.recordsFor('proving-drive'));
	const covered = $derived(drive?.covered ?? []);
	const driven = $derived(drive?.driven ?? { km: 0, topKmh: 0, stops: 0, seconds: 0, bands: [] });
	const heardNow = $derived(recording ? feed.heard : []);
	const back = $derived(cameBack(heardNow, data.known, data.moduleNames));
	const now = $derived((drive?.legs ?? []).filter((leg) => leg.now).map(({ id }) => id));
	const progress = $derived(driveProgress(plan, driven, road, { covered, now, heard: heardNow, back }));
	/** What has failed the drive: heard just now, or read since. */
	const failures = $derived(back.length > 0 || recording ? back.map(({ words }) => words) : data.back);
	const failed = $derived(failures.length > 0);
	const headline = $derived(driveHeadline(plan, progress, driven.seconds > 0, failures));
	const STANDING: Record<GoalStanding, { state: MarkState; says: string }> = {
		'came-back': { state: 'bad', says: 'came back' },
		'module-says-run': { state: 'good', says: 'its module says: run' },
		met: { state: 'good', says: 'met' },
		now: { state: 'suspect', says: 'not yet' },
		open: { state: 'open', says: 'not yet' }
	};
	const goals = $derived(progress.goals.map((goal) => ({ ...goal, ...STANDING[goal.standing] })));
	const start = () =>
		work.begin({
			do: 'record',
			signals: data.defaults,
			name: 'Proving drive',
			purpose: { what: 'proving-drive', position: null },
			listen: true
		});
	// The watcher looks out of the window too: what ends the drive is heard.
	$effect(() => {
		if (back.length > 0) sound.again();
	});

	onMount(() => () => sound.stop());
	// A drive begins where the network ends: it is kept with the first look, not in time.
	onMount(() => void (outbox.away || keepPage(page.url.pathname)));
	const { away } = $derived(outbox);
	onMount(() =>
		feed.onrow((row, channels) =>
			drive?.take(feed.id, row[0] ?? 0, new Map(channels.map((name, i) => [name, row[i + 1] ?? NaN])))
		)
	);

	async function save() {
		if (saving || !drive || driven.km <= 0) return;
		saving = true;
		const sent = await sendEntry(
			data.case.id,
			'proving-drive',
			driveEntry(driven, { road, driver, note }, covered, drive.recordings),
			entryId
		);
		saving = false;
		if (!sent) return;
		entryId = ulid();
		drive.forget();
		if (sent === 'kept') return;
		toast.success('The drive is on the thread. Now read every module again.');
		void goOn(`/cases/${data.case.id}/prove`);
	}

	useKeys(
		{
			r: () => mayWrite && !recording && data.linkAddress && void start(),
			Space: () => recording && void work.mark(),
			x: () => recording && void work.cancel(),
			s: () => void save()
		},
		{ r: 'record', Space: 'mark this moment', x: 'stop and keep', s: 'save the drive' }
	);
</script>

<svelte:head><title>{data.case.number} Proving drive · Jaldi</title></svelte:head>
<section class="pt-5">
	<p class="text-ink-2">
		<a class="underline underline-offset-4" href="/cases/{data.case.id}/prove">Prove</a>
	</p>
	<div class="mt-1 flex flex-wrap items-end justify-between gap-4">
		<h1 class="text-2xl leading-tight font-bold" aria-live="polite">{said(headline)}</h1>
		{#if mayWrite && !recording}
			<Act class="act" whyNot={away ? 'The server cannot be reached.' : work.whyNot} onclick={start}
				>Start the drive <span class="key border-current">r</span></Act
			>
		{/if}
	</div>
	{#if away}
		<p role="status" class="mt-2 border-l-4 border-ink pl-3 font-semibold">
			What was driven stands here as this device kept it.
		</p>
	{/if}
	{#if failed}
		<p class="mt-2 border-l-4 border-bad pl-3 text-lg">
			{failures.length > 1 ? `With it ${failures.slice(1).join('; ')}. ` : ''}{recording
				? 'Stop where it is safe, mark where it was, and end the recording: the repair has not mended it, or not all of it.'
				: 'Driving on proves nothing: read every module, then look at the path of that code again.'}
		</p>
	{/if}
	{#if !data.cleared}<p class="mt-2 border-l-4 border-ink pl-3">
			Nothing is cleared yet: a drive before the clear proves nothing.
		</p>{/if}
	<JobProgress kinds={['record']} />
	{#if !recording}
		<Caution>{data.cautions} The driver hears from the watcher what comes next.</Caution>
	{/if}
	{#if driven.seconds > 0}
		<dl class="mt-3 grid grid-cols-3 gap-4">
			<div>
				<dt class="text-ink-2">driven</dt>
				<dd class="num text-4xl font-bold" data-driven>{shown(driven.km, 'distance', 2)}</dd>
			</div>
			<div>
				<dt class="text-ink-2">top speed</dt>
				<dd class="num text-4xl">{shown(driven.topKmh, 'speed')}</dd>
			</div>
			<div>
				<dt class="text-ink-2">stops</dt>
				<dd class="num text-4xl">{driven.stops}</dd>
			</div>
		</dl>
	{/if}
</section>
{#if plan.tasks.length > 0 || plan.exposure}
	<Goals {data} {goals} furtherKm={progress.furtherKm} countsKm={progress.countsKm} drivenKm={driven.km} />
{/if}
{#if plan.legs.length > 0}
	<section class="mt-5" aria-labelledby="legs">
		<h2 id="legs" class="text-lg font-bold">One way to do all of it</h2>
		<ol>
			{#each plan.legs as { words, for: names }, i (i)}
				<li class="hair grid grid-cols-[2rem_minmax(0,1fr)] py-2">
					<span class="num text-ink-2">{i + 1}</span>
					<span
						><span class="text-lg">{said(words)}</span>
						<span class="text-ink-2">for {names.join(', ')}</span></span
					>
				</li>
			{/each}
			<li class="grid grid-cols-[2rem_minmax(0,1fr)] py-2">
				<span class="num text-ink-2">{plan.legs.length + 1}</span><span class="text-lg">and to a stop</span>
			</li>
		</ol>
	</section>
{/if}
{#if plan.unknown.length > 0}<p class="mt-3 text-ink-2">
		No source says what the test of {plan.unknown.join(', ')} needs: drive as the customer does.
	</p>{/if}
{#if plan.unmet.length > 0}<p class="mt-3 text-ink-2">
		No drive alone runs the test of {plan.unmet.join(', ')}: look at its conditions.
	</p>{/if}
{#if recording}
	<Running
		{feed}
		signals={data.signals}
		caseId={data.case.id}
		onmark={() => work.mark()}
		onstop={() => work.cancel()}
	/>
{/if}
{#if mayWrite && driven.km > 0}
	<section class="mt-6 border-t border-rule pt-5" aria-labelledby="done">
		<h2 id="done" class="text-lg font-bold">
			{progress.complete && !failed ? 'It is done' : 'Save it as far as it went'}
		</h2>
		{#if recording}<p class="text-ink-2">The recording still runs: what comes after is not counted.</p>{/if}
		<div class="mt-2 grid gap-4 sm:grid-cols-3">
			<Field label="Road"
				><select class="field" bind:value={road}
					>{#each ROADS as one (one)}<option value={one}>{one}</option>{/each}</select
				></Field
			>
			<Field label="Driver"><input class="field" bind:value={driver} maxlength="100" /></Field>
			<Field label="Seen on the way"><input class="field" bind:value={note} maxlength="500" /></Field>
		</div>
		<button class="act mt-3" disabled={saving} onclick={save}
			>Put the drive on the thread <span class="key border-current">s</span></button
		>
	</section>
{/if}
