import 'apexcharts/dist/apexcharts.css';
import type ApexCharts from 'apexcharts';

/** It looks for a sheet of this id before it writes its styles into the page, where none may stand. */
const SHEET = 'apexcharts-css';

/** ApexCharts, loaded only by pages that have a chart, with its styles from the app’s own files. */
export async function loadApex(): Promise<typeof ApexCharts> {
	if (!document.getElementById(SHEET)) {
		const mark = document.createElement('meta');
		mark.id = SHEET;
		document.head.append(mark);
	}
	return (await import('apexcharts')).default;
}
