import { entryKind, line } from '../kind';
import { repairs } from '../../../../../library/repairs';
import { positionWords } from '../../words';
import { Repair } from './payload';

export const repair = entryKind('repair', Repair, {
	about: 'A repair that was done: parts, place, and which repair of the library it was.',
	group: 'done',
	writer: 'hand',
	changesVerdicts: true,
	line: ({ title, position, parts, temporary }) =>
		line(
			title,
			[position ? positionWords(position) : 'vehicle', ...parts.map(({ name }) => name)].join(', '),
			temporary ? 'temporary' : null
		),
	search: {
		part: 'mended',
		of: 'each',
		words: ({ title, parts, note }) => [[title, ...parts.map(({ name }) => name), note].join(', ')]
	},
	names: ({ does }) => (does ? [['repair', does.kind, repairs]] : [])
});
