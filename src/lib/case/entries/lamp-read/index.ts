import { entryKind, line } from '../kind';
import { signKey } from '../../../../../library/reason/signs';
import { lampMeaningOf } from './meaning';
import { LampRead } from './payload';

/** Less sure than this a reading of flashes is to be repeated. */
const SURE = 0.9;

export const lampRead = entryKind('lamp-read', LampRead, {
	about: 'A code that a lamp showed, flash by flash.',
	group: 'read',
	writer: 'hand',
	changesVerdicts: false,
	line: ({ lamp, groups, repeats, confidence, meaning }) =>
		line(
			`Lamp code ${groups.join('-')}`,
			meaning || `${lamp}, no table for it`,
			repeats < 2 || confidence < SURE ? 'seen once only or not sure' : `shown ${repeats} times`
		),
	seen: (payload, _, { asItCame, driven }) => {
		if (!asItCame && !driven) return {};
		const { corner, wheelCode } = lampMeaningOf(payload) ?? {};
		return corner && wheelCode ? { [signKey('wheel-code', corner)]: wheelCode } : {};
	}
});
