<script lang="ts">
	import { untrack } from 'svelte';
	import { goto } from '$app/navigation';
	import { refreshCase } from '$lib/ui/refresh';
	import { toast } from 'svelte-sonner';
	import type { LiveVehicle } from '$lib/core/live/analyse';
	import DropZone from '$lib/ui/DropZone.svelte';
	import Columns from './Columns.svelte';
	import Frames from './Frames.svelte';
	import { Importer } from './importer.svelte';

	/** Live data from a file of another tool: chosen or dropped, its columns asked about only where they are not clear. */
	let {
		caseId,
		vehicle,
		wheels,
		channels
	}: {
		caseId: string;
		vehicle: LiveVehicle;
		/** Channels of its wheels, with what people call them. */
		wheels: { signal: string; name: string }[];
		channels: { signal: string; name: string }[];
	} = $props();
	const importer = untrack(
		() =>
			new Importer(
				caseId,
				vehicle,
				wheels.map(({ signal }) => signal)
			)
	);
	let name = $state('');

	async function save() {
		const id = await importer.save(name);
		if (!id) return;
		toast.success('The recording is on the thread.');
		await refreshCase();
		await goto(`/cases/${caseId}/watch/${id}`);
	}
</script>

<DropZone
	label="From a file"
	chooserLabel="File of live data"
	accept=".csv,.txt,.tsv,.log,.gz,text/csv"
	class="mt-8"
	busy={importer.step === 'looking' || importer.step === 'saving'}
	onfile={(file) => void importer.take(file)}
>
	{#snippet children(choose)}
		<h2 class="text-lg font-bold">From a file</h2>
		<div class="mt-1 flex flex-wrap items-center gap-4">
			<button class="act-quiet" disabled={importer.step === 'looking'} onclick={choose}>Choose a file</button>
			<p class="text-ink-2">
				or drop it here: CSV with the time in one column and a signal in each other, or a frame log
			</p>
		</div>
		{#if importer.trouble}<p role="alert" class="mt-3 border-l-4 border-ink pl-3 font-semibold">
				{importer.trouble}
			</p>{/if}
		{#if importer.step === 'looking'}<p class="mt-3 text-ink-2">Looking through {importer.fileName} …</p>{/if}
		{#if importer.step === 'columns'}<Columns {importer} {wheels} {channels} />{/if}
		{#if importer.step === 'frames'}<Frames {importer} {channels} />{/if}
		{#if importer.step === 'read' || importer.step === 'saving'}
			{@const read = importer.result}
			{#if read}
				<div class="mt-3">
					<p class="text-lg font-semibold">{read.analysis.verdict}</p>
					<p class="text-ink-2">
						{importer.fileName}: <span class="num">{read.rows.toLocaleString('en-GB')}</span> readings over
						<span class="num">{read.analysis.durationS.toFixed(1)}</span> s,
						<span class="num">{read.analysis.rateHz.toFixed(1)}</span>
						a second;
						{read.analysis.channels.map((channel) => channel.replaceAll('_', ' ')).join(', ')}
					</p>
					{#each read.analysis.notes as { text, wheelsIn }, nth (nth)}
						<div class="mt-1 flex flex-wrap items-center gap-x-4 border-l-4 border-suspect-mark pl-3">
							<p>{text}</p>
							{#if wheelsIn && !importer.frames}
								<button class="act-quiet" onclick={() => importer.readWheelsIn(wheelsIn)}
									>Read the wheels in {wheelsIn}</button
								>
							{/if}
						</div>
					{/each}
					{#if read.problems.length > 0}
						<details class="mt-2">
							<summary class="min-h-11 cursor-pointer py-2">
								{read.problems.length === 1
									? 'One row is not as the others'
									: `${read.problems.length}${read.problems.length >= 100 ? ' or more' : ''} rows are not as the others`}
							</summary>
							<ul class="num text-sm">
								{#each read.problems as { line, reason }, nth (nth)}<li>line {line}: {reason}</li>{/each}
							</ul>
						</details>
					{/if}
					<div class="mt-3 flex flex-wrap items-end gap-3">
						<label class="min-w-60 flex-1">
							<span class="text-sm text-ink-2">What for, in a word</span>
							<input class="field" bind:value={name} maxlength="120" />
						</label>
						<button class="act" disabled={importer.step === 'saving'} onclick={save}
							>Put it on the thread</button
						>
						<button class="act-quiet" onclick={() => importer.askAgain()}
							>{importer.frames ? 'Look at the frames' : 'Look at the columns'}</button
						>
						<button class="act-quiet" onclick={() => importer.giveUp()}>Leave it</button>
					</div>
					{#if importer.remembered}<p class="mt-2 text-ink-2">
							Its columns are taken as somebody here told before.
						</p>{/if}
				</div>
			{/if}
		{/if}
	{/snippet}
</DropZone>
