<script lang="ts">
	import { untrack } from 'svelte';
	import { ulid } from 'ulid';
	import { refreshCase } from '$lib/ui/refresh';
	import {
		FAULT_RULES,
		foundAt,
		planSearch,
		readsAs,
		type HarnessFault
	} from '$lib/case/measure/harnessPlan';
	import {
		notedOf,
		placeWordsIn,
		quantityOf,
		readsByPlace,
		searchAfter
	} from '$lib/case/measure/harnessSearch';
	import { OVER_RANGE, readingWords, type MeterReading } from '$lib/case/measure/reading';
	import { HARNESS_FAULTS } from '$lib/case/entries/harness-search/payload';
	import { upperFirst } from '$lib/case/words';
	import Caution from '$lib/ui/Caution.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import NumberField from '$lib/ui/NumberField.svelte';
	import OneOf from '$lib/ui/OneOf.svelte';
	import { sendEntry } from '$lib/away/record';
	import { useKeys } from '$lib/ui/keys';
	import BenchNav from '../BenchNav.svelte';
	import { readMeter, saidBy } from '../readMeter';
	import { standInHand } from '../../standInHand';
	import OnlyUsual from '../../OnlyUsual.svelte';
	import Path from './Path.svelte';

	let { data } = $props();
	const WIRES = ['feed', 'signal'] as const;
	const FAULT_WORDS = { open: 'open', short: 'shorted', resistance: 'too much resistance' } as const;
	let wire = $state<'feed' | 'signal'>('feed');
	let faultWords = $state<string>('open');
	let reading = $state<MeterReading | null>(null);
	let fedVolts = $state<number | null>(null);
	let trouble = $state<string | null>(null);
	let setUp = $state(false);
	const mayWrite = $derived(data.canWrite && !data.case.signed);
	const fault = $derived<HarnessFault>(
		HARNESS_FAULTS.find((one) => FAULT_WORDS[one] === faultWords) ?? 'open'
	);
	const rule = $derived(FAULT_RULES[fault]);
	/** A search goes on where it was left: the entry on the thread is its state. */
	const begun = $derived(data.searches.filter((one) => one.wire === wire && one.fault === fault));
	const current = $derived(begun.at(-1) ?? null);
	const taken = $derived(notedOf(begun));
	const readings = $derived(readsByPlace(taken));
	const exposed = $derived([...data.exposed, ...(current?.exposed ?? [])]);
	const path = $derived(data.paths[wire]);
	const plan = $derived(path.length > 1 ? planSearch(path, wire, fault, readings, exposed) : null);
	const step = $derived(plan && !plan.found && !plan.contradiction ? (plan.next[0] ?? null) : null);
	const place = $derived(plan?.places.find(({ node }) => node === step?.point) ?? null);
	const result = $derived(plan?.found ? foundAt(plan.places, plan.between) : null);
	const wordsOf = (node: string) => placeWordsIn(plan?.places ?? [], node);
	const reads = $derived(readsAs(fault, reading, fedVolts ?? 0));
	const needsFed = $derived(fault !== 'short');

	async function readAt(node: string | null | undefined): Promise<number | null | undefined> {
		if (!node) return undefined;
		trouble = null;
		try {
			return await readMeter(data.case.id, { place: node, mode: rule.mode, black: 'body' });
		} catch (error) {
			trouble = saidBy(error);
			return undefined;
		}
	}
	const act = (action: object) => standInHand(data.case.id, action);
	/** What hands do before the search, on a simulated vehicle. */
	async function prepare(on: boolean) {
		trouble = null;
		try {
			await act({ do: 'source', source: null });
			await act({ do: 'key', to: 'off' });
			const open = fault === 'short' || fault === 'open' || wire === 'signal';
			await act({ do: 'connector', name: data.at, closed: !(on && open) });
			if (data.reader) await act({ do: 'connector', name: data.reader, closed: !(on && fault === 'short') });
			if (!on || fault !== 'short') await act({ do: 'key', to: 'on' });
			if (on && fault !== 'short' && wire === 'signal')
				await act({
					do: 'source',
					source: { kind: 'resistor', a: data.nodes?.feed, b: data.nodes?.signal, ohms: 750 }
				});
			setUp = on;
			if (on && needsFed)
				fedVolts = (await readAt(wire === 'feed' ? data.nodes?.mateFeed : data.nodes?.signal)) ?? null;
		} catch (error) {
			trouble = saidBy(error);
		}
	}
	async function readHere() {
		if (!place) return;
		if (rule.opens && data.standIn && setUp)
			await act({ do: 'connector', name: place.behind, closed: false }).catch(
				(error: Error) => (trouble = error.message)
			);
		const read = await readAt(place.node);
		if (read === undefined) return;
		reading = read ?? OVER_RANGE;
	}
	async function note(reads: 'good' | 'bad') {
		if (!plan || !place || !step) return;
		const payload = searchAfter(
			{ position: data.at, wire, fault, path },
			taken,
			{ opened: exposed, openedHere: current?.exposed ?? [] },
			{ place, minutes: step.minutes, reading, reads }
		);
		const supersedes = current
			? { entryId: current.id, why: `measured at ${place.words}`.slice(0, 200) }
			: null;
		if (await sendEntry(data.case.id, 'harness-search', payload, ulid(), supersedes)) {
			reading = null;
			await refreshCase();
		}
	}
	const subject = $derived(`${data.at} ${wire} ${fault}`);
	$effect(() => {
		// Another wheel or wire is another measurement; the same one goes on as it was set up.
		void subject;
		untrack(() => {
			reading = null;
			setUp = false;
		});
	});
	useKeys(
		{
			r: () => void (data.standIn && step && readHere())
		},
		{ r: 'read the meter' }
	);
</script>

<svelte:head><title>{data.case.number} Halve the harness · Jaldi</title></svelte:head>
<section class="pt-5">
	<h1 class="text-2xl leading-tight font-bold">
		{result ? result.says : `Where is the wire of ${data.atWords} at fault?`}
	</h1>
	{#if result}<p class="mt-1 text-lg">{result.todo}</p>{/if}
	<BenchNav {data} here="/halve" />
</section>

{#if !plan}
	<p class="mt-5 text-lg">
		The library has no wiring of this vehicle. Halve it by the maker’s diagram, and note each reading on the
		meter’s page.
	</p>
{:else}
	<section class="mt-5" aria-label="What is looked for">
		<div class="flex flex-wrap items-end gap-x-8 gap-y-3">
			<div>
				<p class="text-sm text-ink-2">Wire</p>
				<OneOf label="Wire" name="wire" options={WIRES} bind:value={wire} />
			</div>
			<div>
				<p class="text-sm text-ink-2">It is</p>
				<OneOf
					label="Kind of fault"
					name="fault"
					options={HARNESS_FAULTS.map((one) => FAULT_WORDS[one])}
					bind:value={faultWords}
				/>
			</div>
			{#if data.standIn && mayWrite}
				<button class="act-quiet" onclick={() => prepare(!setUp)}
					>{setUp ? 'Put everything back (simulator)' : 'Set it up (simulator)'}</button
				>
			{/if}
		</div>
		<p class="mt-3">{rule.how[wire]}</p>
		<Caution>{data.cautions}</Caution>
	</section>

	{#if plan.contradiction}
		<p class="mt-3 text-lg font-semibold" role="alert">
			These two cannot both be right: {wordsOf(plan.contradiction.good)} read good, {wordsOf(
				plan.contradiction.bad
			)} bad. Repeat the one that is easier to reach.
		</p>
	{/if}
	{#if step && place && mayWrite}
		<section class="pt-1" aria-labelledby="here">
			<h2 id="here" class="text-xl font-bold">Measure at {place.words}</h2>
			<p class="text-ink-2">
				{#if place.usualPlace}<OnlyUsual
						path={place.usualPlace}
						caseId={data.case.id}
						says={place.where}
					/>{:else}{place.where}{/if} · <span class="num">{step.minutes}</span> min now, about
				<span class="num">{step.expectedMin.toFixed(0)}</span> to the end: of all places this one saves the most.
			</p>
			<div class="mt-3 flex flex-wrap items-end gap-3">
				{#if needsFed}
					<div class="w-44">
						<NumberField
							label={wire === 'feed' ? `${data.mateWords}, same wire, V` : 'At the sensor’s plug, V'}
							bind:value={fedVolts}
							step="any"
						/>
					</div>
				{/if}
				<div class="w-36">
					<NumberField
						label="Reading, {quantityOf(fault)}"
						bind:value={() => (reading === OVER_RANGE ? null : reading), (typed) => (reading = typed)}
						step="any"
					/>
				</div>
				{#if data.standIn}<button class="act-quiet" onclick={readHere}
						>Read the meter <span class="key">r</span></button
					>{/if}
				<button class="{reads === 'good' ? 'act' : 'act-quiet'} thumb" onclick={() => note('good')}
					><Mark state="good" size={16} /> {rule.good}</button
				>
				<button class="{reads === 'bad' ? 'act' : 'act-quiet'} thumb" onclick={() => note('bad')}
					><Mark state="bad" size={16} /> {rule.bad}</button
				>
			</div>
			<p class="mt-2 min-h-6" aria-live="polite">
				{#if reading !== null}{upperFirst(readingWords(reading, quantityOf(fault)))}: {reads
						? rule[reads]
						: 'neither clearly good nor bad. Measure again, or measure at its neighbour'}.{/if}
			</p>
		</section>
	{/if}
	{#if trouble}<p class="mt-2 font-semibold" role="alert">{trouble}</p>{/if}
	<Path
		places={plan.places}
		{readings}
		chances={plan.chances}
		next={step?.point ?? null}
		fed={fault === 'short' ? 'free' : 'fed from here'}
		caseId={data.case.id}
	/>
{/if}
<p class="mt-8">
	It comes and goes? Then nothing is found at rest:
	<a class="underline underline-offset-4" href="/cases/{data.case.id}/measure/provoke?at={data.at}"
		>provoke it</a
	>.
</p>
