import { entryKind, line } from '../kind';
import { repairs } from '../../../../../library/repairs';
import { lowerFirst } from '../../words';
import { RepairPlanned } from './payload';

export const repairPlanned = entryKind('repair-planned', RepairPlanned, {
	about:
		'A repair that was decided on before it was begun: whether it can be finished here, and over what it was chosen.',
	group: 'done',
	writer: 'hand',
	changesVerdicts: true,
	line: ({ title, answer, missing, because }) =>
		line(
			`Chosen: ${lowerFirst(title)}`,
			because ||
				(answer === 'yes' ? 'can be finished here' : `lacks ${missing.map(({ words }) => words).join(', ')}`),
			answer === 'yes' ? null : answer === 'partly' ? 'only partly here' : 'not to be begun here'
		),
	names: ({ repair }) => [['repair', repair, repairs]]
});
