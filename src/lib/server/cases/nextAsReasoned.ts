import { STATIONS } from '../../case/progress/stations';
import type { NextStep } from '../../case/progress/step';
import type { Services } from '../services';
import { nextIn, stampOf } from '../db/outlook';
import { knownHere } from './knownHere';
import type { LoadedCase } from './loadedCase';

const REASON = { station: 'reason', anchor: 'next-test' } as const;

/**
 * The next step of a case as far as it is worked out: by the thread's order at once, by the reasoning as soon as that has
 * followed. Nobody waits for it here; whoever has the case open hears when it is there.
 *
 * @returns its stamp too, of what was at hand: '' = nothing yet, null = the reasoning has no say in this step
 */
export async function nextAsReasoned(
	services: Services,
	caseId: string,
	loading: Promise<LoadedCase>
): Promise<{ next: NextStep | null; nextStamp: string | null }> {
	const [{ thread, view }, { stamp: known }, outlook] = await Promise.all([
		loading,
		knownHere(services),
		services.outlooks.read(caseId)
	]);
	const { next } = view;
	// A step with a page of its own is done there.
	if (!next?.seeks || next.page !== undefined) return { next, nextStamp: null };
	services.outlooks.keepUp(caseId, outlook, { seq: thread.length, known });
	const nextStamp = outlook ? stampOf(outlook) : '';
	const reasoned = nextIn(outlook, { seq: thread.length, known });
	if (!reasoned) return { next, nextStamp };
	const { title, why, path } = reasoned;
	const station = STATIONS.find(({ id }) => path?.split(/[/?]/)[0] === id)?.id;
	const where = path && station ? { station, anchor: station, path } : REASON;
	return { next: { ...next, ...where, title, why }, nextStamp };
}
