<script lang="ts">
	import Mark from '$lib/ui/Mark.svelte';
	import { LINK_WORDS } from '$lib/case/reason/linkWords';
	import type { CellState } from '$lib/case/reason/grid';
	import type { ShownCell } from '$lib/case/reason/gridView';
	import type { Link } from '$library/links';
	import { upperFirst } from '$lib/case/words';
	import Sideways from '$lib/ui/Sideways.svelte';

	/** Wheels × links, and below them what several share. A cell is a button that tells what proves it. */
	interface Row {
		place: string;
		words: string;
		cells: ShownCell[];
	}
	let {
		links,
		rows,
		modules,
		feeds,
		reader,
		chosen,
		onchoose
	}: {
		links: Link[];
		rows: Row[];
		modules: Row[];
		feeds: Row[];
		/** The module that all wheels end at. */
		reader: string;
		chosen: string | null;
		onchoose: (cell: ShownCell) => void;
	} = $props();
	const MARK: Record<CellState, 'good' | 'suspect' | 'bad' | 'open'> = {
		'proven-good': 'good',
		suspect: 'suspect',
		'proven-bad': 'bad',
		'not-tested': 'open'
	};
	const keyOf = (cell: ShownCell) => `${cell.place}/${cell.link}`;
	const worst = (row: Row) => Math.max(...row.cells.map(({ p }) => p));
	const hottest = $derived(rows.reduce<Row | null>((a, b) => (!a || worst(b) > worst(a) ? b : a), null));
	const isHot = (row: Row) => row === hottest && worst(row) > 0.04;
	/** The link of a module that stands for it: the one most likely at fault. */
	const leading = (row: Row): ShownCell => row.cells.reduce((a, b) => (b.p > a.p ? b : a));
	const proven = (cell: ShownCell, next: ShownCell | undefined) =>
		cell.state === 'proven-good' && (next === undefined || next.state === 'proven-good');
	/** How a line looks between two marks: proven through, on a suspect, or nothing known. */
	const lineOf = (cell: ShownCell, next: ShownCell | undefined) =>
		proven(cell, next)
			? 'border-t-4 border-good'
			: [cell, next].some((one) => one?.state === 'suspect' || one?.state === 'proven-bad')
				? 'border-t-3 border-dotted border-suspect-mark'
				: 'border-t-3 border-dotted border-rule';
	const percent = (p: number) => (p >= 0.005 ? `, ${Math.round(p * 100)} %` : '');
	const says = (row: Row, cell: ShownCell) =>
		`${upperFirst(row.words)}, ${LINK_WORDS[cell.link]}: ${cell.state.replace('-', ' ')}${percent(cell.p)}`;
</script>

{#snippet mark(row: Row, cell: ShownCell)}
	<button
		class="relative z-10 flex size-11 cursor-pointer items-center justify-center rounded-full {chosen ===
		keyOf(cell)
			? 'outline-3 outline-ink'
			: ''}"
		aria-label={says(row, cell)}
		aria-pressed={chosen === keyOf(cell)}
		title={says(row, cell)}
		onclick={() => onchoose(cell)}
	>
		{#if cell.fresh}<span
				class="absolute inset-1 rounded-full border-2 border-dashed border-ink"
				aria-hidden="true"
			></span>{/if}
		<Mark state={MARK[cell.state]} size={24} />
	</button>
{/snippet}

<Sideways label="Proof grid">
	<table class="w-full min-w-[640px] border-collapse" aria-label="Proof grid: wheels and links">
		<thead>
			<tr>
				<td class="w-28"></td>
				{#each links as link, nth (nth)}
					<th scope="col" class="pb-1 text-center text-sm font-normal text-ink-2">{LINK_WORDS[link]}</th>
				{/each}
				<td class="w-9"></td>
			</tr>
		</thead>
		<tbody>
			{#each rows as row, r (r)}
				<tr class={isHot(row) ? 'bg-raised' : ''}>
					<th scope="row" class="pl-2 text-left {isHot(row) ? 'font-bold' : 'font-normal'}"
						>{upperFirst(row.words)}</th
					>
					{#each row.cells as cell, i (i)}
						<td class="p-0 py-0.5">
							<div class="relative flex justify-center">
								<span
									class="absolute top-1/2 left-1/2 z-0 -translate-y-1/2 {row.cells[i + 1]
										? 'w-full'
										: 'w-1/2'} {lineOf(cell, row.cells[i + 1])}"
									aria-hidden="true"
								></span>
								{@render mark(row, cell)}
							</div>
						</td>
					{/each}
					{#if r === 0}
						<td rowspan={rows.length} class="h-px p-0">
							<div
								class="flex h-full min-h-40 w-8 rotate-180 items-center justify-center rounded bg-neutral text-sm whitespace-nowrap text-neutral-content [writing-mode:vertical-rl]"
							>
								{reader}
							</div>
						</td>
					{/if}
				</tr>
			{/each}
		</tbody>
	</table>
</Sideways>
<div class="mt-1 flex items-start gap-2">
	<p class="w-24 shrink-0 pt-2.5 pl-2">Modules</p>
	<ul class="flex min-w-0 flex-1 flex-wrap overflow-x-clip" aria-label="Modules">
		{#each modules as row, i (i)}
			{@const cell = leading(row)}
			<li class="relative flex min-w-18 flex-1 flex-col items-center">
				{#if modules[i + 1]}<span
						class="absolute top-5.5 left-1/2 z-0 w-full -translate-y-1/2 {lineOf(
							cell,
							leading(modules[i + 1] as Row)
						)}"
						aria-hidden="true"
					></span>{/if}
				{@render mark(row, cell)}
				<span class="text-center text-sm leading-tight text-ink-2">{row.words}</span>
			</li>
		{/each}
	</ul>
</div>
{#if feeds.length > 0}
	<ul class="mt-2 flex flex-wrap gap-x-7 gap-y-1 pl-2" aria-label="What several share">
		{#each feeds as row, nth (nth)}
			<li class="flex items-center">
				<span class="mr-1">{upperFirst(row.words)}</span>
				{#each row.cells as cell, nth (nth)}{@render mark(row, cell)}{/each}
			</li>
		{/each}
	</ul>
{/if}
