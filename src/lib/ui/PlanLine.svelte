<script lang="ts">
	import { refreshCase } from './refresh';
	import WhoWhen, { type Planned } from './WhoWhen.svelte';

	/** What is planned of a case, in a line, and the way to change it. */
	let {
		planned,
		people,
		closesAtHour,
		canWrite
	}: {
		/** The promise as the shop’s clock says it. */
		planned: Planned & { promiseWords: string | null };
		people: { id: string; name: string }[];
		closesAtHour: number;
		canWrite: boolean;
	} = $props();
	let planner = $state<WhoWhen>();
	const { promise, promiseWords, assigned, waiting } = $derived(planned);
	const words = $derived(
		[
			!promise
				? 'Nothing promised'
				: promise.due
					? `Promised for ${promiseWords}`
					: `Promised: ${promiseWords}`,
			assigned ? `${assigned.name} has it` : 'nobody has it yet',
			...(waiting && waiting.what !== 'nothing'
				? [`waits for ${waiting.what}${waiting.note ? ` (${waiting.note})` : ''}`]
				: []),
			...(waiting?.lift ? [waiting.lift] : [])
		].join('; ')
	);
</script>

<section aria-label="What is planned" class="flex flex-wrap items-center gap-x-5 border-b border-rule py-2">
	<p class="min-w-0 flex-1 basis-60">{words}</p>
	{#if canWrite}
		<button
			type="button"
			class="min-h-11 cursor-pointer underline underline-offset-4"
			onclick={() => planner?.open(planned)}>Plan</button
		>
		<WhoWhen bind:this={planner} {people} {closesAtHour} onsaved={() => void refreshCase()} />
	{/if}
</section>
