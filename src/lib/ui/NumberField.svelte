<script lang="ts">
	/** A number with its name above it, outside of the forms that become entries; null while it is empty. */
	let {
		label,
		value = $bindable(),
		min,
		max,
		step = 1,
		required = false,
		invalid = false
	}: {
		label: string;
		value: number | null;
		min?: number;
		max?: number;
		step?: number | 'any';
		required?: boolean;
		invalid?: boolean;
	} = $props();
</script>

<label>
	<span class="text-sm text-ink-2">{label}</span>
	<input class="field num" type="number" {min} {max} {step} {required} aria-invalid={invalid} bind:value />
</label>
