import { entryKind, line } from '../kind';
import { signKey } from '../../../../../library/reason/signs';
import { LampsReported } from './payload';

export const lampsReported = entryKind('lamps-reported', LampsReported, {
	about: 'Lamps that the customer saw, and when.',
	group: 'said',
	writer: 'hand',
	atDesk: true,
	changesVerdicts: false,
	line: ({ lamps }) =>
		line(
			'Lamps',
			lamps.length > 0
				? lamps.map(({ lamp, manner, when }) => `${lamp} ${manner}, ${when}`).join('; ')
				: 'none reported'
		),
	seen: ({ lamps }) =>
		lamps.some(({ lamp }) => lamp === 'dead speedometer') ? { [signKey('felt-dial', 'vehicle')]: 'yes' } : {}
});
