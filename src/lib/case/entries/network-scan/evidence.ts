import { codeKey } from '../../../core/codes/codeKey';
import type { z } from 'zod';
import { codeForSigns } from '../../../../../library/reason/codeMoment';
import { codeSigns } from '../../../../../library/reason/codeSigns';
import { signKey, splitKey, type Seen } from '../../../../../library/reason/signs';
import { decodeStatus, tellsOfFault } from '../../../core/codes/status';
import type { Around, Since } from '../kind';
import type { NetworkScan } from './payload';

/** Who is silent, alone or with its segment. */
const SILENCE = ['silent', 'down', 'hushed'];

/** What a reading of all modules shows, by what has been done since the last repair. */
export function scanSeen(
	{ modules }: z.output<typeof NetworkScan>,
	{ type, book, ours }: Around,
	since: Since
): Seen {
	const scanned = modules.flatMap(({ address, answered, availabilityMask, codes }) => {
		const role = type.modules.find((module) => module.address === address)?.role;
		if (!role) return [];
		const counting = codes
			.filter(({ dtc, status }) => !ours.has(codeKey({ address, dtc })) && counts(status, since))
			.map((code) => codeForSigns(code, availabilityMask));
		return [{ role, answered, codes: counting }];
	});
	const all = codeSigns(scanned, type, book);
	const seen: Seen = {};
	for (const [key, outcome] of Object.entries(all)) {
		const { sign, place } = splitKey(key);
		// Who is silent now is silent, whatever was cleared.
		if (SILENCE.includes(sign) || since.asItCame || (since.cleared && since.driven))
			seen[key as keyof Seen] = outcome;
		else if (since.cleared || since.cycled) {
			// Read again standing. What is there again is there; that it stays away shows only after a key cycle.
			const back = sign === 'wheel-code' ? 'back' : sign === 'own-code' ? 'own-back' : null;
			if (back && outcome !== 'none') seen[signKey(back, place)] = 'yes';
			else if (back && since.cleared && since.cycled) seen[signKey(back, place)] = 'no';
		}
	}
	return seen;
}

/**
 * What is stored counts as it came; after a clear what has failed since; after a repair that no clear followed what fails in a
 * key cycle that began after it.
 */
function counts(status: number, since: Since): boolean {
	if (!tellsOfFault(status)) return false;
	if (since.asItCame || since.cleared) return true;
	const { testFailed, notTestedThisCycle } = decodeStatus(status);
	return since.cycled && testFailed && !notTestedThisCycle;
}
