<script lang="ts">
	/** What a record was before each change, by whom it was changed; what did not change is not said again. */
	let {
		past,
		now,
		names
	}: {
		/** The newest first. */
		past: { was: Record<string, string | null>; by: string; at: string }[];
		now: Record<string, unknown>;
		/** What each field is called. */
		names: Record<string, string>;
	} = $props();
	const changes = $derived(
		past.map(({ was, by, at }, nth) => {
			const then: Record<string, unknown> = nth === 0 ? now : (past[nth - 1]?.was ?? {});
			const changed = Object.entries(names).flatMap(([field, name]) =>
				(was[field] ?? '') === (then[field] ?? '')
					? []
					: [`${name}: ${was[field] || 'nothing'} → ${then[field] || 'nothing'}`]
			);
			return { by, at, changed };
		})
	);
</script>

{#if changes.length > 0}
	<details class="mt-6 max-w-3xl">
		<summary class="inline-flex min-h-11 cursor-pointer items-center underline underline-offset-4"
			>Changed {changes.length === 1 ? 'once' : `${changes.length} times`}</summary
		>
		<ul>
			{#each changes as { by, at, changed }, nth (nth)}
				<li class="hair py-2">
					<span class="num">{at}</span>, {by}: {changed.join('; ')}
				</li>
			{/each}
		</ul>
	</details>
{/if}
