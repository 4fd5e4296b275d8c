<script lang="ts">
	import type { Kind } from '../core/units/units';
	import QuantityInput from './QuantityInput.svelte';
	import { unitOf } from './units';

	/** A number with its name above it, outside of the forms that become entries; null while it is empty. */
	let {
		label,
		value = $bindable(),
		min,
		max,
		step = 1,
		digits = 1,
		required = false,
		invalid = false,
		of
	}: {
		label: string;
		value: number | null;
		min?: number;
		max?: number;
		step?: number | 'any';
		/** Behind the point, of a quantity. */
		digits?: number;
		required?: boolean;
		invalid?: boolean;
		/** What it is a quantity of: its unit is put behind the label, and is that of whoever types. */
		of?: Kind;
	} = $props();
</script>

<label>
	<span class="text-sm text-ink-2">{of ? `${label}, ${unitOf(of)}` : label}</span>
	{#if of}
		<QuantityInput kind={of} class="field num" {min} {max} {digits} {step} {required} {invalid} bind:value />
	{:else}
		<input class="field num" type="number" {min} {max} {step} {required} aria-invalid={invalid} bind:value />
	{/if}
</label>
