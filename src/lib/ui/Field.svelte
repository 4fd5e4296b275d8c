<script lang="ts">
	import type { Snippet } from 'svelte';
	import { said } from './units';

	/** A label over a field, its hint, and what is wrong with it. */
	let {
		label,
		hint,
		errors,
		children
	}: { label: string; hint?: string; errors?: string[]; children: Snippet } = $props();
</script>

<label class="block">
	<span class="mb-1 block font-semibold">{label}</span>
	{@render children()}
	{#if errors && errors.length > 0}
		<span role="alert" class="mt-1 block font-semibold">{said(errors[0] ?? '')}</span>
	{:else if hint}
		<span class="mt-1 block text-sm text-ink-2">{hint}</span>
	{/if}
</label>
