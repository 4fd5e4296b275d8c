import { codeKey } from '../../core/codes/codeKey';
import type { VehicleType } from '../../../../library';
import type { CodeBook } from '../../../../library/codes';
import { isKnownSight } from '../../../../library/reason/ruledSigns';
import { againKey, splitKey } from '../../../../library/reason/signs';
import { givenSameLine } from '../../../../library/reason/sameLine';
import { isRepeated } from '../../../../library/reason/tests';
import type { Observation } from '../../core/path/model';
import { isMending } from '../mend/calibrations';
import type { CaseCode } from '../codes/caseCode';
import type { Since } from '../entries/kind';
import { isDrive } from '../entries/live-recording/evidence';
import { featureOf } from '../entries/registry';
import type { Entry } from '../entries/entry';
import { InTheWay, MODULE } from '../thread/inTheWay';

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
	return followed(entries, type, book, codes).observations;
}

/** Wheels whose value their module keeps as it was, since their code failed: what live data say of them is no evidence. */
export const frozenWheels = (
	entries: readonly Entry[],
	type: VehicleType,
	book: CodeBook,
	codes: readonly CaseCode[]
): string[] => [...followed(entries, type, book, codes).state.frozen];

function followed(
	entries: readonly Entry[],
	type: VehicleType,
	book: CodeBook,
	codes: readonly CaseCode[]
): { observations: Observation[]; state: Course } {
	const ours = new Set(codes.filter(({ madeByUs }) => madeByUs !== null).map(codeKey));
	const around = { type, book, ours };
	const found = new Map<string, Observation>();
	const last = new Map<string, string>();
	const state = new Course();
	for (const entry of entries) {
		state.follow(entry);
		if (entry.kind === 'unknown') continue;
		const seen = featureOf(entry.kind).seen?.(entry.payload, around, state) ?? {};
		state.noteCodes(seen);
		for (const [sign, outcome] of Object.entries(seen)) {
			if (!isKnownSight(sign, outcome) || state.saysNothing(entry.kind, sign, outcome)) continue;
			const once = `${state.epoch}/${sign}`;
			const before = last.get(once);
			const again = before !== undefined && isRepeated(splitKey(sign).sign);
			const given = givenSameLine(sign, (key) => last.get(`${state.epoch}/${key}`), type);
			last.set(once, outcome);
			found.set(again ? `${once}/${entry.id}` : once, {
				sign: again ? againKey(sign, before) : given,
				outcome,
				entry: entry.id,
				epoch: state.epoch
			});
		}
	}
	return { observations: [...found.values()], state };
}

/** Each wheel is held against the others in them. */
const WHEELS_TOGETHER: ReadonlySet<string> = new Set(['road', 'spin']);
/** Readings of live values. */
const LIVE_KINDS: ReadonlySet<Entry['kind']> = new Set(['live-recording', 'wheel-round']);
/** How a value looks that its module does not renew. */
const STANDS_STILL: Record<string, readonly string[]> = {
	road: ['zero', 'not-available', 'nothing'],
	spin: ['dead', 'not-trusted']
};

/** What has happened since the last repair, which decides what a reading of codes says. */
class Course implements Since {
	epoch = 0;
	cleared = false;
	cycled = false;
	driven = false;
	private readonly way = new InTheWay();
	/** Wheels whose value the module keeps as it was since their code failed: until it is cleared, or the key is turned off. */
	readonly frozen = new Set<string>();

	/** Codes of this epoch are as they came, not yet cleared. */
	get asItCame(): boolean {
		return this.epoch === 0 && !this.cleared;
	}

	/** What a reading of codes says of values that stand still from then on. */
	noteCodes(seen: Readonly<Record<string, string>>): void {
		for (const [key, outcome] of Object.entries(seen)) {
			const { sign, place } = splitKey(key);
			if (sign === 'wheel-now' && outcome === 'failing') this.frozen.add(place);
		}
	}

	/** Whether a sign is of our own making, or of a value that only stands still: then it is no evidence. */
	saysNothing(kind: Entry['kind'], key: string, outcome: string): boolean {
		const { sign, place } = splitKey(key);
		const { way } = this;
		// What such a test itself showed is what it was made for.
		if (way.at(place) && kind !== 'swap' && kind !== 'substitution') return true;
		// Another module has codes of its own.
		if (way.swapped.has(MODULE) && kind === 'network-scan') return true;
		if (way.places.size > 0 && WHEELS_TOGETHER.has(sign)) return true;
		return LIVE_KINDS.has(kind) && this.frozen.has(place) && (STANDS_STILL[sign]?.includes(outcome) ?? false);
	}

	follow(entry: Entry): void {
		this.way.follow(entry);
		if (entry.kind === 'codes-cleared' || entry.kind === 'key-cycled') this.frozen.clear();
		if (isMending(entry)) {
			this.epoch += 1;
			this.cleared = this.cycled = this.driven = false;
		} else if (entry.kind === 'codes-cleared') {
			this.cleared = true;
			this.cycled = this.driven = false;
		} else if (entry.kind === 'key-cycled') this.cycled = true;
		else if (
			this.way.places.size === 0 &&
			(entry.kind === 'proving-drive' || (entry.kind === 'live-recording' && isDrive(entry.payload)))
		)
			this.driven = true;
	}
}
