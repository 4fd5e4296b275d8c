<script lang="ts">
	import { isNotAvailable } from '$lib/core/live/recording';

	/**
	 * The last seconds of running speeds, drawn anew with every batch. Plain lines: a chart that can be zoomed takes longer to
	 * lay out than the time between two batches.
	 */
	let {
		rows,
		version,
		names,
		columns,
		overS = 30,
		height = 200,
		strong = null
	}: {
		rows: (number | null)[][];
		version: number;
		names: string[];
		/** Places in a row; same order as `names`. */
		columns: number[];
		overS?: number;
		height?: number;
		/** The one drawn thick; null: all alike. */
		strong?: number | null;
	} = $props();
	let width = $state(800);
	const PAD = 6;
	/** One point a pixel column and side: more cannot be seen. */
	const drawn = $derived.by(() => {
		void version;
		const lastS = rows.at(-1)?.[0] ?? 0;
		const fromS = lastS - overS;
		const seen = rows.filter(([t]) => (t ?? 0) >= fromS);
		let [low, high] = [0, 10];
		for (const row of seen) {
			for (const column of columns) {
				const value = row[column];
				if (value === null || value === undefined || isNotAvailable(value)) continue;
				if (value > high) high = value;
				if (value < low) low = value;
			}
		}
		const x = (t: number) => ((t - fromS) / overS) * width;
		const y = (value: number) => height - PAD - ((value - low) / (high - low)) * (height - 2 * PAD);
		const lines = columns.map((column) => {
			let path = '';
			let pen = 'M';
			for (const row of seen) {
				const value = row[column];
				if (value === null || value === undefined || isNotAvailable(value)) {
					pen = 'M';
					continue;
				}
				path += `${pen}${x(row[0] ?? 0).toFixed(1)} ${y(value).toFixed(1)}`;
				pen = 'L';
			}
			return path;
		});
		return { lines, base: y(0), high };
	});
	/** The strong one lies over the others. */
	const order = $derived(
		columns.map((_, i) => i).sort((a, b) => Number(a === strong) - Number(b === strong))
	);
	const DASHES = ['', '8 5', '2 4', '12 4 2 4', '1 6', '6 3 1 3', '', '8 5'];
</script>

<div bind:clientWidth={width} class="w-full">
	<svg {width} {height} role="img" aria-label="The last {overS} s of {names.join(', ')}">
		<line x1="0" x2={width} y1={drawn.base} y2={drawn.base} class="stroke-rule" />
		{#each order as i, nth (nth)}
			<path
				d={drawn.lines[i]}
				fill="none"
				class={strong === null || strong === i ? 'stroke-ink' : 'stroke-ink-2'}
				stroke-width={strong === i ? 3.5 : 2}
				stroke-dasharray={strong === null ? DASHES[i % DASHES.length] : ''}
				opacity={strong === null || strong === i ? 1 : 0.6}
			/>
		{/each}
		<text x="0" y="14" class="num fill-ink-2 text-sm">{drawn.high.toFixed(0)}</text>
	</svg>
</div>
