<script lang="ts">
	import { untrack } from 'svelte';
	import { WAITS_FOR } from '$lib/case/entries/waiting/payload';
	import type { PayloadOf } from '$lib/case/entries/entry';
	import { sendEntry } from '$lib/away/record';

	/** What keeps the work from going on, and where the vehicle stands: the floor shows it. */
	let {
		waiting,
		caseId,
		onsaved
	}: { waiting: PayloadOf<'waiting'> | null; caseId: string; onsaved: () => void } = $props();
	let what = $state<PayloadOf<'waiting'>['what']>(untrack(() => waiting?.what ?? 'nothing'));
	let lift = $state(untrack(() => waiting?.lift ?? ''));
	let note = $state('');
	const words = $derived(
		!waiting || waiting.what === 'nothing'
			? 'The work waits for nothing'
			: `The work waits for ${waiting.what}`
	);
	async function save() {
		if (await sendEntry(caseId, 'waiting', { what, lift: lift.trim(), note: note.trim() })) {
			note = '';
			onsaved();
		}
	}
</script>

<section class="mt-6 border-t border-rule pt-4" aria-labelledby="waits">
	<h2 id="waits" class="text-lg font-bold">{words}{waiting?.lift ? `; it stands at ${waiting.lift}` : ''}</h2>
	<div class="mt-1 grid items-end gap-3 sm:grid-cols-[1fr_1fr_2fr_auto]">
		<label
			><span class="text-ink-2">Waits for</span><select class="field" bind:value={what}
				>{#each WAITS_FOR as one (one)}<option value={one}>{one}</option>{/each}</select
			></label
		>
		<label
			><span class="text-ink-2">Stands at</span><input
				class="field"
				bind:value={lift}
				maxlength="60"
				placeholder="lift 2"
			/></label
		>
		<label
			><span class="text-ink-2">Note</span><input
				class="field"
				bind:value={note}
				maxlength="300"
				placeholder="when the part comes, who helps"
			/></label
		>
		<button class="act-quiet" onclick={() => void save()}>Put it on the floor</button>
	</div>
</section>
