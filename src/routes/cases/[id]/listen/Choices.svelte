<script lang="ts">
	/** Words to pick from, and room for one's own. */
	let {
		label,
		offered,
		chosen = $bindable()
	}: { label: string; offered: string[]; chosen: string[] } = $props();
	let own = $state('');
	const all = $derived([...new Set([...offered, ...chosen])]);
	const toggle = (word: string) =>
		(chosen = chosen.includes(word) ? chosen.filter((w) => w !== word) : [...chosen, word]);
	function addOwn() {
		const word = own.trim();
		if (word && !chosen.includes(word)) chosen = [...chosen, word];
		own = '';
	}
</script>

<fieldset class="mt-4">
	<legend class="mb-2 font-semibold">{label}</legend>
	<div class="flex flex-wrap gap-2">
		{#each all as word, nth (nth)}
			{@const on = chosen.includes(word)}
			<button
				type="button"
				aria-pressed={on}
				class="min-h-11 cursor-pointer rounded-md border px-3 {on
					? 'border-ink bg-neutral text-neutral-content'
					: 'border-ink-2'}"
				onclick={() => toggle(word)}>{word}</button
			>
		{/each}
		<input
			class="field w-52!"
			placeholder="other, then Enter"
			aria-label="{label}: other"
			bind:value={own}
			onblur={addOwn}
			onkeydown={(event) => {
				if (event.key !== 'Enter') return;
				event.preventDefault();
				addOwn();
			}}
		/>
	</div>
</fieldset>
