<script lang="ts" module>
	/** Something that is found by its name. */
	export interface Picked {
		id: string;
		name: string;
		/** What tells it from others of the name. */
		detail: string;
	}
</script>

<script lang="ts">
	/** One of many by a part of its name: found as it is typed, taken by a press. */
	let {
		label,
		placeholder,
		find,
		offered = [],
		pick,
		nothing,
		onpick,
		typed = $bindable('')
	}: {
		label: string;
		placeholder: string;
		/** What is meant by some text. */
		find: (text: string) => Promise<Picked[]>;
		/** What is offered before anything is typed, each with the words of its button. */
		offered?: (Picked & { pick: string })[];
		/** The words of the button of what was found. */
		pick: string;
		/** Said where nothing is found. */
		nothing: string;
		onpick: (one: Picked) => void;
		typed?: string;
	} = $props();
	let found = $state<Picked[]>([]);
	/** What the list that is shown was found for. */
	let foundFor = $state('');
	let asked = 0;

	async function look() {
		const mine = ++asked;
		const text = typed.trim();
		const those = text === '' ? [] : await find(text);
		// The answer to what was typed last counts.
		if (mine !== asked) return;
		found = those;
		foundFor = text;
	}
	const shown = $derived(typed.trim() === '' ? offered : found.map((one) => ({ ...one, pick })));
</script>

<div class="max-w-xl">
	<label class="block"
		><span class="mb-1 block font-semibold">{label}</span>
		<input
			class="field"
			autocomplete="off"
			maxlength="100"
			{placeholder}
			bind:value={typed}
			oninput={() => void look()}
			onkeydown={(event) => event.key === 'Enter' && event.preventDefault()}
		/></label
	>
	{#if shown.length > 0}
		<ul class="mt-2">
			{#each shown as one (one.id)}
				<li class="hair flex flex-wrap items-center justify-between gap-x-4">
					<span><strong>{one.name}</strong> <span class="num ml-2">{one.detail}</span></span>
					<button
						type="button"
						class="act-quiet my-1"
						onclick={() => onpick(one)}
						aria-label="{one.pick}: {one.name}">{one.pick}</button
					>
				</li>
			{/each}
		</ul>
	{:else if foundFor !== '' && foundFor === typed.trim()}<p class="mt-2">{nothing}</p>{/if}
</div>
