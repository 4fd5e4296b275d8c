<script lang="ts">
	import { onDestroy } from 'svelte';
	import { toast } from 'svelte-sonner';
	import { ulid } from 'ulid';
	import { outbox } from '$lib/away/outbox.svelte';
	import { channelOf, Position, positionOf } from '$library/positions';
	import { goto } from '$app/navigation';
	import type { FileLooked } from '../../../../../workers/scope.worker';
	import DropZone from '$lib/ui/DropZone.svelte';
	import NumberField from '$lib/ui/NumberField.svelte';
	import OneOf from '$lib/ui/OneOf.svelte';
	import { startScopeWorker } from './scopeWorker';

	/** Brings in a capture of another instrument: read and analysed here, kept once it is what one wanted. */
	let {
		caseId,
		corners,
		teeth
	}: { caseId: string; corners: { position: string; words: string }[]; teeth: number | null } = $props();
	const PLACES = ['at the module', 'at the sensor', 'elsewhere'] as const;
	const AT = { 'at the module': 'module', 'at the sensor': 'sensor', elsewhere: 'elsewhere' } as const;
	const KEY = 'file';
	/** Started with the first file: there is none on the server. */
	let worker: ReturnType<typeof startScopeWorker> | null = null;
	const remote = () => (worker ??= startScopeWorker()).remote;
	onDestroy(() => worker?.end());
	let file = $state.raw<File | null>(null);
	let looked = $state.raw<FileLooked | null>(null);
	let trouble = $state<string | null>(null);
	let busy = $state<string | null>(null);
	let fullScaleV = $state<number | null>(10);
	let place = $state<(typeof PLACES)[number]>('at the module');
	let positions = $state<string[]>([]);
	let good = $state(false);
	let turned = $state(false);
	const isSound = $derived(/\.wav$/i.test(file?.name ?? ''));

	async function look(chosen: File) {
		file = chosen;
		looked = null;
		trouble = null;
		busy = `Reading ${chosen.name} …`;
		const read = await remote().read(KEY, chosen, fullScaleV ?? 1, teeth);
		busy = null;
		if ('error' in read) {
			trouble = `${chosen.name} cannot be taken in. ${read.error}. Nothing was kept.`;
			return;
		}
		looked = read;
		positions = read.shape.channels.map(({ name }) => {
			const wanted = positionOf(name);
			return corners.find(({ position }) => position === wanted)?.position ?? '';
		});
	}
	async function keep() {
		if (!looked || !file) return;
		busy = 'Keeping it …';
		const id = ulid();
		const about = JSON.stringify({
			id,
			name: '',
			fileName: file.name.slice(0, 300),
			bytes: looked.bytes,
			at: AT[place],
			teeth,
			positions: positions.map((position) => position || null),
			knownGood: good,
			turned
		});
		const names = looked.shape.channels.map(({ name }, i) => {
			const position = Position.safeParse(positions[i]);
			return position.success ? channelOf(position.data) : name;
		});
		try {
			const body = await remote().packed(KEY, about, names);
			const sent = await outbox.record({
				id,
				caseId,
				what: `Capture ${file.name}`,
				path: `/cases/${caseId}/measure/scope/import`,
				type: 'application/octet-stream',
				body
			});
			if (sent.state === 'arrived') {
				await goto(`/cases/${caseId}/measure/scope/${id}`);
				return;
			}
			if (sent.state === 'refused') trouble = `${sent.why} The file is still here: try again.`;
			else {
				looked = file = null;
				toast.info(outbox.keptWords);
			}
		} catch {
			trouble = 'It cannot be put together for the server. The file is still here: try again.';
		}
		busy = null;
	}
</script>

<DropZone
	label="A capture of another instrument"
	chooserLabel="File of a capture"
	accept=".csv,.txt,.gz,.wav"
	busy={busy !== null}
	class="hair py-3"
	onfile={(chosen) => void look(chosen)}
>
	{#snippet children(choose)}
		<p>
			<strong>Bring in a capture</strong>
			<span class="text-ink-2"
				>of another instrument: CSV with time first and one voltage a column, plain or packed (.gz), or a
				sound file (.wav). Drop it here, or</span
			>
			<button class="act-quiet ml-1" disabled={busy !== null} onclick={choose}>choose a file</button>
		</p>
	{/snippet}
</DropZone>
<div aria-live="polite">
	{#if busy}<p class="mt-2 text-ink-2">{busy}</p>{/if}
	{#if trouble}<p class="mt-2 font-semibold" role="alert">{trouble}</p>{/if}
</div>
{#if isSound && file}
	<div class="mt-3 flex items-end gap-3">
		<div class="w-44">
			<NumberField label="Volts at full scale" bind:value={fullScaleV} min={0.01} max={1000} step="any" />
		</div>
		<button class="act-quiet" onclick={() => file && look(file)}>Read again</button>
	</div>
{/if}
{#if looked}
	<section class="mt-4 border-l-4 border-ink pl-4" aria-label="What is in the file">
		<p class="text-lg"><strong>{looked.analysis.verdict}</strong></p>
		<p class="text-ink-2">
			<span class="num">{looked.shape.durationS.toFixed(3)}</span> s ·
			<span class="num">{(looked.shape.rateHz / 1000).toFixed(1)}</span> thousand samples a second
			{#if looked.problems.length > 0}· {looked.problems.length} rows with trouble, the first in line {looked
					.problems[0]?.line}: {looked.problems[0]?.reason}{/if}
		</p>
		{#each looked.shape.channels as channel, i (i)}
			<label class="mt-2 flex flex-wrap items-center gap-3">
				<span class="min-w-40 font-semibold">{channel.name.replaceAll('_', ' ')}</span>
				<select class="field w-auto!" bind:value={positions[i]}>
					<option value="">no wheel</option>
					{#each corners as { position, words }, nth (nth)}<option value={position}>{words}</option>{/each}
				</select>
				<span class="text-ink-2"
					>{looked.analysis.channels[i]?.findings.map(({ text }) => text).join(' ')}</span
				>
			</label>
		{/each}
		<div class="mt-3 flex flex-wrap items-end gap-3">
			<OneOf label="Where the tips were" name="place-file" options={PLACES} bind:value={place} />
			<button class="act" disabled={busy !== null} onclick={keep}>Keep it on the case</button>
		</div>
		<label class="flex min-h-11 cursor-pointer items-center gap-2"
			><input type="checkbox" class="checkbox" bind:checked={turned} /> The wheels turned while it was taken</label
		>
		<label class="flex min-h-11 cursor-pointer items-center gap-2"
			><input type="checkbox" class="checkbox" bind:checked={good} /> From a vehicle without a fault: keep as the
			shop’s reference for this type</label
		>
	</section>
{/if}
