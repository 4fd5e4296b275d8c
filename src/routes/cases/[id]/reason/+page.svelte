<script lang="ts">
	import OnlyUsual from '../OnlyUsual.svelte';
	import { upperFirst } from '$lib/case/words';
	import { goto } from '$app/navigation';
	import { refreshCase } from '$lib/ui/refresh';
	import { hourWords } from '$lib/case/progress/floorWords';
	import { percentWords as percent } from '$lib/case/reason/percentWords';
	import { WHY_GENERAL_METHOD } from '$lib/case/reason/whyRepairNow';
	import type { ShownCell } from '$lib/case/reason/gridView';
	import type { ShownTest } from '$lib/case/reason/reasonView';
	import { answeredBy } from '$lib/case/reason/testPath';
	import { GENERAL_METHOD } from '$library/reason/notDescribed';
	import Caution from '$lib/ui/Caution.svelte';
	import Legend from '$lib/ui/Legend.svelte';
	import CellDetail from './CellDetail.svelte';
	import OpenStep from './OpenStep.svelte';
	import { StepInHand } from './openStep.svelte';
	import Policy from './Policy.svelte';
	import ProofGrid from './ProofGrid.svelte';
	import Replay from './Replay.svelte';
	import PlanLine from '$lib/ui/PlanLine.svelte';
	import Way from './Way.svelte';
	import Worksheet from './Worksheet.svelte';
	import { Latest } from '../../../latest.svelte';

	let { data } = $props();
	const latest = new Latest(() => data.reasoned);
	const reason = $derived(latest.value);
	const mayWrite = $derived(data.canWrite && !data.case.signed && data.upTo === null);
	let chosen = $state<string | null>(null);
	const hand = new StepInHand(
		() => data.case.id,
		() => data.case.headSeq
	);
	const rows = $derived(reason ? [...reason.grid.rows, ...reason.grid.modules, ...reason.grid.feeds] : []);
	const cell = $derived.by(() => {
		for (const row of rows)
			for (const one of row.cells)
				if (`${one.place}/${one.link}` === chosen) return { cell: one, words: row.words };
		return null;
	});
	const [FIRST, SHOWN] = [0, 6];
	/** From here on the repair is said first, whichever of its causes it is. */
	const SURE = 0.9;
	/** Something at hand has shown it, not codes and silence alone. */
	const proven = $derived(rows.some(({ cells }) => cells.some(({ state }) => state === 'proven-bad')));
	const headline = $derived.by(() => {
		if (reason === undefined) return latest.trouble ? 'Not worked out' : 'Working out what follows';
		const first = reason?.hypotheses[FIRST];
		if (!reason || !first) return 'Nothing can be said yet';
		if (reason.onlyMeaningless)
			return `${reason.meaningless.map(({ text }) => text).join(', ')}: say first what it means`;
		if (reason.nothing > 0.9) return 'Nothing is wrong any more, as far as it has been seen';
		const [mend] = reason.mending;
		if (reason.test === null && mend && mend.cures > SURE && first.probability < mend.cures - 0.02) {
			const causes = reason.hypotheses.filter(({ probability }) => probability > 0.02).length;
			const why = causes > 1 ? `${causes} causes, one repair` : 'one repair for what is left';
			return `${upperFirst(mend.name)}: ${why}, ${percent(mend.cures)}`;
		}
		if (first.probability > 0.9)
			return proven ? `Proven: ${first.fault}` : `Almost certain, not yet proven: ${first.fault}`;
		return `${reason.hypotheses.filter(({ probability }) => probability > 0.02).length} possible causes left of ${reason.possible}`;
	});
	const choose = (one: ShownCell) => {
		const key = `${one.place}/${one.link}`;
		chosen = chosen === key ? null : key;
	};
	const start = (test: ShownTest) => {
		hand.open(test);
		document.getElementById('next-test')?.scrollIntoView({ block: 'center' });
	};
	/** What was written down since the step in hand began, where that is done on a page of its own: it is its answer. */
	const answer = $derived.by(() => {
		const step = hand.step;
		if (!step || step.test.asks.length > 0) return null;
		const kind = answeredBy(step.test.kind);
		const since = data.case.lines.find((line) => line.kind === kind && line.seq > step.afterSeq);
		return since ? Math.min(Date.now(), Date.parse(since.receivedAt)) : null;
	});
	const ended = () => {
		hand.close();
		void refreshCase();
	};
	const repair = $derived(reason?.mending[0] ?? null);
	/** The entry that made the minutes still to go others by far. */
	const turn = $derived(
		data.moments.find(({ seq }) => reason?.toGo?.wasMinutes && seq === reason.toGo.turnedAt)?.title ?? null
	);
	/** What none of the repairs that are spoken of would end. */
	const unmended = $derived(reason?.mending.reduce((left, one) => left - one.ends, 1) ?? 1);
	const hrefOf = (one: { kind: string; place: string }) =>
		`/cases/${data.case.id}/mend?does=${one.kind}&place=${one.place}`;
</script>

<svelte:head><title>{data.case.number} Reason · Jaldi</title></svelte:head>

<section class="pt-5">
	<h1 class="text-2xl leading-tight font-bold">{headline}</h1>
	{#if reason && (latest.older || latest.trouble)}
		<p class="text-ink-2" role="status">
			{latest.trouble
				? 'From before the newest entry: the server has too much to do at this moment.'
				: 'From before the newest entry, which is being worked in …'}
		</p>
	{/if}
	{#if reason === undefined}
		<p class="mt-2 text-lg" role="status">
			{#if latest.trouble}The server has too much to do at this moment. Nothing is lost.{:else}From <span
					class="num">{data.moments.length}</span
				>
				entries on the thread. Every station can be used meanwhile.{/if}
		</p>
		{#if latest.trouble}<button class="act mt-4" onclick={() => void refreshCase()}>Work it out again</button
			>{/if}
	{:else if !reason}
		<p class="mt-2 text-lg">
			{data.upTo === null
				? data.byLamp
					? 'Read its lamp first: the codes say where to begin.'
					: 'Read every module first: the codes say where to begin. A vehicle that the library does not describe is not reasoned about.'
				: 'At that moment nothing had been read yet.'}
		</p>
		{#if data.upTo === null && data.toldOnly && !data.byLamp}
			<p class="mt-2">
				Codes were told and are on the thread. They count as a reading once somebody says which modules were
				asked.
			</p>
			<a class="act-quiet mt-2 mr-3" href="/cases/{data.case.id}/read/other">Another tool read them</a>
		{/if}
		{#if data.upTo === null}<a class="act mt-4" href="/cases/{data.case.id}/read{data.byLamp ? '/lamp' : ''}"
				>{data.byLamp ? 'Read its lamp' : 'Go to Read'}</a
			>{/if}
	{/if}
</section>

{#if reason}
	{#each reason.contradictions as { good, bad }, i (i)}
		{#if good && bad}
			<p class="mt-3 border-l-4 border-ink pl-4" role="status">
				<strong>These two readings cannot both be right:</strong>
				{good.title} ({good.words}) and {bad.title} ({bad.words}). Repeat the cheaper one before anything is
				ordered.
			</p>
		{/if}
	{/each}
	{#if reason.numbering}
		<p class="mt-3 border-l-4 border-ink pl-4" role="status">
			{reason.numbering.words}
			<a class="underline underline-offset-4" href="/codes/{reason.numbering.code}?case={data.case.id}"
				>Say which is right</a
			>
		</p>
	{/if}
	{#each reason.meaningless as code, nth (nth)}
		<p class="mt-3 border-l-4 border-ink pl-4" role="status">
			<strong><span class="num">{code.text}</span> has no meaning here yet, so it points at no place.</strong>
			<a class="underline underline-offset-4" href="/codes/{code.slug}/write"
				>Write down what its maker says of it</a
			>: circuit and corner are enough, for this case and every later one.
		</p>
	{/each}
	{#if reason.together}
		<p class="mt-3 border-l-4 border-ink pl-4" role="status">
			<strong>{reason.together.title}.</strong>
			{reason.together.todo}
			<span class="text-ink-2">{reason.together.text}</span>
		</p>
	{/if}
	{#if reason.explains}
		<p class="mt-3">
			<strong>{reason.explains.words}</strong>
			{#each reason.explains.sets as set, i (i)}
				{i > 0 ? ' or ' : ' '}{i > 0 ? set.words : upperFirst(set.words)} (<span class="num"
					>{percent(set.p)}</span
				>){/each}{reason.explains.sets.length > 0 ? '.' : ''}
			{#if reason.left}Others have worked on it ({reason.left.work}), and such work leaves behind, now and
				then: {reason.left.fault}.{/if}
		</p>
	{/if}
	{#if reason.cascade.text}
		<details class="mt-3">
			<summary class="min-h-11 cursor-pointer"><strong>{reason.cascade.text}</strong> Which, and why</summary>
			<ul class="mt-1">
				{#each reason.cascade.consequences as one, i (i)}
					<li class="py-0.5">
						<span class="num">{one.text}</span> in {one.moduleName.toLowerCase()}:
						<span class="text-ink-2">{one.because}</span>
					</li>
				{/each}
			</ul>
		</details>
	{/if}

	<div class="mt-4">
		<ProofGrid {...reason.grid} reader={reason.reader} {chosen} onchoose={choose} />
	</div>
	{#if cell}<CellDetail cell={cell.cell} words={cell.words} caseId={data.case.id} upTo={data.upTo} />{/if}
	<div class="mt-3">
		<Legend words={{ good: 'proven good', suspect: 'suspect', bad: 'proven bad', open: 'not tested' }} />
	</div>

	<div class="grid gap-x-10 gap-y-6 xl:grid-cols-2">
		<section aria-labelledby="left">
			<h2 id="left" class="font-bold text-ink-2">What is left, of {reason.possible} possible faults</h2>
			<ul class="mt-1">
				{#each reason.hypotheses.slice(0, SHOWN) as one, nth (nth)}
					<li class="grid grid-cols-[minmax(0,1fr)_7rem_3.75rem] items-center gap-3 py-1.5">
						<span class="leading-tight">{one.fault}</span>
						<span class="h-2.5 rounded-full bg-rule" aria-hidden="true"
							><span class="block h-full rounded-full bg-ink" style:width="{one.probability * 100}%"
							></span></span
						>
						<span class="num text-right">{percent(one.probability)}</span>
					</li>
				{/each}
			</ul>
			{#if reason.notDescribed > 0}
				<p class="text-ink-2">
					Something that is not described here: <span class="num">{percent(reason.notDescribed)}</span> in all.
				</p>
			{/if}
			{#each reason.record as one, nth (nth)}
				<p class="text-ink-2">
					<span class="num">{one.count}</span> of <span class="num">{one.of}</span> here: {one.words} ({one.alike}).
				</p>
			{/each}
			<p class="flex flex-wrap gap-x-6">
				<a
					class="inline-flex min-h-11 items-center underline underline-offset-4"
					href="/cases/{data.case.id}/reason/alike">Cases like this one</a
				>
				{#if reason.record.length > 0}<a
						class="inline-flex min-h-11 items-center underline underline-offset-4"
						href="/library/learned">What is learned from</a
					>{/if}
			</p>
		</section>

		<section id="next-test" aria-labelledby="next-title">
			<h2 id="next-title" class="font-bold text-ink-2">
				{reason.test ? 'Next, and other ways to go on' : 'Stop testing'}
			</h2>
			{#if hand.step}
				{#key hand.step.entryId}<OpenStep
						step={hand.step}
						caseId={data.case.id}
						answered={answer}
						onended={ended}
					/>{/key}
			{:else if reason.test}
				{@const test = reason.test}
				<p class="mt-2 text-xl font-bold">{test.name}</p>
				<p>
					<span class="num">{Math.round(test.minutes)}</span>
					min{test.access ? ` (${test.access}` : ''}{#if test.assumed}, <OnlyUsual
							path={test.assumed}
							caseId={data.case.id}
						/>{/if}{test.access ? ')' : ''}. {test.why}
					{#if test.saves > 0}Saves <span class="num">{Math.round(test.saves)}</span> min of mending beyond its
						own.{/if}
					{#if test.ahead}Then, by what it shows: {test.ahead.toLowerCase()}.{/if}
				</p>
				{#if test.school}<p class="mt-1 text-ink-2">{test.school}</p>{/if}
				<ul class="mt-1">
					{#each test.outcomes as outcome, i (i)}
						<li class="text-ink-2">
							<span class="num text-ink">{percent(outcome.p)}</span>
							{outcome.words} → {outcome.means}
						</li>
					{/each}
				</ul>
				{#if test.cautions}<Caution>{test.cautions}</Caution>{/if}
				{#if mayWrite}<button class="act mt-3" data-do onclick={() => start(test)}>Start this step</button
					>{/if}
			{:else if repair && reason.nothing < 0.5}
				{#if repair.kind === GENERAL_METHOD}
					<p class="mt-2 text-xl font-bold">Nothing described here fits: {repair.name}</p>
					<p>{WHY_GENERAL_METHOD[reason.why]}</p>
				{:else}
					<p class="mt-2 text-xl font-bold">Repair: {repair.name}</p>
					<p>
						<span class="num">{percent(repair.cures)}</span> that it cures; {reason.why ===
						'nothing-tells-more'
							? 'no test at hand tells more.'
							: 'another test would cost more than it saves.'}
					</p>
				{/if}
				{#if mayWrite}<a class="act mt-3" data-do href={hrefOf(repair)}>Take it to Mend</a>{/if}
			{:else}
				<p class="mt-2">Nothing that is suspected is left to test: prove it.</p>
			{/if}
			<ul class="mt-3">
				{#each reason.others as other (other.id)}<Way
						caseId={data.case.id}
						test={other}
						{mayWrite}
						onstart={start}
					/>{/each}
			</ul>
			{#if reason.more.length > 0}
				<details>
					<summary class="min-h-11 cursor-pointer py-2 text-ink-2">{reason.more.length} more</summary>
					<ul>
						{#each reason.more as other (other.id)}<Way
								caseId={data.case.id}
								test={other}
								{mayWrite}
								onstart={start}
							/>{/each}
					</ul>
				</details>
			{/if}
		</section>
	</div>

	{#if reason.mending.length > 0}
		<section class="mt-6 border-t border-rule pt-4" aria-labelledby="whatif">
			<h2 id="whatif" class="text-lg font-bold">If it were mended now, one after the other</h2>
			<p class="text-ink-2">How likely each of them is the one that ends it.</p>
			<ol class="mt-1">
				{#each reason.mending as one, i (i)}
					<li
						class="hair grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-5 py-2 sm:grid-cols-[minmax(0,1fr)_auto_auto]"
					>
						<span class="max-sm:col-span-2">
							{#if i > 0}<span class="text-ink-2">else</span>{/if}
							<a class="underline underline-offset-4" href={hrefOf(one)}>{one.name}</a>{one.part
								? ', a part'
								: ''}{one.cures - one.ends > 0.05 && i === 0 ? '; it helps, and may not be all' : ''}
						</span>
						<span class="num sm:text-right"
							>{one.minutes} min{one.price > 0 ? `, price ${one.price}` : ''}</span
						>
						<span class="num w-16 text-right">{percent(one.ends)}</span>
					</li>
				{/each}
				{#if unmended > 0.01}<li class="hair grid grid-cols-[minmax(0,1fr)_auto] gap-x-5 py-2 text-ink-2">
						<span>by none of these</span><span class="num w-16 text-right">{percent(unmended)}</span>
					</li>{/if}
			</ol>
			{#if reason.toGo?.meanMinutes}
				<p class="mt-1 text-ink-2">
					Still to go, with mending and proving: about {hourWords(reason.toGo.meanMinutes)}; in eight of ten
					cases like this {hourWords(reason.toGo.lowMinutes ?? 0)} to {hourWords(
						reason.toGo.highMinutes ?? 0
					)}.{turn ? ` Before “${turn}” it was about ${hourWords(reason.toGo.wasMinutes ?? 0)}.` : ''}
				</p>
			{/if}
		</section>
	{/if}

	<Policy policy={reason.policy} mayLead={data.mayLead} dearest={repair} />
	{#if mayWrite}
		<PlanLine planned={data.planned} {...data.planning} canWrite={data.canTakeIn} />
	{/if}
	<Worksheet steps={reason.steps} {mayWrite} caseId={data.case.id} onsaved={() => void refreshCase()} />
	<Caution>
		What is likely is no proof. The maker’s procedure and local law come first. A person decides and signs.
	</Caution>
{/if}
<Replay
	moments={data.moments}
	upTo={data.upTo}
	onmove={(seq) =>
		void goto(seq === null ? '?' : `?upto=${seq}`, { replaceState: true, noScroll: true, keepFocus: true })}
/>
