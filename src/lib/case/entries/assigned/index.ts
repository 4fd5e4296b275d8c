import { entryKind, line } from '../kind';
import { Assigned } from './payload';

export const assigned = entryKind('assigned', Assigned, {
	about: 'Who has the case, or that whoever is free first takes it.',
	group: 'said',
	writer: 'hand',
	atDesk: true,
	changesVerdicts: false,
	line: ({ to }) =>
		line(to ? `Given to ${to.name}` : 'Given to nobody', to ? '' : 'Whoever is free first takes it.')
});
