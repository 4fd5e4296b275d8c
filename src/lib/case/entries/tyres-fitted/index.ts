import { entryKind, line } from '../kind';
import { tyreSigns } from '../../reason/tyreSigns';
import { TyresFitted } from './payload';

export const tyresFitted = entryKind('tyres-fitted', TyresFitted, {
	about: 'Tyres as they were found: size, tread, pressure.',
	group: 'said',
	writer: 'hand',
	atDesk: true,
	changesVerdicts: false,
	line: ({ tyres, placard = [] }) =>
		line(
			'Tyres',
			[...new Set(tyres.map(({ size }) => size))].join(' and '),
			placard.length > 0 ? `should be ${[...new Set(placard.map(({ size }) => size))].join(' and ')}` : null
		),
	seen: (payload, { type }) => tyreSigns(payload, type)
});
