<script lang="ts">
	/** The five ways to work at the bench, for one wheel. */
	let { caseId, at, here }: { caseId: string; at: string; here: string } = $props();
	const PLACES = [
		{ path: '', name: 'Meter', key: 'm' },
		{ path: '/scope', name: 'Oscilloscope', key: 'o' },
		{ path: '/substitute', name: 'Substitute a signal', key: 's' },
		{ path: '/halve', name: 'Halve the harness', key: 'h' },
		{ path: '/look', name: 'Look', key: 'l' }
	];
</script>

<nav class="mt-4 flex flex-wrap gap-x-6 gap-y-1 border-b border-rule" aria-label="At the bench">
	{#each PLACES as { path, name, key } (path)}
		<a
			class="flex min-h-11 items-center gap-2 border-b-3 {path === here
				? 'border-ink font-bold'
				: 'border-transparent text-ink-2 hover:text-ink'}"
			aria-current={path === here ? 'page' : undefined}
			href="/cases/{caseId}/measure{path}?at={at}"
			>{name}{#if path !== here}<span class="key">{key}</span>{/if}</a
		>
	{/each}
</nav>
