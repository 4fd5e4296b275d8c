import { kindOfFailure } from '../../../../library/failureTypes';
import { codeName } from '../../core/codes/codeId';
import { decodeStatus } from '../../core/codes/status';
import type { CaseFacts } from './caseFacts';

/** Kinds of failure that are electrical: with one of them standing, a sensor must not be taught. */
const CIRCUIT = new Set([
	'electrical',
	'short-to-ground',
	'short-to-supply',
	'open',
	'short-to-ground-or-open',
	'short-to-supply-or-open',
	'high-resistance',
	'range-low',
	'range-high',
	'out-of-range'
]);

/** Electrical codes that fail in a module by its last reading. */
export function circuitCodesIn({ lastScan }: Pick<CaseFacts, 'lastScan'>, address: string): string[] {
	const codes = lastScan?.payload.modules.find((module) => module.address === address)?.codes ?? [];
	return codes
		.filter(
			({ dtc, status }) =>
				decodeStatus(status).testFailed && CIRCUIT.has(kindOfFailure(dtc, null)?.class ?? '')
		)
		.map(({ dtc }) => codeName(dtc));
}
