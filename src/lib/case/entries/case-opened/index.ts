import { entryKind, line } from '../kind';
import { VehicleFacts } from './payload';

export const caseOpened = entryKind('case-opened', VehicleFacts, {
	about: 'Begins the thread: the vehicle and its type, and of which signed case it is a comeback.',
	group: 'said',
	writer: 'rule',
	changesVerdicts: false,
	line: ({ name, plate, comebackOf }) =>
		line(
			comebackOf ? `Comeback of ${comebackOf.number}` : 'Case opened',
			[name, plate].filter(Boolean).join(', ')
		)
});
