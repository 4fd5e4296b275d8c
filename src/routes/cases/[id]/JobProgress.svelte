<script lang="ts">
	import type { JobStatus } from '$lib/case/progress/jobStatus';
	import Mark from '$lib/ui/Mark.svelte';
	import { getCaseWork } from './caseWork.svelte';

	/** Work on the vehicle as it goes: module by module along the line, then what came of it. */
	let { kinds }: { kinds: JobStatus['kind'][] } = $props();
	const work = getCaseWork();
	const job = $derived(work.job && kinds.includes(work.job.kind) ? work.job : null);
</script>

<div aria-live="polite">
	{#if work.refusal}
		<p role="alert" class="my-3 border-l-4 border-ink pl-3 font-semibold">{work.refusal}</p>
	{/if}
	{#if job?.state === 'running' && job.kind !== 'record'}
		<div class="my-3 flex flex-wrap items-center gap-x-4 gap-y-2">
			<p class="font-semibold">
				{#if job.kind === 'calibrate'}{job.now ? `Now: ${job.now}` : 'Connecting'}{:else}{job.now
						? `Asking ${job.now}`
						: 'Connecting'} · {job.done.length}{job.total > 0 ? ` of ${job.total}` : ' so far'}{/if}
			</p>
			{#if job.kind === 'scan' || job.kind === 'find'}<button class="act-quiet" onclick={() => work.cancel()}
					>Cancel</button
				>{/if}
			{#if job.kind !== 'calibrate'}<ol class="flex w-full flex-wrap gap-x-5 gap-y-1">
					{#each job.done as { name, note }, nth (nth)}
						<li class="flex items-center gap-2">
							<Mark state={note === 'silent' ? 'suspect' : 'good'} size={16} />
							{name}: {note}
						</li>
					{/each}
				</ol>{/if}
		</div>
	{:else if job && job.outcome}
		<p class="my-3 {job.state === 'failed' ? 'border-l-4 border-ink pl-3 font-semibold' : 'text-ink-2'}">
			{job.outcome}
		</p>
	{/if}
</div>
