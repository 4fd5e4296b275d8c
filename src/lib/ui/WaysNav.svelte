<script lang="ts">
	import { goto } from '$app/navigation';
	import { useKeys } from './keys';

	/** The pages of a station side by side, each with its key. */
	let {
		label,
		ways,
		here,
		hrefOf
	}: {
		label: string;
		ways: readonly { path: string; name: string; key: string }[];
		here: string;
		hrefOf: (path: string) => string;
	} = $props();
	// Which pages there are does not change while the station is open.
	useKeys(
		(() => Object.fromEntries(ways.map(({ path, key }) => [key, () => void goto(hrefOf(path))])))(),
		(() => Object.fromEntries(ways.map(({ key, name }) => [key, name])))()
	);
</script>

<nav class="mt-4 flex flex-wrap gap-x-5 gap-y-1 border-b border-rule" aria-label={label}>
	{#each ways as { path, name, key }, nth (nth)}
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
