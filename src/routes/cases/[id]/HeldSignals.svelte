<script lang="ts">
	import type { PayloadOf } from '$lib/case/entries/entry';
	import { positionWords } from '$lib/case/words';
	import Mark from '$lib/ui/Mark.svelte';
	import { sendEntry } from '$lib/away/record';
	import { refreshCase } from '$lib/ui/refresh';

	/** Said on every page while a signal of ours stands in for a sensor, with the way to say that it is off. */
	let { held, caseId, mayWrite }: { held: PayloadOf<'signal-held'>[]; caseId: string; mayWrite: boolean } =
		$props();
	async function off(one: PayloadOf<'signal-held'>) {
		if (await sendEntry(caseId, 'signal-held', { ...one, on: false })) await refreshCase();
	}
</script>

{#each held as one, nth (nth)}
	<p class="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2 border-l-4 border-ink pl-4">
		<Mark state="suspect" size={18} />
		<span class="min-w-0 flex-1 basis-64"
			><strong
				>A signal of ours stands in for the sensor of {positionWords(one.position).toLowerCase()}.</strong
			>
			What is read there now is no evidence, and no drive counts.
			<a class="underline underline-offset-4" href="/cases/{caseId}/measure/substitute?at={one.position}"
				>Go to it</a
			></span
		>
		{#if mayWrite}<button class="act-quiet" onclick={() => void off(one)}
				>It is off, the sensor plugged in</button
			>{/if}
	</p>
{/each}
