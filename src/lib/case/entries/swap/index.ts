import { swapKey, type SwapOutcome } from '../../../../../library/reason/swaps';
import { lowerFirst, positionWords } from '../../words';
import { entryKind, line } from '../kind';
import { Swap } from './payload';

const WHAT: Record<Swap['what'], string> = {
	sensors: 'sensors swapped',
	wheels: 'wheels swapped',
	module: 'module swapped for one known to be good'
};
const SAYS: Record<SwapOutcome, string> = {
	moved: 'the fault went with the part',
	stayed: 'the fault stayed where it was',
	gone: 'the fault is gone'
};

export const swap = entryKind('swap', Swap, {
	about: 'Parts that changed places to see whether the fault goes with them, and what was seen meanwhile.',
	group: 'tested',
	writer: 'hand',
	mayBeWithdrawn: true,
	changesVerdicts: true,
	line({ what, position, with: other, state, outcome }) {
		const wheels = [position, ...(other ? [other] : [])].map((one) => lowerFirst(positionWords(one)));
		const title = state === 'swapped' ? WHAT[what] : `${WHAT[what]}, back again`;
		return line(`${positionWords(position)}: ${title}`, wheels.join(' and '), outcome && SAYS[outcome]);
	},
	seen: ({ what, position, outcome }) => (outcome ? { [swapKey(what, position)]: outcome } : {})
});
