import type { Entry, EntryOf } from '../entries/entry';
import { workOfRepair } from '../listen/complaint';
import { latest, ofKind } from '../thread/thread';
import { positionWords } from '../words';

/** The signed case that a case is a comeback of; null where it is none. */
export const comebackOf = (
	entries: readonly Entry[]
): EntryOf<'case-opened'>['payload']['comebackOf'] | null =>
	latest([...entries], 'case-opened')?.payload.comebackOf ?? null;

/**
 * What a comeback begins with: that it is one, and what was done then as work that is not proven good. The thread it comes
 * from stays closed.
 */
export function comebackStart(
	thread: readonly Entry[],
	number: string,
	by: string
): { opened: EntryOf<'case-opened'>['payload']; works: EntryOf<'prior-work'>['payload']['works'] } | null {
	const opened = latest([...thread], 'case-opened')?.payload;
	const last = thread.at(-1);
	if (!opened || !last) return null;
	return {
		opened: { ...opened, comebackOf: { caseId: last.caseId, number, lastHash: last.hash } },
		works: ofKind(thread, 'repair').flatMap(({ payload: { title, position, parts, does }, observedAt }) => {
			const work = workOfRepair(does?.kind);
			const where = position ? `, ${positionWords(position)}` : '';
			const when = observedAt.slice(0, 10);
			return [
				{
					part: `${title}${where}`,
					...(work ? { work } : {}),
					when,
					by,
					grade: parts[0]?.grade ?? ('unknown' as const),
					...(position ? { position } : {}),
					fitter: 'a workshop' as const,
					seen: true,
					// It came back: what was renewed has not ended it.
					stayed: true
				},
				...parts.map(({ name, grade }) => ({ part: `${name}${where}`, when, by, grade }))
			];
		})
	};
}
