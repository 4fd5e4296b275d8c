<script lang="ts">
	import Chain from './Chain.svelte';
	import Sideways from './Sideways.svelte';

	/** The links of a signal path, dotted since a code proves none of them; those that the code names are marked. */
	let { links, named }: { links: readonly string[]; named: readonly number[] } = $props();
	const marks = $derived(
		links.map((word, i) => ({
			state: named.includes(i) ? ('suspect' as const) : ('open' as const),
			word,
			says: `${word}, ${named.includes(i) ? 'named by the code' : 'not tested'}`
		}))
	);
</script>

<Sideways label="The path of the signal" class="pb-1"
	><Chain links={marks} step={links.length > 8 ? 75 : 93} size={20} /></Sideways
>
