import { entryKind, line } from '../kind';
import { inspections } from '../../../../../library/measure';
import { outcomeOfLook } from '../../../../../library/reason/sights';
import { signKey } from '../../../../../library/reason/signs';
import { lowerFirst, positionWords } from '../../words';
import { count } from '../lineWords';
import { InspectionDone } from './payload';

const INSPECTIONS = new Set(inspections.map(({ id }) => id));

export const inspection = entryKind('inspection', InspectionDone, {
	about: 'What was looked at, and what was seen.',
	group: 'tested',
	writer: 'hand',
	mayBeWithdrawn: true,
	changesVerdicts: false,
	line: ({ position, name, result, found, photos }) => {
		const seen = found.length > 0 ? found.join(', ') : result === 'good' ? 'nothing wrong' : 'not sure';
		return line(
			`${positionWords(position)}: ${lowerFirst(name)}`,
			photos.length > 0 ? `${seen}, ${count(photos.length, 'photo')}` : seen,
			result === 'bad' ? 'bad' : null
		);
	},
	names: ({ inspection: id }) => [['inspection', id, INSPECTIONS]],
	photos: ({ photos }) => photos,
	seen({ position, result, ...ticked }) {
		if (result === 'unsure' || !INSPECTIONS.has(ticked.inspection)) return {};
		const key = signKey(`look:${ticked.inspection}`, position);
		return { [key]: result === 'good' ? 'good' : outcomeOfLook(ticked) };
	}
});
