import {
	ambiguousCodes,
	bookBy,
	isSettledBySource,
	numberingByCodes,
	numberingBySource,
	numberingOfSource,
	type Numbering
} from '../../../../library/numbering';
import type { CodeBook } from '../../../../library/codes';
import { onWheels } from '../../../../library/onWheels';
import { codeNumber } from '../../core/codes/codeId';
import { typeOf } from '../thread/vehicleOf';
import type { Entry } from '../entries/entry';

/** By which numbering the codes of a case are read. */
export interface CaseNumbering {
	/** The book to read them by. */
	book: CodeBook;
	/** Codes of this case that mean one thing or another, as nothing tells the numbering yet; empty = nothing is open. */
	open: string[];
}

/**
 * What tells the numbering of a vehicle: a person who judged a source by what was measured, then its maker's own source, then
 * the codes that its modules know. Where neither does, codes that its maker or the shop does not describe stay open. Whichever it
 * is, a code is of a wheel that the vehicle has.
 *
 * @param entries standing entries in order
 */
export function caseNumbering(entries: readonly Entry[], ofAll: CodeBook): CaseNumbering {
	const type = typeOf(entries);
	const book = type ? onWheels(ofAll, type) : ofAll;
	const told = new Set<string>();
	let numbering: Numbering | null = null;
	let judged: Numbering | null = null;
	for (const entry of entries) {
		if (entry.kind === 'source-judged' && ambiguousCodes.has(entry.payload.code))
			judged = numberingOfSource(entry.payload.supported.packId) ?? judged;
		if (entry.kind !== 'network-scan') continue;
		for (const { supported, codes } of entry.payload.modules) {
			const all = new Set([...supported, ...codes].map(({ dtc }) => codeNumber(dtc)));
			numbering = numberingByCodes(all, true) ?? numbering;
			for (const { dtc } of codes) told.add(codeNumber(dtc));
		}
	}
	const maker = type?.maker || null;
	const known = judged ?? numberingBySource(ofAll, maker) ?? numbering;
	if (known) return { book: bookBy(book, known), open: [] };
	const open = [...told].filter((code) => ambiguousCodes.has(code) && !isSettledBySource(book, code, maker));
	return { book, open };
}
