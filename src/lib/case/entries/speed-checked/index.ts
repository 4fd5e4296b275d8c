import { positionWords, short, upperFirst } from '../../words';
import { signKey } from '../../../../../library/reason/signs';
import { TRUE_SPEED, trueSpeedOf } from '../../../../../library/reason/trueSpeed';
import { entryKind, line } from '../kind';
import { SpeedChecked } from './payload';

const SOURCE_WORDS = { satellites: 'by satellites', roller: 'on a roller' };
const HOW = { right: '', fast: 'fast', slow: 'slow' };

export const speedChecked = entryKind('speed-checked', SpeedChecked, {
	about: 'The speed of each wheel against a speed from elsewhere: satellites or a roller.',
	group: 'tested',
	writer: 'hand',
	mayBeWithdrawn: true,
	changesVerdicts: true,
	line: ({ by, trueKmh, wheels }) => {
		const off = wheels.flatMap(({ position, kmh }) => {
			const how = HOW[trueSpeedOf(kmh, trueKmh)];
			return how ? [`${positionWords(position)} tells ${kmh}, ${how}`] : [];
		});
		return line(
			`Speed against ${short(trueKmh)} km/h ${SOURCE_WORDS[by]}`,
			off.length > 0 ? upperFirst(off.join('; ').toLowerCase()) : 'every wheel tells it'
		);
	},
	seen: ({ trueKmh, wheels }) =>
		Object.fromEntries(
			wheels.map(({ position, kmh }) => [signKey(TRUE_SPEED, position), trueSpeedOf(kmh, trueKmh)])
		)
});
