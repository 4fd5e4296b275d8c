<script lang="ts">
	import { upperFirst } from '$lib/case/words';

	/** A status byte in plain words; its bits are a click away. */
	let {
		status,
		state
	}: { status: { byte: string; bits: { words: string; set: boolean }[] }; state: string } = $props();
	const set = $derived(status.bits.filter((bit) => bit.set));
</script>

<section class="mt-5" aria-labelledby="status">
	<h2 id="status" class="text-lg font-bold">
		Status <span class="num font-normal">{status.byte}</span>: {state}
	</h2>
	<p class="mt-1 text-lg">
		{set.length === 0 ? 'No bit is set.' : `${upperFirst(set.map((bit) => bit.words).join('; '))}.`}
	</p>
	<details>
		<summary
			class="inline-flex min-h-11 cursor-pointer items-center text-sm text-ink-2 underline underline-offset-4"
			>Bit by bit</summary
		>
		<ol class="text-sm" start="0">
			{#each status.bits as { words, set: on }, bit (bit)}
				<li class="grid grid-cols-[2rem_2.5rem_1fr] {on ? 'font-semibold' : 'text-ink-2'}">
					<span class="num">{bit}</span><span>{on ? 'yes' : 'no'}</span><span>{words}</span>
				</li>
			{/each}
		</ol>
	</details>
</section>
