<script lang="ts">
	import Mark from '$lib/ui/Mark.svelte';
	import WaysNav from '$lib/ui/WaysNav.svelte';

	/** Which wheel the bench is about, and the seven ways to work there, each with its key. */
	let {
		data,
		here
	}: {
		data: {
			case: { id: string };
			at: string;
			corners: { position: string; words: string; suspect: boolean }[];
		};
		here: string;
	} = $props();
	const WAYS = [
		{ path: '', name: 'Meter', key: 'm' },
		{ path: '/scope', name: 'Oscilloscope', key: 'o' },
		{ path: '/substitute', name: 'Substitute a signal', key: 's' },
		{ path: '/halve', name: 'Halve the harness', key: 'h' },
		{ path: '/look', name: 'Look', key: 'l' },
		{ path: '/swap', name: 'Swap', key: 'p' },
		{ path: '/provoke', name: 'Provoke', key: 'v' }
	];
	const hrefOf = (path: string) => `/cases/${data.case.id}/measure${path}?at=${data.at}`;
</script>

<nav class="mt-4 flex flex-wrap gap-2" aria-label="Wheel">
	{#each data.corners as { position, words, suspect }, nth (nth)}
		<a
			class="flex min-h-11 items-center gap-2 rounded-md border px-4 {position === data.at
				? 'border-ink bg-neutral text-neutral-content'
				: 'border-ink-2'}"
			aria-current={position === data.at ? 'page' : undefined}
			href="?at={position}"
		>
			{#if suspect}<Mark state="suspect" size={15} />{/if}
			{words}{suspect ? ', suspect' : ''}
		</a>
	{/each}
</nav>
<WaysNav label="At the bench" ways={WAYS} {here} {hrefOf} />
