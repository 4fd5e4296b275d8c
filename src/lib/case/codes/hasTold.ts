import type { CaseFacts } from './caseFacts';
import { lampHistory } from './lampTold';

/** Whether the vehicle itself has told anything, by its modules or its lamp: before that there is nothing to reason from. */
export const hasTold = ({ entries, lastScan }: Pick<CaseFacts, 'entries' | 'lastScan'>): boolean =>
	lastScan !== null || lampHistory(entries)?.read === true;
