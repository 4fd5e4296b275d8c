<script lang="ts">
	import { UNITS, type UnitChoice } from '../core/units/units';
	import OneOf from './OneOf.svelte';

	/** How somebody reads and types distances, pressures and the like. */
	let { choice = $bindable(), name }: { choice: UnitChoice; name: string } = $props();
	const WORDS = {
		distance: 'Distance and speed',
		pressure: 'Tyre pressure',
		torque: 'Torque',
		temperature: 'Temperature',
		length: 'Gap and tread'
	} as const;
	const kinds = Object.keys(WORDS) as (keyof typeof WORDS)[];
</script>

<div class="mt-3 flex flex-wrap gap-x-8 gap-y-4">
	{#each kinds as kind, nth (nth)}
		<div>
			<p class="mb-1 font-semibold">{WORDS[kind]}</p>
			<OneOf
				label={WORDS[kind]}
				name="{name}-{kind}"
				options={UNITS[kind]}
				bind:value={() => choice[kind], (unit) => (choice = { ...choice, [kind]: unit } as UnitChoice)}
			/>
			<input type="hidden" name={kind} value={choice[kind]} />
		</div>
	{/each}
</div>
