import { entryKind, line } from '../kind';
import { KeyCycled } from './payload';

export const keyCycled = entryKind('key-cycled', KeyCycled, {
	about: 'The key turned off and on, counted by the vehicle or by a person’s word.',
	group: 'done',
	writer: 'work',
	changesVerdicts: true,
	line: ({ confirmedBy }) =>
		line('Key cycled', confirmedBy === 'vehicle' ? 'counted by the gateway' : 'by the technician’s word')
});
