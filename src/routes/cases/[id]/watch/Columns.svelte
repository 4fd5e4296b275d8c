<script lang="ts">
	import { UNIT_CHOICES } from '$lib/core/live/columnMapping';
	import type { Importer } from './importer.svelte';

	/** What each column of a file is, where the header does not say it clearly. */
	let { importer, channels }: { importer: Importer; channels: { signal: string; name: string }[] } = $props();
	const units = Object.keys(UNIT_CHOICES);
	const unitOf = (unit: string | null, factor: number | null) =>
		unit !== null && unit in UNIT_CHOICES
			? unit
			: (units.find((one) => factor !== null && UNIT_CHOICES[one] === factor && one !== 's') ?? '');
	const wheels = ['front', 'rear', 'axle1', 'axle2', 'axle3'].flatMap((axle) =>
		['left', 'right'].map((side) => ({
			signal: `${axle}_${side}`,
			name: `${axle.replace('axle', 'axle ')} ${side} wheel`
		}))
	);
	const others = $derived(channels.filter(({ signal }) => !/_(left|right)$/.test(signal)));
</script>

<div class="mt-3">
	<p class="text-lg font-semibold">What are these columns?</p>
	<p class="text-ink-2">The answer is remembered for every file with this header.</p>
	<table class="mt-2 w-full">
		<thead class="text-left text-sm text-ink-2">
			<tr
				><th class="font-normal">column</th><th class="font-normal">its first values</th><th
					class="font-normal">is</th
				><th class="font-normal">in</th></tr
			>
		</thead>
		<tbody>
			{#each importer.columns as column, i (i)}
				<tr class="hair align-top">
					<td class="py-2 pr-3">
						<span class="num">{column.header}</span>
						{#if column.question}<span class="block text-sm text-suspect">{column.question}</span>{/if}
					</td>
					<td class="num py-2 pr-3 text-sm">{column.sample}</td>
					<td class="py-2 pr-3">
						<select
							class="field"
							aria-label="What {column.header} is"
							value={column.as ?? ''}
							onchange={(event) =>
								importer.choose(i, event.currentTarget.value || null, unitOf(column.unit, column.factor))}
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
					</td>
					<td class="py-2">
						<select
							class="field"
							aria-label="Unit of {column.header}"
							value={unitOf(column.unit, column.factor)}
							disabled={column.as === null}
							onchange={(event) => importer.choose(i, column.as, event.currentTarget.value)}
						>
							<option value="">{column.as === 'time' ? 'as it looks' : 'as it is'}</option>
							{#each units as unit, nth (nth)}<option value={unit}>{unit}</option>{/each}
						</select>
					</td>
				</tr>
			{/each}
		</tbody>
	</table>
	<div class="mt-3 flex gap-3">
		<button class="act" onclick={() => importer.read()}>Read it so</button>
		<button class="act-quiet" onclick={() => importer.giveUp()}>Leave it</button>
	</div>
</div>
