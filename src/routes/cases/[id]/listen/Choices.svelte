<script lang="ts">
	import { offeredFor } from '$library/vocabulary';

	/** A closed list to pick from, and room for words of one's own beside it: only what is picked is evidence. */
	let {
		label,
		list,
		typed,
		chosen = $bindable(),
		own = $bindable()
	}: {
		label: string;
		list: ReadonlyMap<string, { id: string; words: string; offers: RegExp }>;
		/** Words at which one of the list is offered. */
		typed: string;
		chosen: string[];
		own: string[];
	} = $props();
	let text = $state('');
	const sounds = $derived(offeredFor(list, [typed, ...own, text].join(' '), chosen));
	const toggle = (id: string) =>
		(chosen = chosen.includes(id) ? chosen.filter((one) => one !== id) : [...chosen, id]);
	function addOwn() {
		const word = text.trim();
		if (word && !own.includes(word)) own = [...own, word];
		text = '';
	}
</script>

<fieldset class="mt-4">
	<legend class="mb-2 font-semibold">{label}</legend>
	{#if sounds.length > 0}
		<p class="mb-2">
			Sounds like {sounds.map(({ words }) => `“${words}”`).join(', ')}: tick it if that is meant.
		</p>
	{/if}
	<div class="flex flex-wrap gap-2">
		{#each list.values() as { id, words } (id)}
			{@const on = chosen.includes(id)}
			<button
				type="button"
				aria-pressed={on}
				class="min-h-11 cursor-pointer rounded-md border px-3 {on
					? 'border-ink bg-neutral text-neutral-content'
					: 'border-ink-2'}"
				onclick={() => toggle(id)}>{words}</button
			>
		{/each}
		{#each own as word, nth (nth)}
			<button
				type="button"
				aria-pressed="true"
				class="min-h-11 cursor-pointer rounded-md border border-ink bg-neutral px-3 text-neutral-content"
				onclick={() => (own = own.filter((one) => one !== word))}>{word}</button
			>
		{/each}
		<input
			class="field w-52!"
			placeholder="other, then Enter"
			aria-label="{label}: other"
			bind:value={text}
			onblur={addOwn}
			onkeydown={(event) => {
				if (event.key !== 'Enter') return;
				event.preventDefault();
				addOwn();
			}}
		/>
	</div>
</fieldset>
