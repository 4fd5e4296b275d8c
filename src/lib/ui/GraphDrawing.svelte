<script lang="ts">
	import type { LaidOut } from '$library/vehicle/drawings';

	/** What hangs on what: boxes and lines, dotted where they are only assumed. */
	let { graph, label }: { graph: LaidOut; label: string } = $props();
	const LINE = 19;
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex (what is wider than the page is scrolled by keyboard too) -->
<div class="overflow-x-auto" role="group" aria-label={label} tabindex="0">
	<svg
		role="img"
		aria-label={label}
		viewBox="-4 -4 {graph.width + 8} {graph.height + 8}"
		width={graph.width + 8}
		height={graph.height + 8}
		class="max-w-none text-ink"
	>
		{#each graph.edges as { path, dotted, weight, label: words }, nth (nth)}
			<path
				d={path}
				fill="none"
				stroke="currentColor"
				stroke-width={weight}
				stroke-dasharray={dotted ? '1 5' : undefined}
				stroke-linecap="round"
			/>
			{#if words}<text
					x={words.x}
					y={words.y}
					text-anchor="middle"
					dominant-baseline="central"
					font-size="14"
					fill="currentColor"
					class="stroke-base-100"
					stroke-width="5"
					paint-order="stroke">{words.text}</text
				>{/if}
		{/each}
		{#each graph.nodes as node, nth (nth)}
			{#if node.boxed}<rect
					x={node.x - node.width / 2}
					y={node.y - node.height / 2}
					width={node.width}
					height={node.height}
					class="fill-base-100"
					stroke="currentColor"
					stroke-width={node.weight}
					stroke-dasharray={node.dotted ? '1 5' : undefined}
					stroke-linecap="round"
				/>{/if}
			{#each node.lines as line, i (i)}
				<text
					x={node.x}
					y={node.y + (i - (node.lines.length - 1) / 2) * LINE}
					text-anchor="middle"
					dominant-baseline="central"
					font-size="15"
					class={i > 0 ? 'num' : ''}
					fill="currentColor">{line}</text
				>
			{/each}
		{/each}
	</svg>
</div>
