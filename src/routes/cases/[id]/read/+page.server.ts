import { ofKind } from '$lib/case/thread';
import { viewScan } from '$lib/case/scanView';
import { loadCase } from '$lib/server/cases/access';
import { clock } from '$lib/server/cases/clock';

export const load = async ({ params, depends, url }) => {
	depends('jaldi:case');
	const { row, view } = await loadCase(params.id);
	const scans = ofKind(view.entries, 'network-scan');
	const chosen = scans.find((scan) => scan.id === url.searchParams.get('scan')) ?? scans.at(-1) ?? null;
	const recorded = ofKind(view.entries, 'vehicle-checked').at(-1)?.payload.vin ?? null;
	const vin = chosen?.payload.vin ?? null;
	return {
		linkAddress: row.vehicle.linkAddress,
		scans: scans
			.map((scan) => ({
				id: scan.id,
				time: clock(scan.observedAt),
				by: scan.authorName,
				outcome: scan.payload.outcome,
				codes: scan.payload.modules.reduce((sum, m) => sum + m.codes.length, 0)
			}))
			.reverse(),
		shown: chosen && {
			id: chosen.id,
			time: clock(chosen.observedAt),
			by: chosen.authorName,
			outcome: chosen.payload.outcome,
			stoppedBecause: chosen.payload.stoppedBecause,
			expected: chosen.payload.modulesExpected,
			vin,
			vinDiffers: vin !== null && recorded !== null && vin !== recorded,
			modules: viewScan(chosen)
		}
	};
};
