import { entryKind, line } from '../kind';
import { Release } from './payload';

export const release = entryKind('release', Release, {
	about: 'Something that stands between a case and its signature, released by a lead.',
	group: 'done',
	writer: 'rule',
	changesVerdicts: false,
	line: ({ words, why }) => line(`Released: ${words}`, why)
});
