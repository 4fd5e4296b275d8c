<script lang="ts">
	import Act from '$lib/ui/Act.svelte';
	import { untrack } from 'svelte';
	import Caution from '$lib/ui/Caution.svelte';
	import { keepDraft } from '$lib/ui/draft.svelte';
	import InspectionDrawing from '$lib/ui/InspectionDrawing.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import NumberField from '$lib/ui/NumberField.svelte';
	import type { InspectionDone } from '$lib/case/entries/inspection/payload';
	import type { Link } from '$library/links';
	import type { Inspection } from '$library/measure';
	import type { Position } from '$library/positions';
	import { sendEntry } from '$lib/away/record';
	import { PhotoBox } from '../../photos.svelte';
	import PhotoStrip from '../../PhotoStrip.svelte';
	import { shown } from '$lib/ui/units';

	/** One look at one part of one wheel: where, why, what is to be seen, and what was seen. */
	let {
		one,
		caseId,
		at,
		usualGapMm,
		mayWrite,
		onsaved
	}: {
		one: Omit<Inspection, 'sights'> & {
			cautions: string;
			sights: { id: string; words: string; links: Link[] }[];
		};
		caseId: string;
		at: Position;
		usualGapMm: number | null;
		mayWrite: boolean;
		onsaved: () => void;
	} = $props();
	/** Ids of what is ticked. */
	let found = $state<string[]>([]);
	let gapMm = $state<number | null>(null);
	let note = $state('');
	const photos = new PhotoBox(() => caseId);
	keepDraft(
		untrack(() => `look:${caseId}:${at}:${one.id}`),
		() =>
			found.length === 0 && gapMm === null && note === '' && photos.kept.length === 0
				? null
				: { found, gapMm, note, kept: photos.kept },
		(kept) => {
			({ found, gapMm, note } = kept);
			photos.kept = kept.kept;
		}
	);
	/** Beyond this the maker's usual gap is exceeded so far that it is told. */
	const GAP_ROOM_MM = 0.4;
	const gapTooWide = $derived(gapMm !== null && usualGapMm !== null && gapMm > usualGapMm + GAP_ROOM_MM);
	async function save(result: 'good' | 'bad' | 'unsure') {
		const sights = result === 'good' ? [] : one.sights.filter(({ id }) => found.includes(id));
		const seen = sights.map(({ words }) => words);
		const payload: InspectionDone = {
			position: at,
			inspection: one.id,
			name: one.name,
			result,
			sights: sights.map(({ id }) => id),
			found: seen.length === 0 && result === 'bad' ? [note.trim() || 'bad'] : seen,
			gapMm: one.gapMm ? gapMm : null,
			note: note.trim(),
			photos: $state.snapshot(photos.kept),
			says:
				result === 'good'
					? `${one.name}: nothing wrong to be seen.`
					: `${one.name}: ${seen.join(', ') || note.trim() || (result === 'bad' ? 'bad' : 'not sure')}.`,
			// A gap that was measured is proven; that nothing was to be seen proves nothing.
			proves: result === 'good' && one.gapMm && gapMm !== null && !gapTooWide ? [one.link] : [],
			implicates:
				result !== 'bad'
					? []
					: sights.length > 0
						? [...new Set(sights.flatMap(({ links }) => links))]
						: [one.link]
		};
		if (await sendEntry(caseId, 'inspection', payload)) {
			found = [];
			gapMm = null;
			note = '';
			photos.kept = [];
			onsaved();
		}
	}
</script>

<section class="mt-5" aria-labelledby="look">
	<div class="grid gap-x-8 gap-y-4 md:grid-cols-[minmax(0,1fr)_20rem]">
		<div>
			<h2 id="look" class="text-xl font-bold">{one.name}</h2>
			<p class="mt-1 text-lg">{one.look}</p>
			<p class="mt-1 text-ink-2">{one.why}</p>
			{#if one.gapMm && usualGapMm !== null}<p class="mt-1">
					This vehicle’s usual gap is <span class="num font-semibold">{shown(usualGapMm, 'length', 1)}</span>.
				</p>{/if}
		</div>
		<InspectionDrawing what={one.drawing} label="Where to look: {one.name}" />
	</div>
	{#if one.cautions}<Caution>{one.cautions}</Caution>{/if}
	{#if mayWrite}
		<fieldset class="mt-3">
			<legend class="text-sm text-ink-2">What is to be seen</legend>
			<div class="flex flex-wrap gap-x-6">
				{#each one.sights as { id, words } (id)}
					<label class="flex min-h-11 cursor-pointer items-center gap-2"
						><input
							type="checkbox"
							class="checkbox"
							checked={found.includes(id)}
							onchange={(event) =>
								(found = event.currentTarget.checked
									? [...found, id]
									: found.filter((other) => other !== id))}
						/>
						{words}</label
					>
				{/each}
			</div>
		</fieldset>
		<div class="mt-2 flex flex-wrap items-end gap-3">
			{#if one.gapMm}<div class="w-36">
					<NumberField label="Widest gap" of="length" bind:value={gapMm} min={0} max={20} step="any" />
				</div>{/if}
			<label class="min-w-56 flex-1">
				<span class="text-sm text-ink-2">In a word</span>
				<input class="field" bind:value={note} maxlength="400" />
			</label>
			<PhotoStrip {photos} alt="to be kept with this look" />
		</div>
		{#if gapTooWide}<p class="mt-2 font-semibold">
				Wider than this vehicle’s usual gap: a passive sensor loses its low speeds, an active one everything.
			</p>{/if}
		<div class="mt-3 flex flex-wrap gap-3">
			<Act
				class="act-quiet thumb"
				whyNot={found.length > 0 ? 'Something is ticked.' : null}
				onclick={() => save('good')}><Mark state="good" size={16} /> Nothing wrong</Act
			>
			<Act
				class="{found.length > 0 ? 'act' : 'act-quiet'} thumb"
				whyNot={found.length === 0 && note.trim() === '' ? 'Tick what is bad, or write it.' : null}
				onclick={() => save('bad')}><Mark state="bad" size={16} /> Bad</Act
			>
			<button class="act-quiet thumb" onclick={() => save('unsure')}
				><Mark state="suspect" size={16} /> Not sure</button
			>
		</div>
	{/if}
</section>
