import { codeKey } from '../../core/codes/codeKey';
import type { VehicleType } from '../../../../library';
import type { CodeBook } from '../../../../library/codes';
import { isKnownSight } from '../../../../library/reason/ruledSigns';
import { againKey, splitKey } from '../../../../library/reason/signs';
import { isRepeated } from '../../../../library/reason/tests';
import type { Observation } from '../../core/path/model';
import { isMending } from '../mend/calibrations';
import type { CaseCode } from '../codes/caseCode';
import type { Since } from '../entries/kind';
import { isDrive } from '../entries/live-recording/evidence';
import { featureOf } from '../entries/registry';
import type { Entry } from '../entries/entry';

/**
 * What every entry of a thread says in the words of the library's signs. Of a sign that was seen more than once between two
 * repairs the latest counts: the same thing looked at twice is one thing. Only what is done again to catch something that
 * comes and goes counts each time.
 *
 * @param entries standing entries in order
 */
export function observationsOf(
	entries: readonly Entry[],
	type: VehicleType,
	book: CodeBook,
	codes: readonly CaseCode[]
): Observation[] {
	const ours = new Set(codes.filter(({ madeByUs }) => madeByUs !== null).map(codeKey));
	const around = { type, book, ours };
	const found = new Map<string, Observation>();
	const last = new Map<string, string>();
	const state = new Course();
	for (const entry of entries) {
		state.follow(entry);
		if (entry.kind === 'unknown') continue;
		const seen = featureOf(entry.kind).seen?.(entry.payload, around, state) ?? {};
		for (const [sign, outcome] of Object.entries(seen)) {
			if (!isKnownSight(sign, outcome)) continue;
			const once = `${state.epoch}/${sign}`;
			const before = last.get(once);
			last.set(once, outcome);
			const again = before !== undefined && isRepeated(splitKey(sign).sign);
			found.set(again ? `${once}/${entry.id}` : once, {
				sign: again ? againKey(sign, before) : sign,
				outcome,
				entry: entry.id,
				epoch: state.epoch
			});
		}
	}
	return [...found.values()];
}

/** What has happened since the last repair, which decides what a reading of codes says. */
class Course implements Since {
	epoch = 0;
	cleared = false;
	cycled = false;
	driven = false;
	/** Codes of this epoch are as they came, not yet cleared. */
	get asItCame(): boolean {
		return this.epoch === 0 && !this.cleared;
	}

	follow(entry: Entry): void {
		if (isMending(entry)) {
			this.epoch += 1;
			this.cleared = this.cycled = this.driven = false;
		} else if (entry.kind === 'codes-cleared') {
			this.cleared = true;
			this.cycled = this.driven = false;
		} else if (entry.kind === 'key-cycled') this.cycled = true;
		else if (entry.kind === 'proving-drive' || (entry.kind === 'live-recording' && isDrive(entry.payload)))
			this.driven = true;
	}
}
