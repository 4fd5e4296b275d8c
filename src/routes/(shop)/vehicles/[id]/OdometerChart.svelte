<script lang="ts">
	import { apexChart } from '$lib/ui/apexChart';
	import { shown, shownValue, unitOf } from '$lib/ui/units';

	/** How far it was driven from visit to visit. */
	let { readings }: { readings: { at: string; day: string; km: number }[] } = $props();
	const HEIGHT_PX = 220;
	const label = $derived(
		`Odometer: ${readings.map(({ day, km }) => `${shown(km, 'distance')} on ${day}`).join(', ')}`
	);

	function options() {
		const style = getComputedStyle(document.documentElement);
		const token = (name: string) => style.getPropertyValue(name).trim();
		const text = { colors: token('--color-base-content'), fontSize: '14px', fontFamily: 'inherit' };
		const ink = token('--color-base-content');
		const unit = unitOf('distance');
		return {
			chart: {
				type: 'line' as const,
				height: HEIGHT_PX,
				animations: { enabled: false },
				toolbar: { show: false },
				zoom: { enabled: false },
				background: 'transparent',
				fontFamily: 'inherit'
			},
			series: [
				{
					name: 'Odometer',
					data: readings.map(({ at, km }) => ({
						x: new Date(at).getTime(),
						y: Math.round(shownValue(km, 'distance'))
					}))
				}
			],
			colors: [ink],
			stroke: { width: 2, curve: 'straight' as const },
			markers: { size: 5, colors: [token('--color-base-100')], strokeColors: ink, strokeWidth: 2 },
			xaxis: {
				type: 'datetime' as const,
				labels: { style: text, datetimeFormatter: { hour: 'dd MMM', minute: 'dd MMM' } },
				axisTicks: { show: false }
			},
			yaxis: {
				labels: {
					style: text,
					formatter: (value: number) => `${Math.round(value).toLocaleString('en-GB')} ${unit}`
				}
			},
			grid: { borderColor: token('--color-base-300') },
			legend: { show: false },
			tooltip: { enabled: false }
		};
	}
</script>

<section class="mt-8 max-w-3xl" aria-labelledby="odometer">
	<h2 id="odometer" class="text-xl font-bold">Its odometer, visit by visit</h2>
	<div {@attach apexChart(options)} role="img" aria-label={label} style="min-height: {HEIGHT_PX}px"></div>
</section>
