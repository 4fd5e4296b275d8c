import type { CodeBook } from '../../../../library/codes';
import type { Entry, EntryOf } from '../entries/entry';
import type { CaseCode } from './caseCode';
import type { OpenReason } from './openReason';

/** What a case has come to; computed once from its thread and handed round. */
export interface CaseFacts {
	/** Standing entries in order. */
	entries: Entry[];
	/** Where the words for its codes come from. */
	book: CodeBook;
	codes: CaseCode[];
	/** Codes that mean one thing or another by a numbering that nothing tells yet. */
	numberingOpen: string[];
	lastScan: EntryOf<'network-scan'> | null;
	lastCompleteScan: EntryOf<'network-scan'> | null;
	lastClear: EntryOf<'codes-cleared'> | null;
	signature: EntryOf<'signature'> | null;
	/** Why the case is not proven; empty = proven. */
	open: OpenReason[];
}
