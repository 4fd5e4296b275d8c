import { typeOf } from '$lib/case/codes';
import { familyAt, mateOf } from '$lib/case/measured';
import { ofKind } from '$lib/case/thread';
import { loadCase } from '$lib/server/cases/access';
import { clock } from '$lib/server/cases/clock';
import { cornersOf } from '$lib/server/cases/corners';
import { cautionText } from '../../../../../../library/measure';

export const load = async ({ params, url, depends }) => {
	depends('jaldi:case');
	const { row, view } = await loadCase(params.id);
	const type = typeOf(view.entries);
	const corners = cornersOf(view, url.searchParams.get('at'));
	const wheel = type?.wheels.find(({ position }) => position === corners.at);
	return {
		...corners,
		mate: mateOf(corners.at),
		family: familyAt(view.entries, corners.at)?.family ?? null,
		teeth: wheel?.ringTeeth ?? null,
		circumferenceM: wheel?.circumferenceM ?? null,
		instrument: row.vehicle.standInAddress !== null && type !== null,
		cautions: ['spinning', 'back-probe', 'polarity'].map(cautionText),
		captures: ofKind(view.entries, 'scope-capture')
			.map(({ id, observedAt, authorName, payload }) => ({
				id,
				time: clock(observedAt),
				by: authorName,
				name: payload.name,
				verdict: payload.verdict,
				channels: payload.channels.map(({ name }) => name.replaceAll('_', ' ')),
				findings: payload.channels.reduce((sum, { findings }) => sum + findings.length, 0),
				durationS: payload.durationS
			}))
			.reverse()
	};
};
