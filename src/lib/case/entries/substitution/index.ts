import { entryKind, line } from '../kind';
import { substituteMethods } from '../../../../../library/measure';
import { levelKey } from '../../../../../library/reason/ruledSigns';
import { signKey } from '../../../../../library/reason/signs';
import { lowerFirst, positionWords } from '../../words';
import { Substitution } from './payload';

/** A level in place of a speed. */
const MAKES_LEVEL = new Set(
	substituteMethods.filter(({ expects }) => expects === 'level').map(({ id }) => id)
);
const METHODS = new Set(substituteMethods.map(({ id }) => id));

export const substitution = entryKind('substitution', Substitution, {
	about: 'A signal put in place of a sensor, and what live data made of it.',
	group: 'tested',
	writer: 'hand',
	mayBeWithdrawn: true,
	changesVerdicts: true,
	line: ({ position, name, outcome, says }) =>
		line(
			`${positionWords(position)}: ${lowerFirst(name)}`,
			says,
			outcome === 'follows' ? null : 'does not follow'
		),
	names: ({ method }) => [['method', method, METHODS]],
	seen({ position, method, seenKmh, outcome }) {
		if (seenKmh) return { [signKey('substitute', position)]: outcome };
		if (!MAKES_LEVEL.has(method)) return {};
		return { [levelKey(position)]: outcome === 'follows' ? 'arrives' : 'missing' };
	}
});
