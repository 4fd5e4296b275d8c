import { entryKind, line } from '../kind';
import { calibrations } from '../../../../../library/calibrations';
import { lowerFirst } from '../../words';
import { CalibrationWaived } from './payload';

export const calibrationWaived = entryKind('calibration-waived', CalibrationWaived, {
	about: 'A calibration that a lead lets go, with the reason.',
	group: 'done',
	writer: 'rule',
	changesVerdicts: true,
	line: ({ name, why }) => line(`Waived: ${lowerFirst(name)}`, why),
	names: ({ calibration: id }) => [['calibration', id, calibrations]]
});
