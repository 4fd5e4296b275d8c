import { entryKind, line } from '../kind';
import { replacedKey } from '../../../../../library/reason/ruledSigns';
import { works } from '../../../../../library/vocabulary';
import { PriorWork } from './payload';
import { worthOf } from './worth';

export const priorWork = entryKind('prior-work', PriorWork, {
	about: 'What others have worked on before.',
	group: 'said',
	writer: 'hand',
	atDesk: true,
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
			done.flatMap((one) => {
				const repair = works.get(one.work ?? '')?.repair;
				// That a fault stayed has to be said: a part may have been renewed long before it came.
				return repair && one.stayed
					? [[replacedKey(repair, worthOf(one), one.position ?? null), 'did-not-help']]
					: [];
			})
		)
});
