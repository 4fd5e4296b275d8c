import { knownCircumferenceM, knownTeeth, ringPathOf } from '$library/vehicle/known';
import { ofKind } from '$lib/case/thread/thread';
import { benchPage } from '$lib/server/cases/benchPage';
import { clock } from '$lib/server/cases/clock';

export const load = async (event) => {
	const { view, type, family, shared, cautions } = await benchPage(event);
	return {
		...shared,
		family: family?.family ?? null,
		teeth: knownTeeth(type, shared.at),
		ringPath: type && ringPathOf(type, shared.at),
		circumferenceM: knownCircumferenceM(type, shared.at),
		instrument: shared.standIn && type !== null,
		cautions: cautions.words(['wheel-turns', 'wheels-driven', 'live-probed', 'polarity']),
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
