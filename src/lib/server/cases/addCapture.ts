import { fail, ok, type Result } from '../../core/result';
import type { Author } from '../db/threads';
import type { CaptureWork } from '../jobs/scopeWork';
import type { Services } from '../services';
import { addEntry } from './addEntry';

/** Analyses a capture, keeps its samples and puts it on the thread. */
export async function addCapture(
	services: Services,
	{ id, caseId }: { id: string; caseId: string },
	work: CaptureWork,
	member: Author,
	/** When it was taken, ISO 8601. */
	startedAt = new Date().toISOString()
): Promise<Result<string>> {
	const { captures, heavy } = services;
	const ready = await heavy.ask('analysedCapture', work);
	if (!ready.ok) return ready;
	const { payload, kept } = ready.value;
	const held = await captures.keep({ id, caseId, authorId: member.id, name: work.about.name, startedAt }, [
		kept
	]);
	if (!held.ok) return held;
	const stored = await addEntry(
		services,
		{ id, caseId, kind: 'scope-capture', payload, observedAt: startedAt },
		member
	);
	if (stored.ok) return ok(id);
	await captures.forget({ id, caseId });
	return fail(stored.error);
}
