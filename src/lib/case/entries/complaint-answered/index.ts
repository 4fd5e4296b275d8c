import { signKey } from '../../../../../library/reason/signs';
import { symptoms } from '../../../../../library/vocabulary';
import { ANSWER_WORDS, thingWords } from '../../listen/complaintWords';
import { entryKind, line } from '../kind';
import { ComplaintAnswered } from './payload';

export const complaintAnswered = entryKind('complaint-answered', ComplaintAnswered, {
	about: 'What came of one thing that the customer said: reproduced, not reproduced, gone or explained.',
	group: 'tested',
	writer: 'hand',
	changesVerdicts: true,
	line: (payload) => line(`Customer’s words: ${thingWords(payload)}`, payload.why, ANSWER_WORDS[payload.how]),
	names: ({ what, thing }) => (what === 'felt' ? [['symptom', thing, symptoms]] : []),
	seen: ({ what, thing, how }) => {
		const sign = what === 'felt' && how === 'shows-again' ? symptoms.get(thing)?.sign : null;
		return sign ? { [signKey(sign, 'vehicle')]: 'yes' } : {};
	}
});
