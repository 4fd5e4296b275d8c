import { isReturned } from '../../core/prove/proof';
import type { Entry } from '../entries/entry';
import { projectCase, type CaseView } from './project';
import type { StationState } from './stations';
import { latest } from '../thread/thread';

/** What the floor shows of a case, computed from its thread. */
export interface CaseSummary {
	stations: StationState[];
	next: { station: string; title: string; why: string } | null;
	verdict: string;
	/** Whether a code came back after a repair. */
	returned?: boolean;
	complaint: string | null;
	/** Whoever wrote last. */
	withName: string | null;
	lastAt: string | null;
	/** What it waits for and where it stands, as told last. */
	waiting?: { what: string; lift: string } | null;
}

/** @param view what the thread says, where it has been computed already */
export function summarise(thread: Entry[], view: CaseView = projectCase(thread)): CaseSummary {
	const last = thread.at(-1);
	const waiting = latest(view.entries, 'waiting')?.payload ?? null;
	return {
		stations: view.stations,
		next: view.next && { station: view.next.station, title: view.next.title, why: view.next.why },
		verdict: view.verdict,
		returned: view.codes.some(({ proof }) => isReturned(proof.verdict)),
		complaint: latest(view.entries, 'complaint')?.payload.words ?? null,
		withName: last?.authorName ?? null,
		lastAt: last?.receivedAt ?? null,
		waiting: waiting && { what: waiting.what, lift: waiting.lift }
	};
}
