<script lang="ts" generics="T extends string">
	/** A choice of one among a few, side by side, each as large as a gloved finger. */
	let {
		label,
		name,
		options,
		value = $bindable()
	}: { label: string; name: string; options: readonly T[]; value: T } = $props();
</script>

<span class="flex flex-wrap" role="radiogroup" aria-label={label}>
	{#each options as option, nth (nth)}
		<label
			class="flex min-h-11 cursor-pointer items-center border px-3 first:rounded-l-md last:rounded-r-md has-focus-visible:outline-3 {value ===
			option
				? 'border-ink bg-neutral text-neutral-content'
				: 'border-ink-2'}"
		>
			<input class="sr-only" type="radio" {name} value={option} bind:group={value} />
			{option}
		</label>
	{/each}
</span>
