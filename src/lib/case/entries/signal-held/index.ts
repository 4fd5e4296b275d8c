import { entryKind, line } from '../kind';
import { substituteMethods } from '../../../../../library/measure';
import { lowerFirst, positionWords } from '../../words';
import { SignalHeld } from './payload';

const METHODS = new Set(substituteMethods.map(({ id }) => id));

export const signalHeld = entryKind('signal-held', SignalHeld, {
	about:
		'A signal of ours put in place of a sensor, or taken off: between the two, nothing that is read there is evidence.',
	group: 'done',
	writer: 'hand',
	changesVerdicts: true,
	line: ({ position, name, on }) =>
		line(
			`${positionWords(position)}: ${on ? 'a signal of ours is on' : 'our signal is off'}`,
			lowerFirst(name)
		),
	names: ({ method }) => [['method', method, METHODS]]
});
