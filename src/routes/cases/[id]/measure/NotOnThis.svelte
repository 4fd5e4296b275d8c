<script lang="ts">
	/** Tests that must not be done on this kind of sensor, and what they would do. */
	let { tests }: { tests: { name: string; can: 'mislead' | 'harm'; why: string }[] } = $props();
</script>

{#if tests.length > 0}
	<section class="mt-6" aria-labelledby="never">
		<h2 id="never" class="text-lg font-bold">Not on this sensor</h2>
		<ul>
			{#each tests as { name, can, why }, nth (nth)}
				<li class="hair py-2">
					<strong>{name}</strong>
					{can === 'harm' ? 'can do damage' : 'misleads'}. <span class="text-ink-2">{why}</span>
				</li>
			{/each}
		</ul>
	</section>
{/if}
