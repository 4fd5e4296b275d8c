import { entryKind, line } from '../kind';
import { fittingSheets } from '../../../../../library/fittingSheets';
import { lowerFirst, positionWords } from '../../words';
import { count } from '../lineWords';
import { fittingLacks } from './lacks';
import { Fitting } from './payload';

const MOST_LACKS = 3;

export const fitting = entryKind('fitting', Fitting, {
	about: 'A sheet worked through while something was fitted: cautions read, steps, torques, photos.',
	group: 'done',
	writer: 'hand',
	changesVerdicts: false,
	line: (payload) => {
		const { name, place, steps } = payload;
		const lacks = fittingLacks(payload);
		const done = steps.filter(({ state }) => state === 'done').length;
		return line(
			`${place ? `${positionWords(place)}: ` : ''}${lowerFirst(name)} fitted`,
			`${done} of ${count(steps.length, 'step')}`,
			lacks.length > 0 ? lacks.slice(0, MOST_LACKS).join('; ') : null
		);
	},
	names: ({ sheet }) => [['fitting sheet', sheet, fittingSheets]],
	photos: ({ part }) => part.photos
});
