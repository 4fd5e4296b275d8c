<script lang="ts">
	import Act from '$lib/ui/Act.svelte';
	import { refreshCase } from '$lib/ui/refresh';
	import { upperLevelVolts } from '$lib/case/measure/substituteJudgement';
	import { aimOf, judgeSeen, openedBy, substitutionOf } from '$lib/case/measure/substitutePlan';
	import { valueWords } from '$lib/case/measure/measureWords';
	import AskOnce from '$lib/ui/AskOnce.svelte';
	import Caution from '$lib/ui/Caution.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import NumberField from '$lib/ui/NumberField.svelte';
	import { sendEntry } from '$lib/away/record';
	import { getCaseWork } from '../../caseWork.svelte';
	import JobProgress from '../../JobProgress.svelte';
	import { LiveFeed } from '../../watch/liveFeed.svelte';
	import { useKeys } from '$lib/ui/keys';
	import BenchNav from '../BenchNav.svelte';
	import NotOnThis from '../NotOnThis.svelte';
	import { saidBy } from '../readMeter';
	import { standInHand } from '../../standInHand';
	import { LiveValue } from './liveValue.svelte';
	import { shown, shownValue, unitOf } from '$lib/ui/units';

	let { data } = $props();
	/** Watched for so long, no value means something. */
	const WATCHED_S = 3;
	const work = getCaseWork();
	const feed = new LiveFeed(() => data.case.id);
	const live = new LiveValue(feed, () => data.signal);
	let picked = $state<string | null>(null);
	let wantedKmh = $state<number | null>(30);
	let typedLow = $state<number | null>(null);
	let typedHigh = $state<number | null>(null);
	let volts = $state<number | null>(null);
	let practice = $state<string | null>(null);
	const held = $derived(data.held);
	/** The code was cleared with the signal in place: only then does no value mean that nothing arrives. */
	let clearedSince = $state(false);
	const mayWrite = $derived(data.canWrite && !data.case.signed);
	const fitting = $derived(data.methods.filter(({ unfit }) => unfit === null));
	const unfit = $derived(
		data.methods.flatMap((one) =>
			one.unfit && one.unfit.can !== 'not-for-it'
				? [{ name: one.name, ...one.unfit, can: one.unfit.can }]
				: []
		)
	);
	const method = $derived(fitting.find(({ id }) => id === picked) ?? fitting[0]);
	const watching = $derived(work.recordsFor('substitution', data.at));
	const aim = $derived(method ? aimOf(method, wantedKmh, data) : null);
	const hertz = $derived(aim?.hertz ?? null);
	const ohms = $derived(aim?.ohms ?? null);
	const kmh = $derived.by(() => {
		if (live.low !== null && live.high !== null) return { low: live.low, high: live.high };
		return typedLow === null ? null : { low: typedLow, high: typedHigh ?? typedLow };
	});
	const watched = $derived(kmh !== null || live.seconds > WATCHED_S);
	const seen = $derived({ kmh, watched, volts, clearedSince });
	const judgement = $derived(method && aim ? judgeSeen(method, aim, seen, data.senseResistorOhms) : null);

	const blind = $derived(method?.expects !== 'level' && watched && judgement === null);

	const watch = async () => {
		live.begin();
		if (data.signal)
			await work.begin({
				do: 'record',
				signals: [data.signal],
				name: `Substitute, ${data.atWords}`,
				purpose: { what: 'substitution', position: data.at }
			});
	};
	/** What a hard fault froze comes back only after a clear: done here, with the signal on, and watched again. */
	async function clearAndWatch() {
		if (!data.reader) return;
		if (watching) {
			await work.cancel();
			await work.ended();
		}
		await work.begin({ do: 'clear', only: data.reader.address });
		const job = await work.ended();
		if (work.refusal !== null || job?.kind !== 'clear' || job.state !== 'finished') return;
		clearedSince = true;
		await watch();
	}
	async function save() {
		if (!method || !aim || !judgement) return;
		if (watching) await work.cancel();
		const payload = substitutionOf(method, data, aim, seen, judgement);
		if (!(await sendEntry(data.case.id, 'substitution', payload))) return;
		live.begin();
		clearedSince = false;
		typedLow = typedHigh = volts = null;
		await refreshCase();
	}

	/** Puts on the thread that our signal is on, or off: what is read between is no evidence. */
	async function say(on: boolean) {
		if (!method) return;
		await sendEntry(data.case.id, 'signal-held', {
			position: data.at,
			method: method.id,
			name: method.name,
			on
		});
		clearedSince = false;
		await refreshCase();
	}
	/** On a simulated vehicle the hands are simulated too: opens the plug and holds the signal, or takes it off. */
	async function hold(on: boolean) {
		if (!method) return;
		practice = null;
		const act = (action: object) => standInHand(data.case.id, action);
		const plugs = openedBy(method.source, data.at, data.mate);
		try {
			if (method.source === 'steel') {
				await act({ do: 'wave-steel', position: data.at, times: 40 });
				return;
			}
			if (!on) await act({ do: 'source', source: null });
			if (!on && method.source === 'mate') await act({ do: 'spin', position: data.mate, kmh: 0 });
			await act({ do: 'key', to: 'off' });
			for (const name of plugs) await act({ do: 'connector', name, closed: !on });
			await act({ do: 'key', to: 'on' });
			await say(on);
			if (!on) return;
			const { nodes } = data;
			const source =
				method.source === 'mate'
					? { kind: 'mate', position: data.at, from: data.mate }
					: method.source === 'resistor'
						? { kind: 'resistor', a: nodes?.feed, b: nodes?.signal, ohms }
						: method.source === 'lamp'
							? { kind: 'lamp', a: nodes?.signal, b: 'body' }
							: { kind: method.source, position: data.at, hertz: hertz ?? 0, volts: method.volts ?? 1 };
			await act({ do: 'source', source });
			if (method.source === 'mate') await act({ do: 'spin', position: data.mate, kmh: wantedKmh ?? 0 });
			live.begin();
		} catch (error) {
			practice = saidBy(error);
		}
	}
	const SAID = { follows: 'good', nothing: 'bad', 'not-steady': 'bad', 'another-value': 'suspect' } as const;
	useKeys(
		{
			w: () => void (mayWrite && data.signal && !work.busy && watch())
		},
		{ w: 'watch what arrives' }
	);
	const speed = (kmh: number | null) => (kmh === null ? '–' : shownValue(kmh, 'speed').toFixed(1));
</script>

<svelte:head><title>{data.case.number} Substitute a signal · Jaldi</title></svelte:head>
<section class="pt-5">
	<h1 class="text-2xl leading-tight font-bold">Put a signal in place of the {data.atWords} sensor</h1>
	<p class="mt-1 text-ink-2">
		One test for harness, plugs, module input and logic together: what follows is proven, and the fault is at
		the wheel.
	</p>
	<BenchNav {data} here="/substitute" />
</section>

{#if !data.family}
	<p class="mt-5 text-lg">
		Which sensor is it? <a
			class="underline underline-offset-4"
			href="/cases/{data.case.id}/measure?at={data.at}">Find out first</a
		>: the wrong signal can do damage.
	</p>
{:else if method}
	<section class="mt-5" aria-labelledby="way">
		<h2 id="way" class="text-lg font-bold">The gentlest way first</h2>
		<ul>
			{#each fitting as one (one.id)}
				<li class="hair">
					<label
						class="grid min-h-12 cursor-pointer grid-cols-[1.75rem_minmax(0,1fr)_auto] items-center gap-3 py-1"
					>
						<input
							type="radio"
							class="radio"
							name="method"
							value={one.id}
							checked={one.id === method.id}
							onchange={() => {
								picked = one.id;
								live.begin();
							}}
						/>
						<span class={one.id === method.id ? 'font-bold' : ''}>{one.name}</span>
						<span class="num text-ink-2">{one.minutes} min</span>
					</label>
				</li>
			{/each}
		</ul>
	</section>
	<section class="mt-5 border-t-2 border-ink pt-4" aria-labelledby="do">
		<h2 id="do" class="text-xl font-bold">{method.name}</h2>
		<p class="mt-1 text-lg">{method.how}</p>
		<div class="mt-3 flex flex-wrap items-end gap-x-8 gap-y-3">
			{#if method.expects === 'speed' || method.expects === 'mate'}
				<div class="w-36">
					<NumberField label="Speed wanted" of="speed" bind:value={wantedKmh} min={3} max={120} required />
				</div>
			{/if}
			{#if hertz !== null}
				<p>
					<span class="block text-sm text-ink-2">Turn it to</span><span class="num text-2xl font-bold"
						>{hertz.toFixed(0)} Hz</span
					>
				</p>
			{/if}
			{#if ohms !== null && data.senseResistorOhms !== null}
				<p>
					<span class="block text-sm text-ink-2">Resistor</span><span class="num text-2xl font-bold"
						>{valueWords(ohms, 'Ω')}</span
					>
				</p>
				<p>
					<span class="block text-sm text-ink-2">Then the module’s signal pin stands at</span><span
						class="num text-2xl font-bold">{valueWords(upperLevelVolts(data.senseResistorOhms), 'V')}</span
					>
				</p>
			{/if}
			{#if method.expects !== 'level'}
				<p>
					<span class="block text-sm text-ink-2">Live data of {data.atWords} should show</span><span
						class="num text-2xl font-bold"
						>{method.expects === 'something'
							? 'any speed'
							: wantedKmh === null
								? '–'
								: shown(wantedKmh, 'speed')}</span
					>
				</p>
			{/if}
		</div>
		{#if method.expects !== 'level'}<p class="mt-3 text-ink-2">
				After a hard circuit fault many modules freeze this value until the code is cleared: that is done
				here, with the signal on.
			</p>{/if}
		<Caution>{method.cautions}</Caution>
		{#if mayWrite}
			<div class="flex flex-wrap items-center gap-3">
				{#if data.standIn}
					{#if method.source === 'steel'}
						<button class="act-quiet" onclick={() => hold(true)}>Wave it (simulator)</button>
					{:else}
						<button class="act-quiet" onclick={() => hold(!held)}
							>{held
								? 'Take it off, plug in again (simulator)'
								: 'Open the plug and hold it there (simulator)'}</button
						>
					{/if}
				{:else if method.source !== 'steel'}
					<button class="act-quiet" onclick={() => say(!held)}
						>{held ? 'It is off, the sensor plugged in' : 'The signal is on'}</button
					>
				{/if}
				{#if method.expects === 'level'}
					<div class="w-44">
						<NumberField label="Volts at the signal pin" bind:value={volts} step="any" />
					</div>
				{:else if data.signal && data.linkAddress}
					{#if watching}
						<button class="act-quiet" onclick={() => live.begin()}>Count from now</button>
					{:else}
						<Act class="act" whyNot={work.whyNot} onclick={watch}
							>Watch the live value <span class="key border-current">w</span></Act
						>
					{/if}
				{/if}
				{#if method.expects !== 'level' && !watching}
					<div class="w-36">
						<NumberField
							label="or seen: lowest"
							of="speed"
							bind:value={typedLow}
							min={0}
							max={400}
							step="any"
						/>
					</div>
					<div class="w-32">
						<NumberField label="highest" of="speed" bind:value={typedHigh} min={0} max={400} step="any" />
					</div>
				{/if}
			</div>
			{#if practice}<p class="mt-2 font-semibold" role="alert">{practice}</p>{/if}
			<JobProgress kinds={['record', 'clear']} />
			{#if watching}
				<p class="mt-3 flex flex-wrap items-baseline gap-x-6" aria-live="off">
					<span class="num text-[4.5rem] leading-none font-bold">{speed(live.now)}</span>
					<span class="text-ink-2"
						>{unitOf('speed')} · <span class="num">{speed(live.low)}</span> to
						<span class="num">{speed(live.high)}</span> in
						<span class="num">{live.seconds.toFixed(0)}</span> s</span
					>
				</p>
			{/if}
			<div aria-live="polite" class="min-h-12">
				{#if blind}
					<p class="mt-3 flex items-start gap-3 text-lg">
						<span class="mt-1"><Mark state="open" /></span>
						<span>
							The module shows no value, so this proves nothing yet. After a hard fault it stays silent about
							this wheel until its code is cleared with the signal on.
						</span>
					</p>
					{#if held && data.reader && data.linkAddress && !clearedSince}
						<p class="mt-2 pl-8">
							<AskOnce
								label="Clear {data.reader.name} with the signal on, and watch again"
								ask="What {data.reader.name} stores is cleared; what was read of it stays on the thread."
								yes="Clear it and watch"
								onyes={() => void clearAndWatch()}
							/>
						</p>
					{/if}
				{/if}
				{#if blind || clearedSince}
					<label class="flex min-h-11 cursor-pointer items-center gap-2 pl-8"
						><input type="checkbox" class="checkbox" bind:checked={clearedSince} /> The code was cleared with the
						signal on, and there is still no value</label
					>
				{/if}
				{#if judgement}
					<p class="mt-3 flex items-start gap-3 text-lg">
						<span class="mt-1"><Mark state={SAID[judgement.outcome]} /></span>
						<span>{judgement.says}</span>
					</p>
					<p class="mt-1 pl-8 text-ink-2">
						{#if judgement.proves.length > 0}Proves {judgement.proves.join(', ').replaceAll('-', ' ')}.{/if}
						Codes that this sets are marked as made by us.
					</p>
				{/if}
			</div>
			<Act
				class="act mt-2"
				whyNot={judgement ? null : 'Watch the live value, or say what was seen.'}
				onclick={save}>Save what it proved</Act
			>
		{/if}
	</section>
	<NotOnThis tests={unfit} />
{/if}
