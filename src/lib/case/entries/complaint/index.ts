import { entryKind, quote } from '../kind';
import { signKey } from '../../../../../library/reason/signs';
import { circumstances, symptoms } from '../../../../../library/vocabulary';
import { complaintDetails } from '../../listen/complaint';
import { Complaint } from './payload';

export const complaint = entryKind('complaint', Complaint, {
	about: 'What the customer says, and what of it was chosen from the vocabulary.',
	group: 'said',
	writer: 'hand',
	atDesk: true,
	changesVerdicts: false,
	line: ({ words }) => quote('Complaint', words),
	search: {
		part: 'complaint',
		of: 'latest',
		words: (payload) => [payload.words, ...complaintDetails(payload)]
	},
	names: ({ felt = [], when = [] }) => [
		...felt.map((id) => ['symptom', id, symptoms] as const),
		...when.map((id) => ['circumstance', id, circumstances] as const)
	],
	seen: ({ felt = [] }) =>
		Object.fromEntries(
			felt.flatMap((id) => {
				const sign = symptoms.get(id)?.sign;
				return sign ? [[signKey(sign, 'vehicle'), 'yes']] : [];
			})
		)
});
