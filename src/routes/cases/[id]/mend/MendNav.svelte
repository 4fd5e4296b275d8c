<script lang="ts">
	import { goto } from '$app/navigation';
	import { useKeys } from '$lib/ui/keys';

	/** What there is to do at this station, each with its key. */
	let { caseId, here }: { caseId: string; here: string } = $props();
	const WAYS = [
		{ path: '/plan', name: 'Before it begins', key: 'b' },
		{ path: '/fit', name: 'Fit', key: 'i' },
		{ path: '', name: 'Repair', key: 'm' },
		{ path: '/calibrate', name: 'Calibrate', key: 'c' }
	];
	const hrefOf = (path: string) => `/cases/${caseId}/mend${path}`;
	useKeys(Object.fromEntries(WAYS.map(({ path, key }) => [key, () => void goto(hrefOf(path))])));
</script>

<nav class="mt-4 flex flex-wrap gap-x-6 gap-y-1 border-b border-rule" aria-label="Mending">
	{#each WAYS as { path, name, key } (path)}
		<a
			class="flex min-h-11 items-center gap-2 border-b-3 {path === here
				? 'border-ink font-bold'
				: 'border-transparent text-ink-2 hover:text-ink'}"
			aria-current={path === here ? 'page' : undefined}
			href={hrefOf(path)}
			>{name}{#if path !== here}<span class="key">{key}</span>{/if}</a
		>
	{/each}
</nav>
