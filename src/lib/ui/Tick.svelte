<script lang="ts">
	/** Something to tick off, as large as a gloved finger. */
	let {
		words,
		checked,
		onchange,
		disabled = false
	}: { words: string; checked: boolean; onchange: (on: boolean) => void; disabled?: boolean } = $props();
</script>

<label class="flex min-h-11 cursor-pointer items-center gap-3 py-0.5">
	<input
		type="checkbox"
		class="checkbox"
		{checked}
		{disabled}
		onchange={(event) => onchange(event.currentTarget.checked)}
	/>
	{words}
</label>
