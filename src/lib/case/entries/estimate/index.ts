import { moneyWords } from '../../../core/money/money';
import { entryKind, line } from '../kind';
import { repairs } from '../../../../../library/repairs';
import { Estimate, sumOfEstimate } from './payload';

export const estimate = entryKind('estimate', Estimate, {
	about: 'What the work is to cost, line by line, as the customer is told.',
	group: 'done',
	writer: 'hand',
	atDesk: true,
	changesVerdicts: false,
	line: ({ note, ...asked }) =>
		line(
			`Estimated: ${moneyWords(sumOfEstimate(asked).total, asked.currency)}`,
			[asked.lines.map(({ what }) => what).join(', '), note].filter(Boolean).join('; ')
		),
	names: ({ lines }) =>
		lines.flatMap(({ repair }) => (repair ? [['repair', repair.kind, repairs] as const] : []))
});
