import { entryKind, line } from '../kind';
import { describeCode } from '../../codes/codeWords';
import { ProofWaived } from './payload';

export const proofWaived = entryKind('proof-waived', ProofWaived, {
	about: 'One thing of a proof that a lead lets go, by name.',
	group: 'done',
	writer: 'rule',
	changesVerdicts: true,
	line: ({ why, customer, residualChance, dtc }) =>
		line(
			`Let go: ${describeCode(dtc).text}`,
			[why, customer ? `customer: ${customer}` : ''].filter(Boolean).join('; '),
			residualChance === null
				? null
				: `unrepaired it would have stayed silent so far with ${(residualChance * 100).toFixed(0)} %`
		)
});
