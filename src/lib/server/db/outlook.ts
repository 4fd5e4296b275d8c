/** Minutes still to go of a case, from thread of a length. */
export interface Outlook {
	seq: number;
	/** What the shop knew besides, when it was worked out. */
	known: string;
	meanMinutes: number | null;
	lowMinutes: number | null;
	highMinutes: number | null;
	/** The mean before the entry at place `turnedAt` of the thread made it another; null where none did. */
	wasMinutes: number | null;
	turnedAt: number | null;
	/** The next step as the reasoning has it; null = as the thread's order says. */
	nextTitle: string | null;
	nextWhy: string | null;
	nextPath: string | null;
}

/** From here on a change of the minutes still to go is told, with what made it. */
const A_JUMP = 2;

/** What of the minutes was before the newest entry, where that made them others by far. @param before as last worked out */
export function turned(
	before: Pick<Outlook, 'seq' | 'meanMinutes' | 'wasMinutes' | 'turnedAt'> | null,
	seq: number,
	mean: number | null
): Pick<Outlook, 'wasMinutes' | 'turnedAt'> {
	if (!before) return { wasMinutes: null, turnedAt: null };
	// From the same thread it is still the same entry that did it.
	if (before.turnedAt === seq) return { wasMinutes: before.wasMinutes, turnedAt: seq };
	const was = before.meanMinutes;
	if (!was || !mean || Math.max(was / mean, mean / was) < A_JUMP) return { wasMinutes: null, turnedAt: null };
	return { wasMinutes: was, turnedAt: seq };
}

/** Says which working-out it was: another where the thread grew, or the shop knows something else. */
export const stampOf = ({ seq, known }: Pick<Outlook, 'seq' | 'known'>): string => `${seq}:${known}`;

/** The next step in what was worked out, where it still holds and the reasoning had a say in it. */
export function nextIn(
	outlook: Outlook | null,
	now: Pick<Outlook, 'seq' | 'known'>
): { title: string; why: string; path: string | null } | null {
	if (outlook?.seq !== now.seq || outlook.known !== now.known) return null;
	const { nextTitle: title, nextWhy: why, nextPath: path } = outlook;
	return title && why ? { title, why, path } : null;
}
