import type { Position } from '../../../../library/positions';
import { isMending } from '../mend/calibrations';
import { typeOf } from '../thread/vehicleOf';
import { lampMeaningOf } from '../entries/lamp-read/meaning';
import type { Entry, EntryOf } from '../entries/entry';
import { happenedAfter, ofKind } from '../thread/thread';

/** What a vehicle says that nobody can talk to by a link: by its lamp alone. */

export interface LampCode {
	/** The groups of flashes: `2-3`. */
	code: string;
	/** What it says by its table; the number where none is known. */
	words: string;
	corner: Position | null;
}

export interface LampHistory {
	read: boolean;
	/** Codes that were ever told, in the order in which they were first seen. */
	codes: LampCode[];
	/** Codes that were told after the last repair. */
	told: LampCode[];
	/** Since the last repair the lamp told that nothing is kept. */
	toldNone: boolean;
	/** It was driven since the last repair, and the lamp read after that. */
	drivenBefore: boolean;
	mended: Entry | null;
}

/** What such a vehicle may lack until it is proven. */
export type LampLack =
	| { reason: 'lamp-not-read' | 'lamp-not-told-none' | 'lamp-not-driven' }
	| { reason: 'lamp-code-not-mended'; code: string; words: string };

/** What stands between a vehicle's lamp and proof; null for one that has a link, whose modules say it better. */
export function lampHistory(entries: readonly Entry[]): LampHistory | null {
	if (typeOf(entries)?.tells !== 'lamp') return null;
	const reads = ofKind(entries, 'lamp-read');
	const mended = entries.filter(isMending).at(-1) ?? null;
	const since = mended ? reads.filter((read) => happenedAfter(entries, read, mended)) : reads;
	const last = reads.at(-1) ?? null;
	const drive = ofKind(entries, 'proving-drive')
		.filter((one) => !mended || happenedAfter(entries, one, mended))
		.at(-1);
	const toldNone = last !== null && since.includes(last) && lampMeaningOf(last.payload)?.none === true;
	return {
		read: last !== null,
		codes: codesOf(reads),
		told: codesOf(since),
		toldNone,
		drivenBefore: Boolean(last && drive && happenedAfter(entries, last, drive)),
		mended
	};
}

function codesOf(reads: readonly EntryOf<'lamp-read'>[]): LampCode[] {
	const codes = new Map<string, LampCode>();
	for (const { payload } of reads) {
		const meaning = lampMeaningOf(payload);
		const code = payload.groups.join('-');
		if (meaning?.none) continue;
		codes.set(code, { code, words: payload.meaning || `lamp code ${code}`, corner: meaning?.corner ?? null });
	}
	return [...codes.values()];
}

/** What a vehicle that tells by its lamp lacks; empty = nothing, or it is not of that kind. */
export function lampOpen(entries: readonly Entry[]): LampLack[] {
	const story = lampHistory(entries);
	if (!story) return [];
	const { read, codes, toldNone, drivenBefore, mended } = story;
	if (!read) return [{ reason: 'lamp-not-read' }];
	if (codes.length === 0) return [];
	if (!mended)
		return codes.map(({ code, words }) => ({ reason: 'lamp-code-not-mended' as const, code, words }));
	if (!toldNone) return [{ reason: 'lamp-not-told-none' }];
	return drivenBefore ? [] : [{ reason: 'lamp-not-driven' }];
}
