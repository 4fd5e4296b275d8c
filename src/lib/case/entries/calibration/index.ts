import { entryKind, line } from '../kind';
import { calibrations } from '../../../../../library/calibrations';
import { CalibrationTried } from './payload';

export const calibration = entryKind('calibration', CalibrationTried, {
	about: 'A calibration that was tried: conditions, values before and after, how it ended.',
	group: 'done',
	writer: 'work',
	changesVerdicts: true,
	line: ({ name, how, state, values, detail }) => {
		const shown = values
			.filter(({ after }) => after !== null)
			.map(
				({ name: of, before, after, unit }) => `${of} ${before ?? 'none'} → ${after}${unit ? ` ${unit}` : ''}`
			);
		return line(
			`${name}: ${state}`,
			shown.length > 0
				? shown.join(', ')
				: detail || (how === 'link' ? 'through the link' : how.replace('-', ' ')),
			state === 'done' ? null : detail
		);
	},
	names: ({ calibration: id }) => [['calibration', id, calibrations]]
});
