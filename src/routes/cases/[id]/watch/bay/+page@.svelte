<script lang="ts">
	import Caution from '$lib/ui/Caution.svelte';
	import Act from '$lib/ui/Act.svelte';
	import { onMount, untrack } from 'svelte';
	import { toast } from 'svelte-sonner';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { tellsNothing } from '$lib/core/live/recording';
	import { WheelRound, type CornerResult, type RoundState } from '$lib/core/live/wheelRound';
	import { useKeys } from '$lib/ui/keys';
	import LiveStrip from '$lib/ui/LiveStrip.svelte';
	import { WheelSound } from '$lib/ui/wheelSound';
	import Wordmark from '$lib/ui/Wordmark.svelte';
	import type { JobStatus } from '$lib/case/progress/jobStatus';
	import { followCase } from '../../../../caseStream';
	import { setCaseWork } from '../../caseWork.svelte';
	import StandIn from '../../StandIn.svelte';
	import { LiveFeed } from '../liveFeed.svelte';
	import BayWheels from './BayWheels.svelte';
	import { RoundSaver } from './roundSaver.svelte';
	import { said, shown, signalUnit, signalValue } from '$lib/ui/units';

	let { data } = $props();
	const work = setCaseWork(
		() => data.caseId,
		untrack(() => data.job)
	);
	const asked = page.url.searchParams.get('round');
	const mode = asked === 'hand' || asked === 'gear' ? asked : null;
	const feed = new LiveFeed(() => data.caseId, mode !== null);
	const MOST_SHOWN = 4;
	const sound = new WheelSound();

	/** The signal whose digits fill the screen, and which the sound follows. */
	let big = $state(untrack(() => data.wheels[0]?.channel ?? data.signals[0]?.signal ?? ''));
	let muted = $state(true);
	let round: WheelRound | null = null;
	let told = $state.raw<RoundState | null>(null);
	const roundSaver = new RoundSaver(
		() => data.caseId,
		() => data.wheels
	);

	const running = $derived(work.job?.kind === 'record' && work.job.state === 'running');
	const nameOf = (channel: string) => {
		const name = data.signals.find(({ signal }) => signal === channel)?.name ?? channel.replaceAll('_', ' ');
		const short = name.replace(' wheel speed', '').replace('-', ' ');
		return short.charAt(0).toUpperCase() + short.slice(1);
	};
	const unitOf = (channel: string) => data.signals.find(({ signal }) => signal === channel)?.unit ?? '';
	const small = $derived(
		mode
			? data.wheels.filter(({ driven }) => mode === 'hand' || driven).map(({ channel }) => channel)
			: [...feed.channels].slice(0, MOST_SHOWN)
	);
	const shownNow = $derived.by(() => {
		const value = feed.now[big];
		if (value === null || value === undefined) return '–';
		return tellsNothing(big, value) ? 'n/a' : signalValue(value, unitOf(big)).toFixed(0);
	});
	const task = $derived.by(() => {
		if (!running) return 'Not recording';
		if (!mode) return nameOf(big);
		if (!told) return 'Waiting for the first reading';
		if (told.ask === null) return 'All wheels are judged';
		if (told.turning)
			return `${nameOf(told.turning)} is turning${told.enough && mode === 'hand' ? ', let it run out' : ''}`;
		return mode === 'hand' ? `Spin the ${nameOf(told.ask).toLowerCase()}` : 'Run in gear at walking pace';
	});
	const strip = $derived.by(() => {
		const names = mode
			? small
			: feed.channels.filter((channel) => unitOf(channel) === unitOf(big)).slice(0, 8);
		return names
			.map((name) => ({ name, column: feed.channels.indexOf(name) + 1 }))
			.filter(({ column }) => column > 0);
	});

	async function start() {
		sound.start();
		const signals = mode ? data.wheels.map(({ channel }) => channel) : data.defaults;
		const name = mode === 'hand' ? 'Wheels turned by hand' : mode === 'gear' ? 'Driven wheels in gear' : '';
		const purpose = { what: 'wheel-round', position: null } as const;
		await work.begin({ do: 'record', signals, name, ...(mode ? { purpose } : {}) });
	}

	const CONDEMNS: readonly CornerResult[] = ['dead', 'erratic', 'weaker'];
	const noneCondemned = ({ corners }: RoundState) =>
		corners.every(({ result }) => result !== null && !CONDEMNS.includes(result));

	/** What is judged now and not yet on the thread. */
	const unsaved = $derived(told !== null && mode !== null && roundSaver.differs(told.corners));

	async function save() {
		if (!told || !mode || !unsaved) return;
		const rateHz = round && Number.isFinite(round.rateHz) ? round.rateHz : 0;
		const outcome = await roundSaver.save(feed.id ?? '', { mode, rateHz }, told.corners);
		if (outcome === 'saved') toast.success('The round is on the thread.');
	}

	/** The next page hears how the recording ended: ending it first would fetch this one anew under the way out. */
	async function leave() {
		const ends = mode !== null && running;
		if (told && noneCondemned(told)) await save();
		await goto(`/cases/${data.caseId}/watch`);
		if (ends) await work.cancel();
	}

	onMount(() => {
		const unfollow = followCase({ caseId: data.caseId, live: 'none' }, ({ name, value }) => {
			if (name === 'job') work.set(value as JobStatus | null);
		});
		let roundOf: string | null = null;
		const stop = feed.onrow((row, channels) => {
			const at = channels.indexOf(big) + 1;
			sound.follow(at > 0 ? (row[at] ?? null) : null);
			if (!mode) return;
			// Another recording is another round.
			if (!round || feed.id !== roundOf) {
				round = new WheelRound(data.wheels, mode);
				told = null;
				roundOf = feed.id;
			}
			const kmh = new Map(channels.map((name, i) => [name, row[i + 1] ?? NaN]));
			const before = told?.ask;
			told = round.sample(row[0] ?? 0, kmh);
			const follow = told.turning ?? told.ask;
			if (follow && follow !== big) big = follow;
			// What condemns a wheel is put on the thread by a person, never by itself.
			if (told.ask === null && before !== null && before !== undefined && noneCondemned(told)) void save();
		});
		return () => {
			unfollow();
			stop();
			sound.stop();
		};
	});

	function nextSignal() {
		const at = small.indexOf(big);
		big = small[(at + 1) % Math.max(1, small.length)] ?? big;
	}
	function toggleSound() {
		sound.start();
		muted = !muted;
		sound.muted = muted;
	}
	useKeys(
		{
			Space: () => (running ? void work.mark() : data.mayRecord && void start()),
			r: () => !running && data.mayRecord && void start(),
			s: nextSignal,
			m: toggleSound,
			Escape: () => void leave(),
			x: () => running && void work.cancel()
		},
		{
			r: 'start',
			Space: 'start; mark this moment',
			s: 'the next signal',
			m: 'sound on and off',
			x: 'stop and keep',
			Esc: 'back to the case'
		}
	);
	sound.muted = true;
</script>

<svelte:head><title>{data.number} Across the bay · Jaldi</title></svelte:head>
<main class="flex min-h-screen flex-col gap-4 bg-base-100 px-6 py-5 text-ink sm:px-12">
	<header class="flex flex-wrap items-center gap-x-6 gap-y-1">
		<Wordmark />
		<h1 class="text-xl" aria-live="assertive">
			{#if mode}{mode === 'hand' ? 'Wheel round' : 'In gear on stands'}:
				<strong>{task}</strong>{:else}<strong>{task}</strong>{/if}
		</h1>
		<p class="ml-auto text-ink-2">
			{#if running}<span class="num">{feed.rateHz.toFixed(0)}</span> readings a second · sees nothing shorter
				than
				<span class="num">{feed.rateHz > 0 ? (1000 / feed.rateHz).toFixed(0) : '–'}</span> ms{/if}
		</p>
	</header>
	{#if work.refusal}<p role="alert" class="border-l-4 border-ink pl-3 text-xl font-semibold">
			{work.refusal}
		</p>{/if}
	{#if told?.warning}<p role="alert" class="border-l-4 border-suspect-mark pl-3 text-xl">
			{said(told.warning)}
		</p>{/if}
	{#if running}
		<div class="grid flex-1 gap-8 lg:grid-cols-[1.1fr_1fr]">
			<section aria-label="Now" class="min-w-0" data-held={told?.enough || undefined}>
				<p class="text-2xl font-bold">{nameOf(big)}</p>
				<p class="flex items-end gap-4 leading-none">
					<span
						class="num font-bold"
						style="font-size: clamp(10rem, {shownNow.length > 2 ? 24 : 30}vw, 20rem)">{shownNow}</span
					>
					<span class="pb-8 text-4xl font-bold text-ink-2">{signalUnit(unitOf(big))}</span>
				</p>
			</section>
			<BayWheels
				channels={small}
				now={feed.now}
				{told}
				{big}
				{unitOf}
				{nameOf}
				onchoose={(channel) => (big = channel)}
				onturned={(channel, turned) =>
					(told = (turned ? round?.turnedInVain(channel) : round?.notTurned(channel)) ?? told)}
			/>
		</div>
		<LiveStrip
			rows={feed.rows}
			version={feed.version}
			names={strip.map(({ name }) => nameOf(name))}
			columns={strip.map(({ column }) => column)}
			strong={Math.max(
				0,
				strip.findIndex(({ name }) => name === big)
			)}
			overS={20}
			height={180}
		/>
	{:else if told?.corners.some(({ result }) => result)}
		<BayWheels
			channels={small}
			now={feed.now}
			{told}
			{big}
			{unitOf}
			{nameOf}
			onchoose={(channel) => (big = channel)}
		/>
		<div class="flex-1"></div>
	{:else if data.mayRecord}
		<div class="max-w-4xl flex-1 py-10">
			{#if mode === 'hand'}
				<p class="text-2xl leading-snug">
					Key on, wheels free. By hand, spin one wheel after the other, briskly, for three seconds each: Jaldi
					notices which one turns and ticks it off. You need not touch the screen.
					{#if data.passive}These sensors make their own voltage: slower than about {shown(5, 'speed')} they say
						nothing.{/if}
				</p>
			{:else if mode === 'gear'}
				<p class="text-2xl leading-snug">
					The driven wheels off the ground. Run in the lowest gear at walking pace, evenly, for ten seconds.
				</p>
			{/if}
			{#if mode}<div class="text-xl"><Caution>{data.cautions[mode]}</Caution></div>{/if}
			<Act class="act mt-8 min-h-24 px-14 text-2xl" whyNot={work.whyNot} onclick={start}>
				Start <span class="key border-current">space</span>
			</Act>
		</div>
	{/if}
	<footer class="flex flex-wrap items-center gap-x-6 gap-y-2 text-ink-2 max-lg:pb-14">
		{#if running}<button class="flex min-h-11 cursor-pointer items-center gap-2" onclick={() => work.mark()}
				><span class="key">space</span> mark</button
			>{/if}
		<button class="flex min-h-11 cursor-pointer items-center gap-2" onclick={nextSignal}
			><span class="key">s</span> next signal</button
		>
		<button
			class="flex min-h-11 cursor-pointer items-center gap-2"
			onclick={toggleSound}
			aria-pressed={!muted}
			><span class="key">m</span> {muted ? 'sound off' : `sound follows ${nameOf(big).toLowerCase()}`}</button
		>
		{#if unsaved}
			<button class="act min-h-14 text-lg" onclick={save}>Save to case</button>
		{/if}
		{#if running}<button class="flex min-h-11 cursor-pointer items-center gap-2" onclick={() => work.cancel()}
				><span class="key">x</span> stop recording</button
			>{/if}
		<button class="flex min-h-11 cursor-pointer items-center gap-2" onclick={leave}
			><span class="key">esc</span> back</button
		>
	</footer>
</main>
{#if data.standIn && data.mayRecord}<StandIn caseId={data.caseId} />{/if}
