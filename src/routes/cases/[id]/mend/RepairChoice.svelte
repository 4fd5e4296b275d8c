<script lang="ts">
	import { offeredFor, works } from '$library/vocabulary';

	/** What a repair is in the library's words, and where: only that counts in what is believed. */
	let {
		kinds,
		typed,
		position,
		does = $bindable()
	}: {
		kinds: { id: string; words: string; places: { id: string; words: string }[] }[];
		/** Words at which a repair is offered. */
		typed: string;
		/** The wheel that was chosen; empty = none. */
		position: string;
		/** `clean-encoder@rear-left`; empty = none of these. */
		does: string;
	} = $props();
	const chosen = $derived(does.split('@')[0] ?? '');
	const place = $derived(does.split('@')[1] ?? '');
	const places = $derived(kinds.find(({ id }) => id === chosen)?.places ?? []);
	const offers = $derived(
		does !== ''
			? []
			: offeredFor(works, typed, [])
					.flatMap(({ repair }) => kinds.find(({ id }) => id === repair) ?? [])
					.slice(0, 2)
	);
	function choose(kind: string) {
		const at = kinds.find(({ id }) => id === kind)?.places ?? [];
		const first = at.find(({ id }) => id === position) ?? at[0];
		does = first ? `${kind}@${first.id}` : '';
	}
</script>

<div class="grid gap-4 sm:grid-cols-[2fr_1fr]">
	<label class="block"
		><span class="mb-1 block font-semibold">In the library’s words</span>
		<select class="field" value={chosen} onchange={(event) => choose(event.currentTarget.value)}>
			<option value="">none of these: it tells Reason nothing</option>
			{#each kinds as { id, words } (id)}<option value={id}>{words}</option>{/each}
		</select></label
	>
	{#if places.length > 1}
		<label class="block"
			><span class="mb-1 block font-semibold">At</span>
			<select
				class="field"
				value={place}
				onchange={(event) => (does = `${chosen}@${event.currentTarget.value}`)}
			>
				{#each places as { id, words } (id)}<option value={id}>{words}</option>{/each}
			</select></label
		>
	{/if}
</div>
{#if offers.length > 0}
	<p class="flex flex-wrap items-center gap-3">
		Sounds like
		{#each offers as { id, words } (id)}
			<button type="button" class="act-quiet" onclick={() => choose(id)}>{words}</button>
		{/each}
	</p>
{/if}
