<script lang="ts">
	import Caution from '$lib/ui/Caution.svelte';
	import Act from '$lib/ui/Act.svelte';
	import { untrack } from 'svelte';
	import { goOn } from '../../../../goOn';
	import { toast } from 'svelte-sonner';
	import { flashesInTurn } from '$lib/core/blink/flashesOf';
	import { useKeys } from '$lib/ui/keys';
	import { ulid } from 'ulid';
	import { lampMeaning } from '$library/lampTables';
	import { sendEntry } from '$lib/away/record';
	import Lamp from './Lamp.svelte';
	import Procedure from './Procedure.svelte';
	import { Tapped } from './tapped.svelte';

	let { data } = $props();
	const tapped = new Tapped();
	let lamp = $state<string>(untrack(() => data.likely));
	let tableId = $state<string>(untrack(() => data.own ?? ''));
	/** One number for each code that is saved: sent twice, it is kept once. */
	let entryIds: Record<string, string> = {};
	const PROCEDURES = [
		{ id: 'begin', name: 'Make it tell, step by step' },
		{ id: 'check', name: 'Sensor check by speed' },
		{ id: 'reset', name: 'Make it forget, once it is repaired' }
	] as const;
	let saving = $state(false);
	let tapButton = $state<HTMLButtonElement | null>(null);
	const reading = $derived(tapped.reading);
	const table = $derived(data.tables.find(({ id }) => id === tableId) ?? null);
	const wordsOf = (groups: number[]) => (table ? lampMeaning(table, groups)?.words : undefined);
	/** What is worth keeping: codes that were seen more than once, or all where none was yet. */
	const kept = $derived.by(() => {
		const codes = reading?.codes ?? [];
		const again = codes.filter(({ repeats }) => repeats > 1);
		return again.length > 0 ? again : codes;
	});
	const sure = $derived(reading ? Math.round(reading.confidence * 100) : 0);
	const says = $derived.by(() => {
		if (!reading) return '';
		if (!table) return 'No table is chosen: the number alone.';
		return wordsOf(reading.groups) ?? 'The table has no such code: count once more, or take another table.';
	});
	const advice = $derived.by(() => {
		if (!reading) return 'Begin at any flash. The pauses tell the rest, however fast the lamp is.';
		if (!reading.wantsAnother) return 'Seen the same more than once: that will do.';
		return 'Go on through one more showing: the same again makes it sure.';
	});

	const down = (event: Event) => {
		event.preventDefault();
		tapped.on(event.timeStamp);
	};
	const up = (event: Event) => tapped.off(event.timeStamp);

	async function save() {
		if (!reading || saving) return;
		saving = true;
		let stored = true;
		for (const { groups, repeats } of kept) {
			const code = groups.join('-');
			const done = await sendEntry(
				data.case.id,
				'lamp-read',
				{
					lamp: `${lamp} lamp`,
					flashes: tapped.flashes,
					groups,
					repeats,
					confidence: reading.confidence,
					table: table?.id ?? null,
					meaning: wordsOf(groups) ?? ''
				},
				(entryIds[code] ??= ulid())
			);
			stored &&= done === 'stored';
			if (!done) {
				saving = false;
				return;
			}
		}
		saving = false;
		const codes = kept.map(({ groups }) => groups.join('-')).join(', ');
		if (stored) toast.success(`Lamp code ${codes} ${kept.length === 1 ? 'is' : 'are'} on the thread.`);
		entryIds = {};
		void goOn(`/cases/${data.case.id}/read`);
	}

	/** Does something with what was tapped, and gives the space bar back to tapping. */
	function then(act: () => void) {
		act();
		tapButton?.focus();
	}
	const undo = () => then(() => tapped.undo());
	const again = () => then(() => tapped.again());
	const hold = (holding: boolean) =>
		then(() => {
			tapped.again();
			tapped.holding = holding;
		});

	useKeys(
		{
			u: undo,
			x: again,
			h: () => hold(!tapped.holding),
			s: () => void save()
		},
		{
			Space: 'while the lamp is on',
			u: 'take the last back',
			x: 'begin again',
			h: 'hold, or tap',
			s: 'save what was read'
		}
	);
</script>

<svelte:window
	onkeydown={(event) => {
		// Whatever else is worked with the space bar keeps it.
		const worked = (event.target as HTMLElement).closest('select, input, textarea, button, a');
		if (event.code !== 'Space' || event.repeat || (worked && worked !== tapButton)) return;
		down(event);
	}}
	onkeyup={(event) => {
		if (event.code === 'Space') up(event);
	}}
/>
<svelte:head><title>{data.case.number} Lamp · Jaldi</title></svelte:head>
<section class="pt-5">
	<h1 class="text-2xl font-bold">
		{reading ? 'The lamp says' : tapped.holding ? 'Hold while it is lit' : 'Tap at every flash'}
	</h1>
	<p class="mt-1 text-ink-2" aria-live="polite">{advice}</p>

	<button
		type="button"
		bind:this={tapButton}
		class="mt-4 flex h-40 w-full cursor-pointer touch-none items-center justify-center rounded-lg border-4 border-ink text-2xl font-bold select-none {tapped.lit
			? 'bg-neutral text-neutral-content'
			: 'bg-base-200 active:bg-neutral active:text-neutral-content'}"
		onpointerdown={down}
		onpointerup={up}
		onpointerleave={up}
		>{tapped.holding ? 'Hold while it is lit' : 'Tap'} <span class="key ml-4">space</span></button
	>
	<div class="mt-3 flex flex-wrap items-center gap-3">
		<Act
			class="act-quiet"
			whyNot={tapped.flashes.length === 0 ? 'Nothing is tapped yet.' : null}
			onclick={undo}>Take the last back <span class="key">u</span></Act
		>
		<Act class="act-quiet" whyNot={tapped.flashes.length === 0 ? '' : null} onclick={again}
			>Start over <span class="key">x</span></Act
		>
		<label class="flex min-h-11 cursor-pointer items-center gap-3"
			><input
				type="checkbox"
				class="checkbox"
				checked={tapped.holding}
				onchange={(event) => hold(event.currentTarget.checked)}
			/>
			hold for as long as it is lit <span class="key">h</span></label
		>
	</div>
	<div class="mt-4 flex flex-wrap items-end gap-x-8 gap-y-2">
		<p class="num leading-none font-bold {kept.length > 2 ? 'text-6xl' : 'text-[7.5rem]'}" data-reading>
			{kept.map(({ groups }) => groups.join('-')).join(' ')}
		</p>
		{#if reading}
			<dl class="grid grid-cols-[auto_auto] gap-x-4 pb-3">
				<dt>shown the same</dt>
				<dd class="num">{reading.repeats === 1 ? 'once' : `${reading.repeats} times`}</dd>
				<dt>this and no other</dt>
				<dd class="num">{sure} %</dd>
				<dt>flashes</dt>
				<dd class="num">{tapped.flashes.length}</dd>
			</dl>
		{/if}
	</div>
	{#if reading}
		{#if reading.codes.length > 1}
			<ul class="mt-2">
				{#each reading.codes as { groups, repeats }, nth (nth)}
					<li class="hair flex min-h-11 items-baseline gap-4 py-2">
						<span class="num text-xl font-bold">{groups.join('-')}</span>
						<span class="flex-1 text-lg">{wordsOf(groups) ?? 'not in the table'}</span>
						<span class="text-ink-2">{repeats === 1 ? 'seen once' : `seen ${repeats} times`}</span>
					</li>
				{/each}
			</ul>
		{:else}<p class="mt-2 text-xl font-bold">{says}</p>{/if}
	{/if}
</section>

<section class="mt-6 grid gap-x-6 gap-y-4 border-t border-rule pt-5 sm:grid-cols-2">
	<label class="block"
		><span class="mb-1 block font-semibold">Which lamp</span>
		<select class="field" bind:value={lamp}>
			{#each data.lamps as one, nth (nth)}<option value={one}>{one}</option>{/each}
		</select></label
	>
	<label class="block"
		><span class="mb-1 block font-semibold">Table</span>
		<select class="field" bind:value={tableId}>
			<option value="">none: the number alone</option>
			{#each data.tables as { id, name } (id)}<option value={id}>{name}</option>{/each}
		</select></label
	>
	{#if table}
		<p class="text-ink-2 sm:col-span-2">{table.how}</p>
		{#key table.id}
			<div class="sm:col-span-2">
				{#if table.cautions}<Caution>{table.cautions}</Caution>{/if}
				{#each PROCEDURES as { id, name } (id)}
					{@const steps = table[id]}
					{#if steps}
						<details class="hair">
							<summary class="min-h-11 cursor-pointer py-2 font-semibold">{name}</summary>
							<div class="pb-4"><Procedure {steps} onend={id === 'begin' ? again : undefined} /></div>
						</details>
					{/if}
				{/each}
			</div>
		{/key}
	{/if}
	{#if reading}
		<Lamp
			flashes={flashesInTurn(
				kept.map(({ groups }) => groups),
				2
			)}
		/>
		{#if data.canWrite && !data.case.signed}
			<button class="act self-center justify-self-start" disabled={saving} onclick={save}
				>{kept.length > 1 ? 'Put them' : 'Put it'} on the thread <span class="key">s</span></button
			>
		{/if}
	{/if}
</section>
