import { entryKind, line } from '../kind';
import { describeCode } from '../../codes/codeWords';
import { ReturnsTold } from './payload';
import { short } from '../../words';

export const returnsTold = entryKind('returns-told', ReturnsTold, {
	about: 'How often a fault that comes and goes came before it was mended.',
	group: 'said',
	writer: 'rule',
	changesVerdicts: true,
	line: ({ returns, overKm, from, conditions, dtc }) =>
		line(
			`It came ${returns === 1 ? 'once' : `${returns} times`} in ${short(overKm)} km`,
			[describeCode(dtc).text, `by ${from}`, conditions].filter(Boolean).join(', ')
		)
});
