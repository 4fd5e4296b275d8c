import { entryKind, line } from '../kind';
import { SourceJudged } from './payload';

export const sourceJudged = entryKind('source-judged', SourceJudged, {
	about: 'Two sources differ about a code: which one this vehicle supports.',
	group: 'said',
	writer: 'hand',
	changesVerdicts: false,
	line: ({ code, failureType, supported, because }) =>
		line(
			`${code}${failureType ? `-${failureType}` : ''}: ${supported.name} is right here`,
			because,
			supported.says
		),
	search: { part: 'notes', of: 'each', words: ({ because }) => [because] }
});
