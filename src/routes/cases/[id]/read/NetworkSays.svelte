<script lang="ts">
	import type { NetworkFinding } from '$lib/case/codes/networkFinding';

	/** What silences and answers say together. */
	let { findings }: { findings: NetworkFinding[] } = $props();
</script>

{#if findings.length > 0}
	<section id="network" class="mt-5 border-y-2 border-ink py-3" aria-label="What the network says">
		{#each findings as { title, todo, text }, nth (nth)}
			<div class="py-1">
				<h2 class="text-lg font-bold">{title}</h2>
				<p><strong>{todo}</strong> {text}</p>
			</div>
		{/each}
	</section>
{/if}
