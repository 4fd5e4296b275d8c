import { knownTeeth } from '$library/vehicle/known';
import { error } from '@sveltejs/kit';
import { codeConditions } from '$lib/case/watch/watchDefaults';
import { ofKind } from '$lib/case/thread/thread';
import { caseHere } from '$lib/server/cases/access';
import { clock } from '$lib/server/cases/clock';
import { sayCondition, signals } from '../../../../../../library/signals';

export const load = async ({ params, depends, locals }) => {
	depends('jaldi:case');
	const { view, type } = await caseHere({ params, locals });
	const recordings = ofKind(view.entries, 'live-recording');
	const here = recordings.find(({ id }) => id === params.recording);
	if (!here) error(404, 'There is no such recording on this case.');
	return {
		recording: { id: here.id, time: clock(here.observedAt), by: here.authorName, ...here.payload },
		words: Object.fromEntries(
			here.payload.channels.map((channel) => {
				const known = signals.get(channel);
				return [channel, { name: known?.name ?? channel.replaceAll('_', ' '), unit: known?.unit ?? '' }];
			})
		),
		vehicle: {
			trackM: type?.chassis.trackM ?? 1.5,
			wheelbaseM: type?.chassis.wheelbaseM ?? 2.7,
			teeth: knownTeeth(type, type?.wheels[0]?.position)
		},
		conditions: codeConditions(view).map((one) => ({ ...one, words: sayCondition(one.condition) })),
		signalNames: Object.fromEntries([...signals].map(([signal, { name }]) => [signal, name])),
		others: recordings
			.filter(({ id }) => id !== here.id)
			.map(({ id, observedAt, payload }) => ({
				id,
				name: `${payload.name || 'Live recording'}, ${clock(observedAt)}`,
				marks: payload.marks
			}))
	};
};
