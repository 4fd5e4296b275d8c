import { entryKind, line } from '../kind';
import { EstimateAnswered } from './payload';

export const estimateAnswered = entryKind('estimate-answered', EstimateAnswered, {
	about: 'What the customer said to an estimate, who said it and how.',
	group: 'said',
	writer: 'hand',
	atDesk: true,
	changesVerdicts: false,
	line: ({ agrees, upTo, who, how, words }) =>
		line(
			!agrees
				? 'The customer does not agree'
				: upTo === null
					? 'The customer agrees to the estimate'
					: 'The customer agrees to a part of the estimate',
			[`${who}, ${how}`, words].filter(Boolean).join('; ')
		)
});
