import { entryKind, line } from '../kind';
import { FAMILY_WORDS } from '../../../../../library/sensorFamilies';
import { positionWords } from '../../words';
import { SensorIdentified } from './payload';

export const sensorIdentified = entryKind('sensor-identified', SensorIdentified, {
	about: 'Which family a wheel’s sensor is of, and by what.',
	group: 'tested',
	writer: 'hand',
	mayBeWithdrawn: true,
	changesVerdicts: false,
	line: ({ position, family, probability, answers }) => {
		const how =
			Object.keys(answers).length === 0
				? 'by the vehicle’s data'
				: `${Math.round(100 * probability)} % by what was seen`;
		return line(
			`Sensor: ${FAMILY_WORDS[family].name}`,
			`${position ? positionWords(position) : 'all wheels'}, ${how}`
		);
	}
});
