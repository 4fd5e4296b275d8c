import { LAMPS } from '../../../../library/positions';
import type { Verdict } from '../../core/prove/proof';
import { lampHistory, type LampCode } from '../codes/lampTold';
import type { Entry, EntryOf } from '../entries/entry';
import type { CaseFacts } from '../codes/caseFacts';
import { happenedAfter, latest } from '../thread/thread';

/** The steps from a clear to proof, each with the entry that did it since the last clear; null = it is still to be done. */
export interface ProofSteps {
	clear: EntryOf<'codes-cleared'> | null;
	key: EntryOf<'key-cycled'> | null;
	lamps: EntryOf<'lamp-check'> | null;
	drive: EntryOf<'proving-drive'> | null;
	/** A reading counts only after everything that could have changed what it says. */
	read: EntryOf<'network-scan'> | null;
}

export function proofSteps({
	entries,
	lastClear,
	lastCompleteScan
}: Pick<CaseFacts, 'entries' | 'lastClear' | 'lastCompleteScan'>): ProofSteps {
	const since = <K extends 'key-cycled' | 'lamp-check' | 'proving-drive'>(kind: K): EntryOf<K> | null => {
		const entry = latest(entries, kind);
		return lastClear && entry && happenedAfter(entries, entry, lastClear) ? entry : null;
	};
	const before = [lastClear, latest(entries, 'key-cycled'), latest(entries, 'proving-drive')];
	const readSince =
		lastClear !== null &&
		lastCompleteScan !== null &&
		before.every((step) => happenedAfter(entries, lastCompleteScan, step));
	return {
		clear: lastClear,
		key: since('key-cycled'),
		lamps: since('lamp-check'),
		drive: since('proving-drive'),
		read: readSince ? lastCompleteScan : null
	};
}

type Lamp = (typeof LAMPS)[number];
/** Watched where nobody has said which lamps were on. */
const USUAL_LAMPS: readonly Lamp[] = ['anti-lock', 'stability'];

/** The lamps that are watched at key-on: those that the customer told of. */
export function lampsToWatch(entries: readonly Entry[]): readonly Lamp[] {
	const told = latest(entries, 'lamps-reported')?.payload.lamps.map(({ lamp }) => lamp) ?? [];
	return told.length > 0 ? LAMPS.filter((lamp) => told.includes(lamp)) : USUAL_LAMPS;
}

/** What is on its way to being proven is not cleared again by a slip of the hand. */
const ON_ITS_WAY: ReadonlySet<Verdict> = new Set([
	'proven-clear',
	'released',
	'test-not-run',
	'not-all-shown',
	'not-far-enough'
]);
export const mayBeClearedAgain = (verdict: Verdict): boolean => !ON_ITS_WAY.has(verdict);

/** How a code that a lamp told of stands. */
export type LampCodeNow = 'not-mended' | 'told-before-repair' | 'told-since-repair' | 'no-longer-told';

export const LAMP_CODE_WORDS: Record<LampCodeNow, string> = {
	'not-mended': 'told, and nothing is mended',
	'no-longer-told': 'no longer told',
	'told-since-repair': 'told since the repair',
	'told-before-repair': 'told before the repair'
};

/** What stands between a lamp and proof, for a vehicle that has nothing else to tell by. */
export interface LampProof {
	read: boolean;
	codes: (LampCode & { now: LampCodeNow })[];
	/** The drive since the last repair; null = none yet. */
	drive: EntryOf<'proving-drive'> | null;
	clean: boolean;
}

/** @returns null for a vehicle that has a link */
export function lampProof(entries: readonly Entry[]): LampProof | null {
	const story = lampHistory(entries);
	if (!story) return null;
	const drive = latest(entries, 'proving-drive');
	const stillTold = new Set(story.told.map(({ code }) => code));
	return {
		read: story.read,
		codes: story.codes.map((code) => ({
			...code,
			now: story.toldNone
				? 'no-longer-told'
				: story.mended === null
					? 'not-mended'
					: stillTold.has(code.code)
						? 'told-since-repair'
						: 'told-before-repair'
		})),
		drive: drive && happenedAfter(entries, drive, story.mended) ? drive : null,
		clean: story.toldNone && story.drivenBefore
	};
}
