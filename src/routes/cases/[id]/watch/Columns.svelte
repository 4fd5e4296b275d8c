<script lang="ts">
	import { UNIT_CHOICES } from '$lib/core/live/columnMapping';
	import { isSpeed, isWheel } from '$lib/core/live/recording';
	import type { ColumnChoice, Importer } from './importer.svelte';

	/** What each column of a file is, where the header does not say it clearly. */
	interface Props {
		importer: Importer;
		wheels: { signal: string; name: string }[];
		channels: { signal: string; name: string }[];
	}
	let { importer, wheels, channels }: Props = $props();
	const units = Object.keys(UNIT_CHOICES);
	/** The unit as it stands in the list; of a speed that names none the one that is taken for it. */
	function unitOf({ unit, factor, as }: ColumnChoice): string {
		if (unit !== null && unit in UNIT_CHOICES) return unit;
		if (as === null || !isSpeed(as)) return '';
		return units.find((one) => UNIT_CHOICES[one] === factor) ?? '';
	}
	const others = $derived(channels.filter(({ signal }) => !isWheel(signal)));
</script>

<div class="mt-3">
	<p class="text-lg font-semibold">What are these columns?</p>
	<p class="text-ink-2">The answer is remembered for every file with this header.</p>
	<ul class="mt-2">
		{#each importer.columns as column, i (i)}
			<li
				class="hair grid items-start gap-x-3 gap-y-1 py-2 sm:grid-cols-[minmax(0,1fr)_8rem_minmax(10rem,14rem)_7rem]"
			>
				<div>
					<span class="num">{column.header}</span>
					{#if column.question}<span class="block text-sm text-suspect">{column.question}</span>{/if}
				</div>
				<span class="num text-sm text-ink-2">{column.sample}</span>
				<select
					class="field"
					aria-label="What {column.header} is"
					value={column.as ?? ''}
					onchange={(event) => importer.choose(i, event.currentTarget.value || null, unitOf(column))}
				>
					<option value="">left out</option>
					<option value="time">the time</option>
					<optgroup label="wheels">
						{#each wheels as { signal, name }, nth (nth)}<option value={signal}>{name}</option>{/each}
					</optgroup>
					<optgroup label="other signals">
						{#each others as { signal, name }, nth (nth)}<option value={signal}>{name}</option>{/each}
						{#if column.as && column.as !== 'time' && !wheels.some(({ signal }) => signal === column.as) && !others.some(({ signal }) => signal === column.as)}
							<option value={column.as}>{column.as}</option>
						{/if}
					</optgroup>
				</select>
				<select
					class="field"
					aria-label="Unit of {column.header}"
					value={unitOf(column)}
					disabled={column.as === null}
					onchange={(event) => importer.choose(i, column.as, event.currentTarget.value)}
				>
					<option value="">{column.as === 'time' ? 'as it looks' : 'as it is'}</option>
					{#each units as unit, nth (nth)}<option value={unit}>{unit}</option>{/each}
				</select>
			</li>
		{/each}
	</ul>
	<div class="mt-3 flex gap-3">
		<button class="act" onclick={() => importer.read()}>Read it so</button>
		<button class="act-quiet" onclick={() => importer.giveUp()}>Leave it</button>
	</div>
</div>
