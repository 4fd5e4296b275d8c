import { STATIONS } from '../../case/progress/stations';
import type { NextStep } from '../../case/progress/step';
import type { Services } from '../services';
import { nextIn } from '../db/outlook';
import { knownHere } from './knownHere';
import type { LoadedCase } from './loadedCase';

/**
 * The next step of a case as far as it is worked out: by the thread's order at once, by the reasoning as soon as that has
 * followed. Nobody waits for it here; whoever has the case open hears when it is there.
 */
export async function nextAsReasoned(
	services: Services,
	{ row, thread, view }: LoadedCase
): Promise<NextStep | null> {
	const { next } = view;
	// A step with a page of its own is done there.
	if (!next?.seeks || next.page !== undefined) return next;
	const { stamp: known } = await knownHere(services);
	const outlook = await services.outlooks.of(row.id, { seq: thread.length, known });
	const reasoned = nextIn(outlook, { seq: thread.length, known });
	if (!reasoned) return next;
	const { title, why, path } = reasoned;
	const station = STATIONS.find(({ id }) => path?.split(/[/?]/)[0] === id)?.id;
	return path && station
		? { ...next, station, anchor: station, title, why, path }
		: { ...next, station: 'reason', anchor: 'next-test', title, why };
}
