import { entryKind, line } from '../kind';
import { substituteMethods } from '../../../../../library/measure';
import { signKey } from '../../../../../library/reason/signs';
import { lowerFirst, positionWords } from '../../words';
import { Substitution } from './payload';

const METHODS = new Set(substituteMethods.map(({ id }) => id));

export const substitution = entryKind('substitution', Substitution, {
	about: 'A signal put in place of a sensor, and what live data made of it.',
	group: 'tested',
	writer: 'hand',
	changesVerdicts: true,
	line: ({ position, name, outcome, says }) =>
		line(
			`${positionWords(position)}: ${lowerFirst(name)}`,
			says,
			outcome === 'follows' ? null : 'does not follow'
		),
	names: ({ method }) => [['method', method, METHODS]],
	seen: ({ position, seenKmh, outcome }) => (seenKmh ? { [signKey('substitute', position)]: outcome } : {})
});
