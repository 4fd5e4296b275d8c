import { policyAt } from '../src/lib/core/path/policy';
import type { Policy } from '../src/lib/core/path/repairCost';
import { WrongUsage } from './command';

/** `--proving`: from track record (0) to prove first (1), which is usual. */
export function readPolicy(text: string | undefined): Policy {
	const proving = text === undefined ? 1 : text.trim() === '' ? NaN : Number(text);
	if (!(proving >= 0 && proving <= 1))
		throw new WrongUsage(`--proving goes from 0 (track record) to 1 (prove first), not "${text}"`);
	return policyAt(proving);
}
