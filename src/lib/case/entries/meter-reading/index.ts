import { entryKind, line } from '../kind';
import { measurements } from '../../../../../library/measure';
import { valueWords, windowWords } from '../../measure/measureWords';
import { lowerFirst, positionWords } from '../../words';
import { meterSeen } from './evidence';
import { MeterReading } from './payload';

const MEASUREMENTS = new Set(measurements.map(({ id }) => id));

export const meterReading = entryKind('meter-reading', MeterReading, {
	about: 'A reading of the meter, the window it was held against, and how it was judged.',
	group: 'tested',
	writer: 'hand',
	mayBeWithdrawn: true,
	changesVerdicts: true,
	line: ({ position, name, value, quantity, judged, window }) => {
		const where = position ? `${positionWords(position)}: ` : '';
		const out =
			judged === 'in' ? null : judged === 'out' ? 'outside its window' : 'on the edge of its window';
		return line(
			`${where}${valueWords(value, quantity)}`,
			`${lowerFirst(name)}, expected ${windowWords(window, quantity)}`,
			out
		);
	},
	names: ({ measurement }) => [['measurement', measurement, MEASUREMENTS]],
	seen: meterSeen
});
