import type ApexCharts from 'apexcharts';
import type { ApexOptions } from 'apexcharts';
import type { Attachment } from 'svelte/attachments';

/**
 * Draws a chart that stands still into an element, and again whenever what it is made from changes. ApexCharts is loaded
 * only by pages that have one.
 *
 * @param options read anew at every change of what they depend on
 */
export const apexChart =
	(options: () => ApexOptions): Attachment<HTMLElement> =>
	(place) => {
		let gone = false;
		let made: ApexCharts | null = null;
		const wanted = options();
		void import('apexcharts').then(async ({ default: Apex }) => {
			if (gone) return;
			made = new Apex(place, wanted);
			await made.render();
		});
		return () => {
			gone = true;
			made?.destroy();
		};
	};
