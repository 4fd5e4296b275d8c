<script lang="ts">
	import { apexChart } from './apexChart';

	/** Bars of one tone, named at their feet; whoever chooses one is told which. */
	let {
		bars,
		unit,
		label,
		onchoose
	}: {
		bars: { name: string; value: number }[];
		unit: string;
		label: string;
		onchoose: (name: string) => void;
	} = $props();
	const ROW_PX = 44;
	const height = $derived(bars.length * ROW_PX + 40);

	function options() {
		const style = getComputedStyle(document.documentElement);
		const token = (name: string) => style.getPropertyValue(name).trim();
		const text = { colors: token('--color-base-content'), fontSize: '15px', fontFamily: 'inherit' };
		return {
			chart: {
				type: 'bar' as const,
				height,
				animations: { enabled: false },
				toolbar: { show: false },
				background: 'transparent',
				fontFamily: 'inherit',
				events: {
					dataPointSelection: (_: unknown, __: unknown, { dataPointIndex }: { dataPointIndex: number }) => {
						const chosen = bars[dataPointIndex];
						if (chosen) onchoose(chosen.name);
					}
				}
			},
			series: [{ name: unit, data: bars.map(({ value }) => Math.round(value * 10) / 10) }],
			colors: [token('--color-base-content')],
			plotOptions: { bar: { horizontal: true, barHeight: '46%' } },
			dataLabels: {
				enabled: true,
				textAnchor: 'start' as const,
				style: { colors: [token('--color-base-100')], fontSize: '14px' },
				formatter: (value: number) => `${value}${unit ? ` ${unit}` : ''}`
			},
			xaxis: {
				categories: bars.map(({ name }) => name),
				labels: { show: false },
				axisBorder: { show: false },
				axisTicks: { show: false }
			},
			yaxis: { labels: { style: text, maxWidth: 260 } },
			grid: { show: false },
			legend: { show: false },
			states: { active: { filter: { type: 'none' } } },
			tooltip: { enabled: false }
		};
	}
</script>

<div {@attach apexChart(options)} role="img" aria-label={label} style="min-height: {height}px"></div>
