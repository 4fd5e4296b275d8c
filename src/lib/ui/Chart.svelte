<script lang="ts" module>
	/** A line on the chart, named at its end. */
	export interface ChartLine {
		name: string;
		x: ArrayLike<number>;
		y: ArrayLike<number>;
		/** `ink` and `second` by their tokens; the others only where they mean it. */
		tone: 'ink' | 'second' | 'suspect' | 'good' | 'bad';
		/** Stroke pattern, in pixels; 0 = solid. */
		dash?: number;
		/** Second group of values, with a scale of its own on the right. */
		right?: boolean;
	}
	export interface ChartMark {
		at: number;
		label: string;
	}
</script>

<script lang="ts">
	import type ApexCharts from 'apexcharts';
	import { onMount } from 'svelte';

	/** The one place where charts are drawn: ApexCharts in our tokens. Lines and marks over a span; told when another is wanted. */
	let {
		lines,
		from,
		to,
		marks = [],
		unit,
		rightUnit = '',
		height = 340,
		label,
		onspan
	}: {
		lines: ChartLine[];
		from: number;
		to: number;
		marks?: ChartMark[];
		unit: string;
		rightUnit?: string;
		height?: number;
		label: string;
		onspan: (from: number, to: number) => void;
	} = $props();
	let place: HTMLDivElement;
	let chart = $state.raw<ApexCharts | null>(null);

	const TOKEN = {
		ink: '--color-base-content',
		second: '--color-secondary',
		suspect: '--color-info',
		good: '--color-success',
		bad: '--color-error'
	} as const;
	const seconds = (value: number) =>
		to - from > 120
			? `${Math.floor(value / 60)}:${String(Math.floor(value % 60)).padStart(2, '0')}`
			: `${value.toFixed(to - from < 5 ? 2 : to - from < 60 ? 1 : 0)} s`;

	function options() {
		const style = getComputedStyle(document.documentElement);
		const colour = (tone: ChartLine['tone']) => style.getPropertyValue(TOKEN[tone]).trim();
		const ink2 = colour('second');
		const text = { colors: ink2, fontSize: '14.5px', fontFamily: 'inherit' };
		const axis = (one: ChartLine, i: number) => {
			const right = one.right === true;
			const first = lines.findIndex((line) => (line.right === true) === right) === i;
			return {
				seriesName: lines.find((line) => (line.right === true) === right)?.name,
				show: first,
				opposite: right,
				tickAmount: 4,
				labels: { style: text, formatter: (value: number) => value.toFixed(0) },
				title: {
					text: first ? (right ? rightUnit : unit) : '',
					style: { color: ink2, fontSize: '14.5px', fontWeight: 400 }
				},
				axisBorder: { show: false }
			};
		};
		return {
			chart: {
				type: 'line' as const,
				height,
				animations: { enabled: false },
				toolbar: { show: false },
				zoom: { enabled: true, type: 'x' as const, allowMouseWheelZoom: false },
				background: 'transparent',
				fontFamily: 'inherit',
				events: {
					beforeZoom: (_: unknown, { xaxis }: { xaxis: { min: number; max: number } }) => {
						onspan(xaxis.min, xaxis.max);
						return { xaxis: { min: from, max: to } };
					}
				}
			},
			series: lines.map(({ name, x, y }) => ({
				name,
				data: Array.from(
					x,
					(at, i) => [at, Number.isNaN(y[i] ?? NaN) ? null : (y[i] ?? null)] as [number, number | null]
				)
			})),
			colors: lines.map(({ tone }) => colour(tone)),
			stroke: {
				width: lines.map(({ tone }) => (tone === 'second' ? 2 : 2.5)),
				curve: 'straight' as const,
				dashArray: lines.map(({ dash }) => dash ?? 0)
			},
			xaxis: {
				type: 'numeric' as const,
				min: from,
				max: to,
				tickAmount: 8,
				labels: {
					style: text,
					formatter: (value: string) => seconds(Number(value)),
					hideOverlappingLabels: true
				},
				axisTicks: { show: false },
				tooltip: { enabled: false }
			},
			yaxis: lines.map(axis),
			grid: {
				borderColor: style.getPropertyValue('--color-base-300').trim(),
				yaxis: { lines: { show: false } },
				xaxis: { lines: { show: false } }
			},
			legend: { show: false },
			markers: { size: 0 },
			tooltip: {
				theme: 'none' as string,
				shared: true,
				intersect: false,
				x: { formatter: (value: number) => `${value.toFixed(2)} s` },
				y: { formatter: (value: number | null) => (value === null ? '–' : value.toFixed(1)) }
			},
			annotations: {
				xaxis: marks
					.filter(({ at }) => at >= from && at <= to)
					.map(({ at, label: words }) => ({
						x: at,
						borderColor: colour('ink'),
						strokeDashArray: 2,
						label: {
							text: words,
							orientation: 'horizontal',
							borderWidth: 0,
							style: { background: 'transparent', color: colour('ink'), fontSize: '14.5px' }
						}
					}))
			}
		};
	}

	onMount(() => {
		let gone = false;
		let made: ApexCharts | null = null;
		void import('apexcharts').then(async ({ default: Apex }) => {
			if (gone) return;
			made = new Apex(place, options());
			await made.render();
			chart = made;
		});
		return () => {
			gone = true;
			made?.destroy();
		};
	});
	$effect(() => {
		const wanted = options();
		void chart?.updateOptions(wanted, true, false, false);
	});
</script>

<div bind:this={place} role="img" aria-label={label} style="min-height: {height}px"></div>
