<script lang="ts">
	import { invalidate } from '$app/navigation';
	import Caution from '$lib/ui/Caution.svelte';
	import InspectionDrawing from '$lib/ui/InspectionDrawing.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import NumberField from '$lib/ui/NumberField.svelte';
	import { upperFirst } from '$lib/case/words';
	import type { InspectionDone } from '$lib/case/measurePayloads';
	import { sendEntry } from '../../../../decoderClient';
	import BenchLinks from '../BenchLinks.svelte';
	import { useBenchKeys } from '../benchKeys';
	import Corners from '../Corners.svelte';
	import { PhotoBox } from './photos.svelte';

	let { data } = $props();
	let picked = $state<string | null>(null);
	let found = $state<string[]>([]);
	let gapMm = $state<number | null>(null);
	let note = $state('');
	const photos = new PhotoBox(() => data.case.id);
	const mayWrite = $derived(data.canWrite && !data.case.signed);
	const one = $derived(
		data.inspections.find(({ id }) => id === picked) ??
			data.inspections.find(({ last }) => !last) ??
			data.inspections[0]
	);
	const STATE = { good: 'good', bad: 'bad', unsure: 'suspect' } as const;
	const bad = $derived(data.inspections.filter(({ last }) => last?.result === 'bad'));
	const looked = $derived(data.inspections.filter(({ last }) => last).length);
	const where = $derived(upperFirst(data.atWords));
	const headline = $derived(
		bad.length > 0
			? `${where}: ${bad.map(({ name, last }) => `${name.toLowerCase()}, ${last?.found.join(', ')}`).join('; ')}`
			: looked === 0
				? `${where}: nothing looked at yet`
				: `${where}: ${looked} of ${data.inspections.length} looked at, nothing bad`
	);
	/** Beyond this the maker's usual gap is exceeded so far that it is told. */
	const GAP_ROOM_MM = 0.4;
	const gapTooWide = $derived(gapMm !== null && data.gapMm !== null && gapMm > data.gapMm + GAP_ROOM_MM);
	const pick = (id: string | null) => {
		picked = id;
		found = [];
		gapMm = null;
		note = '';
		photos.kept = [];
	};

	async function save(result: 'good' | 'bad' | 'unsure') {
		if (!one) return;
		const seen = result === 'good' ? [] : $state.snapshot(found);
		const payload: InspectionDone = {
			position: data.at,
			inspection: one.id,
			name: one.name,
			result,
			found: seen.length === 0 && result === 'bad' ? [note.trim() || 'bad'] : seen,
			gapMm: one.gapMm ? gapMm : null,
			note: note.trim(),
			photos: $state.snapshot(photos.kept),
			says:
				result === 'good'
					? `${one.name}: nothing wrong to be seen.`
					: `${one.name}: ${seen.join(', ') || note.trim() || (result === 'bad' ? 'bad' : 'not sure')}.`,
			proves: [],
			implicates: result === 'bad' ? [one.link] : []
		};
		if (await sendEntry(data.case.id, 'inspection', payload)) {
			pick(null);
			await invalidate('jaldi:case');
		}
	}
	useBenchKeys(() => ({ caseId: data.case.id, at: data.at }));
</script>

<svelte:head><title>{data.case.number} Look · Jaldi</title></svelte:head>
<section class="pt-5">
	<h1 class="text-2xl leading-tight font-bold">{headline}</h1>
	<div class="mt-4">
		<Corners corners={data.corners} at={data.at} href={(position) => `?at=${position}`} />
	</div>
	<BenchLinks caseId={data.case.id} at={data.at} here="/look" />
</section>

{#if one}
	<section class="mt-5" aria-labelledby="look">
		<div class="grid gap-x-8 gap-y-4 md:grid-cols-[minmax(0,1fr)_20rem]">
			<div>
				<h2 id="look" class="text-xl font-bold">{one.name}</h2>
				<p class="mt-1 text-lg">{one.look}</p>
				<p class="mt-1 text-ink-2">{one.why}</p>
				{#if one.gapMm && data.gapMm !== null}<p class="mt-1">
						This vehicle’s usual gap is <span class="num font-semibold">{data.gapMm.toFixed(1)} mm</span>.
					</p>{/if}
			</div>
			<InspectionDrawing what={one.drawing} label="Where to look: {one.name}" />
		</div>
		{#if one.cautions.length > 0}<Caution>{one.cautions.join(' ')}</Caution>{/if}
		{#if mayWrite}
			<fieldset class="mt-3">
				<legend class="text-sm text-ink-2">What is to be seen</legend>
				<div class="flex flex-wrap gap-x-6">
					{#each one.bad as words (words)}
						<label class="flex min-h-11 cursor-pointer items-center gap-2"
							><input
								type="checkbox"
								class="checkbox"
								checked={found.includes(words)}
								onchange={(event) =>
									(found = event.currentTarget.checked
										? [...found, words]
										: found.filter((one) => one !== words))}
							/>
							{words}</label
						>
					{/each}
				</div>
			</fieldset>
			<div class="mt-2 flex flex-wrap items-end gap-3">
				{#if one.gapMm}<div class="w-36">
						<NumberField label="Widest gap, mm" bind:value={gapMm} min={0} max={20} step="any" />
					</div>{/if}
				<label class="min-w-56 flex-1">
					<span class="text-sm text-ink-2">In a word</span>
					<input class="field" bind:value={note} maxlength="400" />
				</label>
				<label class="act-quiet">
					{photos.sending > 0 ? 'Sending …' : 'Add photos'}
					<input
						type="file"
						class="sr-only"
						accept="image/*"
						capture="environment"
						multiple
						onchange={(event) => {
							const { files } = event.currentTarget;
							if (files) void photos.add(Array.from(files));
							event.currentTarget.value = '';
						}}
					/>
				</label>
			</div>
			{#if gapTooWide}<p class="mt-2 font-semibold">
					Wider than this vehicle’s usual gap: a passive sensor loses its low speeds, an active one
					everything.
				</p>{/if}
			{#if photos.trouble}<p class="mt-2 font-semibold" role="alert">{photos.trouble}</p>{/if}
			{#if photos.kept.length > 0}
				<ul class="mt-2 flex flex-wrap gap-2">
					{#each photos.kept as { id } (id)}
						<li>
							<img
								class="h-24 w-32 object-cover"
								src="/cases/{data.case.id}/measure/photo/{id}"
								alt="to be kept with this look"
							/>
							<button class="text-sm underline" onclick={() => photos.drop(id)}>leave out</button>
						</li>
					{/each}
				</ul>
			{/if}
			<div class="mt-3 flex flex-wrap gap-3">
				<button class="act-quiet" disabled={found.length > 0} onclick={() => save('good')}
					><Mark state="good" size={16} /> Nothing wrong</button
				>
				<button
					class={found.length > 0 ? 'act' : 'act-quiet'}
					disabled={found.length === 0 && note.trim() === ''}
					onclick={() => save('bad')}><Mark state="bad" size={16} /> Bad</button
				>
				<button class="act-quiet" onclick={() => save('unsure')}
					><Mark state="suspect" size={16} /> Not sure</button
				>
			</div>
		{/if}
	</section>
{/if}

<section class="mt-6" aria-labelledby="list">
	<h2 id="list" class="text-lg font-bold">Everything worth a look here</h2>
	<ul>
		{#each data.inspections as each (each.id)}
			<li class="hair">
				<button
					class="grid min-h-12 w-full cursor-pointer grid-cols-[1.75rem_minmax(0,1fr)_auto] items-center gap-3 py-1 text-left"
					onclick={() => pick(each.id)}
				>
					<Mark state={each.last ? STATE[each.last.result] : 'open'} size={18} />
					<span class={each.id === one?.id ? 'font-bold' : ''}
						>{each.name}{#if each.last}<span class="font-normal text-ink-2"
								>, {each.last.found.join(', ') ||
									(each.last.result === 'good' ? 'nothing wrong' : 'not sure')}{each.last.gapMm === null
									? ''
									: `, ${each.last.gapMm} mm`}</span
							>{/if}</span
					>
					<span class="num text-ink-2">{each.last ? each.last.time : `${each.minutes} min`}</span>
				</button>
				{#if each.last && each.last.photos.length > 0}
					<div class="flex flex-wrap gap-2 pb-2 pl-10">
						{#each each.last.photos as { id } (id)}
							<a href="/cases/{data.case.id}/measure/photo/{id}"
								><img
									class="h-20 w-28 object-cover"
									src="/cases/{data.case.id}/measure/photo/{id}"
									alt="{each.name}, as it was seen"
									loading="lazy"
								/></a
							>
						{/each}
					</div>
				{/if}
			</li>
		{/each}
	</ul>
</section>
