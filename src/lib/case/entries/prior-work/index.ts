import { entryKind, line } from '../kind';
import { replacedKey } from '../../../../../library/reason/ruledSigns';
import { works } from '../../../../../library/vocabulary';
import { PriorWork } from './payload';

export const priorWork = entryKind('prior-work', PriorWork, {
	about: 'What others have worked on before.',
	group: 'said',
	writer: 'hand',
	changesVerdicts: false,
	line: ({ works: done }) =>
		line(
			'Work by others',
			done.length > 0 ? done.map(({ part }) => part).join(', ') : 'none known',
			done.length > 0 ? 'not proven good by being new' : null
		),
	search: { part: 'notes', of: 'latest', words: ({ works: done }) => done.map(({ part }) => part) },
	names: ({ works: done }) =>
		done.flatMap(({ work }) => (work === undefined ? [] : [['work', work, works] as const])),
	seen: ({ works: done }) =>
		Object.fromEntries(
			done.flatMap(({ work }) => {
				const repair = works.get(work ?? '')?.repair;
				return repair ? [[replacedKey(repair), 'did-not-help']] : [];
			})
		)
});
