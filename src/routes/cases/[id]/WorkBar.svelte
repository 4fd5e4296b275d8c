<script lang="ts">
	import { getCaseWork } from './caseWork.svelte';

	/** What runs on the vehicle, on every page of the case, with the way to end it. */
	const work = getCaseWork();
	const job = $derived(work.job?.state === 'running' ? work.job : null);
	const recording = $derived(job?.kind === 'record');
	const WORDS = {
		scan: 'The modules are being read',
		find: 'Modules are being searched',
		clear: 'Codes are being cleared',
		key: 'The key is being checked',
		record: 'Live data are being recorded',
		calibrate: 'A module is being taught'
	} as const;
</script>

{#if job}
	<aside
		aria-label="Work that runs"
		class="no-print my-3 flex flex-wrap items-center gap-x-4 gap-y-2 border-y border-rule py-2"
	>
		<p class="flex-1 basis-60">
			<strong>{WORDS[job.kind]}</strong>, by {job.by}. {recording
				? 'It goes on until somebody stops it; all of it is kept.'
				: job.kind === 'scan'
					? `${job.done.length} of ${job.total}.`
					: 'It ends by itself.'}
		</p>
		{#if recording || job.kind === 'scan'}
			<button class="act-quiet" onclick={() => work.cancel()}
				>{recording ? 'Stop and keep' : 'Stop reading'}</button
			>
		{/if}
	</aside>
{:else if work.elsewhere}
	<p class="no-print my-3 border-y border-rule py-2">
		{work.elsewhere.by} is at this vehicle on another case:
		<a class="underline underline-offset-4" href="/cases/{work.elsewhere.caseId}">go there</a> to see what runs,
		and to stop it.
	</p>
{/if}
