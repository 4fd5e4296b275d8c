<script lang="ts">
	import AskOnce from '$lib/ui/AskOnce.svelte';
	import { untrack } from 'svelte';
	import { lowerFirst } from '$lib/case/words';
	import Caution from '$lib/ui/Caution.svelte';
	import { entryForm } from '$lib/ui/entryForm.svelte';
	import Field from '$lib/ui/Field.svelte';
	import FormFoot from '$lib/ui/FormFoot.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import OneOf from '$lib/ui/OneOf.svelte';
	import Tick from '$lib/ui/Tick.svelte';
	import { getCaseWork } from '../../caseWork.svelte';
	import type { PageData } from './$types';

	/** One calibration on the line: why it is due, what it needs, and how it is done. */
	let { one, data, isNext }: { one: PageData['calibrations'][number]; data: PageData; isNext: boolean } =
		$props();
	const work = getCaseWork();
	const MARKS = { due: 'open', done: 'good', waived: 'open', failed: 'bad', interrupted: 'suspect' } as const;
	const WORDS = { due: '', done: 'done', waived: 'waived', failed: 'failed', interrupted: 'cut short' };
	const DO = { write: 'Write it into the module', routine: 'Teach it', drive: 'Begin the drive', hand: '' };
	const HOW = { 'by-hand': 'here, by hand', sublet: 'by another workshop' } as const;

	let opened = $state<boolean | null>(null);
	const running = $derived(work.job?.subject === one.id && work.job.state === 'running');
	const settled = $derived(one.state === 'done' || one.state === 'waived');
	// What runs is seen, also after a reload.
	const isOpen = $derived(running || (opened ?? isNext));
	let said = $state<string[]>([]);
	let leaving = $state<'hand' | 'waive' | null>(untrack(() => (one.way === 'hand' ? 'hand' : null)));
	const asked = $derived(one.conditions.filter(({ how }) => how === 'asked'));
	const looked = $derived(one.conditions.filter(({ how }) => how !== 'asked'));
	const missing = $derived(asked.filter(({ id }) => !said.includes(id)));
	const mayWrite = $derived(data.canWrite && !data.case.signed);
	const key = untrack(() => `${data.case.id}:${one.id}`);
	const about = untrack(() => ({ calibration: one.id }));
	const hand = entryForm(() => data.handForm, {
		id: `hand-${key}`,
		draftKey: `${key}:hand`,
		waits: 'Calibration by hand',
		about: () => about
	});
	const waive = entryForm(() => data.waiveForm, {
		id: `waive-${key}`,
		draftKey: `${key}:waive`,
		waits: 'Calibration left out',
		about: () => about
	});
	const { form: handForm, errors: handErrors, enhance: handEnhance } = hand;
	const { form: waiveForm, errors: waiveErrors, enhance: waiveEnhance } = waive;
	const tick = (id: string, on: boolean) =>
		(said = on ? [...said, id] : said.filter((other) => other !== id));
	const HOWS = Object.values(HOW);
</script>

<li class="relative pb-7 pl-10">
	<span class="absolute top-0.5 left-0 z-10 bg-base-100"><Mark state={MARKS[one.state]} size={22} /></span>
	<h2 class="text-lg font-bold">
		{one.name}, {one.moduleName.toLowerCase()}
		{#if one.time}<span class="pl-3 text-sm font-normal text-ink-2"
				>{WORDS[one.state]} <span class="num">{one.time}</span> {one.by}</span
			>{/if}
	</h2>
	<p class="text-ink-2">{one.because.join(' · ')}</p>
	{#if one.values.length > 0}
		<ul class="mt-1">
			{#each one.values as { name, before, after, unit, within }, nth (nth)}
				<li>
					{name}:
					<span class="num">{before ?? 'none'} → {after ?? 'none'} {unit}</span>
					{within === false ? '– outside its limits' : ''}
				</li>
			{/each}
		</ul>
	{/if}
	{#if one.detail}<p class={one.state === 'done' ? 'text-ink-2' : 'mt-1 font-semibold'}>{one.detail}</p>{/if}
	{#if !settled && one.lacks.length > 0}<p class="mt-1">
			This shop cannot: {one.lacks.join(', ')}. Another workshop does it, and it is written down here.
		</p>{/if}
	{#if !settled && one.waitsFor.length > 0}<p class="mt-1">Waits for {one.waitsFor.join(', ')}.</p>{/if}

	{#if mayWrite && !isOpen}
		<button class="act-quiet mt-2" onclick={() => (opened = true)}
			>{settled ? 'Do it again' : 'Do it now'}<span class="sr-only">, {one.name}</span></button
		>
	{/if}
	{#if mayWrite && isOpen}
		<p class="mt-2">
			{one.does} About <span class="num">{one.minutes}</span> min.
		</p>
		{#each one.cautions as caution, nth (nth)}<Caution>{caution}</Caution>{/each}
		{#if one.phases.length > 0}
			<p class="mt-2 font-semibold">What the drive has to show</p>
			<ul class="mt-1">
				{#each one.phases as { id, words, forS } (id)}
					{@const sofar = running ? work.job?.done.find(({ name }) => name === words)?.note : null}
					<li class="hair flex min-h-11 flex-wrap items-center justify-between gap-x-4">
						<span class="flex items-center gap-3"
							><Mark state={sofar === 'done' ? 'good' : 'open'} size={18} />{words}</span
						><span class="num">{sofar ?? `${forS} s`}</span>
					</li>
				{/each}
			</ul>
			{#if running}<p class="num mt-3 text-2xl font-bold">{work.job?.now}</p>{/if}
		{/if}
		{#if one.way !== 'hand'}
			<fieldset class="mt-3">
				<legend class="font-semibold">Only with</legend>
				{#each asked as { id, words } (id)}
					<Tick {words} checked={said.includes(id)} onchange={(on) => tick(id, on)} />
				{/each}
			</fieldset>
			{#if looked.length > 0}
				<p class="mt-1 text-ink-2">
					Looked at by itself before it begins: {looked.map(({ words }) => lowerFirst(words)).join('; ')}.
				</p>
			{/if}
			<div class="mt-3 flex flex-wrap items-center gap-4">
				<AskOnce
					next={isNext}
					class="act"
					label={DO[one.way]}
					ask="It changes what the module has learned, and cannot be taken back."
					yes="{DO[one.way]} now"
					whyNot={missing.length > 0
						? missing.length === 1
							? 'One thing is not confirmed yet.'
							: `${missing.length} things are not confirmed yet.`
						: work.whyNot}
					onyes={() => work.begin({ do: 'calibrate', calibration: one.id, said })}
				/>
				{#if running && one.way === 'drive'}
					<button class="act-quiet" onclick={() => work.cancel()}>Stop the drive</button>
				{/if}
			</div>
		{/if}
		<div class="mt-3 flex flex-wrap gap-3">
			{#if one.way !== 'hand'}
				<button
					class="act-quiet"
					aria-expanded={leaving === 'hand'}
					onclick={() => (leaving = leaving === 'hand' ? null : 'hand')}>Done without the link</button
				>
			{/if}
			{#if data.mayWaive && !settled}
				<button
					class="act-quiet"
					aria-expanded={leaving === 'waive'}
					onclick={() => (leaving = leaving === 'waive' ? null : 'waive')}>Skip (lead only)</button
				>
			{/if}
		</div>
		{#if leaving === 'hand'}
			<form method="POST" action="?/hand" use:handEnhance class="mt-3 space-y-3">
				<OneOf
					label="Done by"
					name="{one.id}-how"
					options={HOWS}
					bind:value={
						() => HOW[$handForm.how], (words) => ($handForm.how = words === HOW.sublet ? 'sublet' : 'by-hand')
					}
				/>
				<OneOf
					label="What came of it"
					name="{one.id}-state"
					options={['done', 'failed'] as const}
					bind:value={$handForm.state}
				/>
				<Field label="How, with which values" errors={$handErrors.detail}
					><textarea
						class="field"
						rows="2"
						bind:value={$handForm.detail}
						placeholder="toe before and after, tool, who"></textarea></Field
				>
				<FormFoot made={hand} save="Save it" />
			</form>
		{:else if leaving === 'waive'}
			<form method="POST" action="?/waive" use:waiveEnhance class="mt-3">
				<Field label="Why may it be skipped?" errors={$waiveErrors.reason}
					><textarea class="field" rows="2" bind:value={$waiveForm.reason}></textarea></Field
				>
				<FormFoot made={waive} save="Skip it, in my name" />
			</form>
		{/if}
	{/if}
</li>
