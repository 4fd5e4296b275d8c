/** Minutes still to go of a case, from thread of a length. */
export interface Outlook {
	seq: number;
	/** What the shop knew besides, when it was worked out. */
	known: string;
	meanMinutes: number | null;
	lowMinutes: number | null;
	highMinutes: number | null;
	/** The next step as the reasoning has it; null = as the thread's order says. */
	nextTitle: string | null;
	nextWhy: string | null;
}

/** The next step in what was worked out, where it still holds and the reasoning had a say in it. */
export function nextIn(
	outlook: Outlook | null,
	now: Pick<Outlook, 'seq' | 'known'>
): { title: string; why: string } | null {
	if (outlook?.seq !== now.seq || outlook.known !== now.known) return null;
	const { nextTitle: title, nextWhy: why } = outlook;
	return title && why ? { title, why } : null;
}
