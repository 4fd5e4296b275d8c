import type { CaseFacts } from './caseFacts';
import { happenedAfter } from '../thread/thread';
import { fail, ok, type Result } from '../../core/result';

export interface ClearTarget {
	address: string;
	name: string;
}

/**
 * Whether codes may be cleared now: nothing is cleared before it is recorded. Gives the modules to clear – all that
 * answered the last reading, or the one asked for – or the reason against it.
 */
export function mayClear(
	{ entries, lastScan, lastCompleteScan, lastClear, signature }: CaseFacts,
	only: string | null
): Result<ClearTarget[]> {
	if (signature) return fail('This case is signed: nothing more is done on it.');
	const reading = only === null ? lastCompleteScan : lastScan;
	if (!reading) return fail('Nothing is cleared before it is recorded: read every module first.');
	if (lastClear && !happenedAfter(entries, reading, lastClear)) {
		return fail('Read again first: what has come back since the last clear is not recorded yet.');
	}
	const answered = reading.payload.modules.filter((module) => module.answered);
	const chosen = answered.filter((module) => only === null || module.address === only);
	if (chosen.length === 0) {
		return fail(
			only === null ? 'No module answered the last reading.' : 'That module did not answer the last reading.'
		);
	}
	const unread = chosen.find((module) => module.trouble !== null);
	if (unread) return fail(`${unread.name}: ${unread.trouble} Clearing it would lose what it holds.`);
	return ok(chosen.map(({ address, name }) => ({ address, name })));
}
