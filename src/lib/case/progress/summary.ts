import { isReturned } from '../../core/prove/proof';
import type { Entry, PayloadOf } from '../entries/entry';
import { projectCase, type CaseView } from './project';
import type { StationState } from './stations';
import { latest } from '../thread/thread';
import { agreementOf, isToAsk } from './agreed';

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
	waiting?: { what: string; lift: string; note?: string } | null;
	/** When it is promised, as told last. */
	promise?: PayloadOf<'promised'> | null;
	/** Whoever has it. */
	assigned?: { id: string; name: string } | null;
	/** Number of the signed case that this one is a comeback of. */
	comebackOf?: string | null;
	/** The customer is to be asked whether the work may cost what it does. */
	toAsk?: boolean;
	/** Who brought it in, by their id. */
	customerId?: string | null;
}

/** When it is promised, who has it and what it waits for, each as told last. @param entries standing ones, in order */
export function planIn(
	entries: readonly Entry[]
): Required<Pick<CaseSummary, 'promise' | 'assigned' | 'waiting'>> {
	const promise = latest(entries, 'promised')?.payload ?? null;
	return {
		promise: promise && (promise.due !== null || promise.words !== '') ? promise : null,
		assigned: latest(entries, 'assigned')?.payload.to ?? null,
		waiting: latest(entries, 'waiting')?.payload ?? null
	};
}

/** @param view what the thread says, where it has been computed already */
export function summarise(thread: Entry[], view: CaseView = projectCase(thread)): CaseSummary {
	const last = thread.at(-1);
	return {
		stations: view.stations,
		next: view.next && { station: view.next.station, title: view.next.title, why: view.next.why },
		verdict: view.verdict,
		returned: view.codes.some(({ proof }) => isReturned(proof.verdict)),
		complaint: latest(view.entries, 'complaint')?.payload.words ?? null,
		withName: last?.authorName ?? null,
		lastAt: last?.receivedAt ?? null,
		...planIn(view.entries),
		comebackOf: latest(view.entries, 'case-opened')?.payload.comebackOf?.number ?? null,
		toAsk: isToAsk(agreementOf(view.entries)),
		customerId: latest(view.entries, 'customer')?.payload.customer ?? null
	};
}

/** What the floor is ordered and chosen by, of a case's summary. */
export interface FloorFacts {
	/** When it is promised; null = no moment is. */
	dueAt: string | null;
	/** A code came back after a repair, or the whole case did. */
	isBack: boolean;
	withId: string | null;
	/** What keeps the work from going on; null = nothing. */
	waitsFor: string | null;
	/** All that is left is a signature. */
	toSign: boolean;
	/** The customer is to be asked whether the work may cost what it does. */
	toAsk: boolean;
	customerId: string | null;
}

export const floorFacts = (summary: CaseSummary): FloorFacts => ({
	// Whatever its precision was: moments are put in order as text.
	dueAt: summary.promise?.due ? new Date(summary.promise.due).toISOString() : null,
	isBack: Boolean(summary.returned || summary.comebackOf),
	withId: summary.assigned?.id ?? null,
	waitsFor: summary.waiting && summary.waiting.what !== 'nothing' ? summary.waiting.what : null,
	toSign: summary.next?.station === 'hand-over',
	toAsk: summary.toAsk ?? false,
	customerId: summary.customerId ?? null
});
