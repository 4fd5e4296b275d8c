<script lang="ts">
	import { UNITS, type Kind } from '../core/units/units';
	import { digitsOf, shownValue, typedValue, unitOf } from './units';

	/** A field for a quantity: typed and shown in the units of whoever types, kept in the units that everything is kept in. */
	let {
		kind,
		value = $bindable(),
		digits = 0,
		whole = false,
		step = 'any',
		min,
		max,
		required = false,
		invalid = false,
		label,
		class: classes = 'field num text-right'
	}: {
		kind: Kind;
		/** In kept units; null while it is empty. */
		value: number | null | undefined;
		/** Behind the point of a kept value. */
		digits?: number;
		/** Whole in its kept unit. */
		whole?: boolean;
		/** In the unit that is shown. */
		step?: number | 'any';
		/** In kept units, as `max`. */
		min?: number;
		max?: number;
		required?: boolean;
		invalid?: boolean;
		/** Where no label stands over it. */
		label?: string;
		class?: string;
	} = $props();

	const rounded = (number: number, places: number) => Number(number.toFixed(places));
	/** Finer than it is shown, so that what is typed comes back as it was typed. */
	const keep = (number: number) =>
		unitOf(kind) === unitKept ? number : rounded(typedValue(number, kind), whole ? 0 : digits + 2);
	const show = (kept: number) =>
		unitOf(kind) === unitKept ? kept : rounded(shownValue(kept, kind), digitsOf(kind, digits));
	const unitKept = $derived(UNITS[kind][0]);

	let typed = $state<number | null>(null);
	let last: number | null | undefined;
	$effect.pre(() => {
		// What is typed stands as it is typed, until the value is another one.
		if (value !== last) typed = value === null || value === undefined ? null : show(value);
		last = value;
	});
	const edge = (kept: number | undefined) => (kept === undefined ? undefined : shownValue(kept, kind));
</script>

<input
	class={classes}
	type="number"
	min={edge(min)}
	max={edge(max)}
	{step}
	{required}
	aria-label={label}
	aria-invalid={invalid}
	bind:value={
		() => typed,
		(number) => {
			typed = number;
			last = number === null || number === undefined ? null : keep(number);
			value = last;
		}
	}
/>
