<script lang="ts">
	import { refreshCase } from '$lib/ui/refresh';
	import { onMount } from 'svelte';
	import { toast } from 'svelte-sonner';
	import { ulid } from 'ulid';
	import { isFrameLog } from '$lib/core/bus/isFrameLog';
	import OfferFile from '$lib/ui/OfferFile.svelte';
	import type { PayloadOf } from '$lib/case/entries/entry';
	import { sendEntry } from '$lib/away/record';
	import { sendLog } from './sendLog';
	import LogPreview from './LogPreview.svelte';
	import PastePreview from './PastePreview.svelte';
	import { takeFile, takeLog, takeText, type TakenIn } from './takeIn';

	/** Codes from elsewhere: paste or drop anything; it is looked through, shown, and saved only when confirmed. */
	let { caseId }: { caseId: string } = $props();
	let text = $state('');
	let taken = $state<TakenIn | null>(null);
	let progress = $state<number | null>(null);
	let saving = $state(false);
	/** Made when something is taken in and kept for the retry: a lost answer cannot store it twice. */
	let id = ulid();

	const draftKey = $derived(`jaldi:draft:${caseId}:elsewhere`);
	let restored = $state(false);
	onMount(() => {
		text ||= sessionStorage.getItem(draftKey) ?? '';
		restored = true;
	});
	// What was pasted outlives a reload or a dead battery of the page, until it is saved or dropped.
	$effect(() => {
		if (!restored) return;
		try {
			if (text) sessionStorage.setItem(draftKey, text);
			else sessionStorage.removeItem(draftKey);
		} catch {
			// Too long for the browser's store: it is still in the box.
		}
	});

	async function look(work: () => TakenIn | Promise<TakenIn>) {
		taken = null;
		id = ulid();
		progress = 0;
		try {
			taken = await work();
		} catch {
			toast.error('It could not be read. It is still where it was.');
		} finally {
			progress = null;
		}
	}
	const fromText = (whole: string, name: string) =>
		look(() =>
			isFrameLog(whole)
				? takeLog(new File([whole], 'pasted log'), (share) => (progress = share))
				: takeText(whole, name)
		);
	const fromFile = (file: File) => look(() => takeFile(file, (share) => (progress = share)));
	function drop() {
		taken = null;
		text = '';
	}
	/** The log goes first: an entry that speaks of it finds it there. */
	async function saveLog(log: PayloadOf<'frame-log'>, packed: Uint8Array<ArrayBuffer> | null) {
		saving = true;
		const sent = packed === null ? 'kept' : await sendLog(caseId, id, packed);
		saving = false;
		if (sent === 'failed') return;
		if (sent === 'kept') return save('frame-log', log);
		toast.info('The log is larger than this server keeps: what it told is saved, the log itself is not.');
		const { kept: _, ...told } = log;
		await save('frame-log', told);
	}
	async function save<K extends 'codes-reported' | 'frame-log'>(kind: K, payload: PayloadOf<K>) {
		saving = true;
		const done = await sendEntry(caseId, kind, payload, id);
		saving = false;
		if (!done) return;
		if (done === 'stored') toast.success('Saved on the thread.');
		drop();
		await refreshCase();
	}
</script>

<section id="elsewhere" class="mt-8 border-t-2 border-ink pt-4" aria-labelledby="elsewhere-title">
	<h2 id="elsewhere-title" class="text-lg font-bold">Codes from elsewhere</h2>
	<p class="mt-1 text-ink-2">
		A print-out, an e-mail, a column of codes, or a log of the bus: paste it, or drop the file. Nothing is
		saved before you have seen what was understood.
	</p>
	<OfferFile
		label="Text or file with codes"
		hint="Paste here"
		bind:text
		ontext={fromText}
		onfile={fromFile}
		busy={progress !== null || saving}
	/>
	<div aria-live="polite">
		{#if progress !== null}
			<p class="mt-3">Reading it, <span class="num">{Math.round(progress * 100)} %</span></p>
		{:else if taken?.kind === 'refused'}
			<p role="alert" class="mt-3 border-l-4 border-ink pl-3">
				<strong>Not taken{taken.name ? `: ${taken.name}` : ''}.</strong>
				{taken.why} Nothing was saved.
			</p>
		{:else if taken?.kind === 'text'}
			<PastePreview
				text={taken.text}
				name={taken.name}
				{saving}
				onsave={(payload) => save('codes-reported', payload)}
				ondrop={drop}
			/>
		{:else if taken?.kind === 'log'}
			{@const { log, packed } = taken}
			<LogPreview {log} {saving} onsave={() => saveLog(log, packed)} ondrop={drop} />
		{/if}
	</div>
</section>
