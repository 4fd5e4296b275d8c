import type { ScopeCapture } from '../../case/measurePayloads';
import { captureHash } from '../../case/samplesHash';
import { fail, ok, type Result } from '../../core/result';
import type { Capture } from '../../core/scope/capture';
import { encodeCapture } from '../../core/scope/captureChunk';
import type { Author } from '../db/threads';
import { scopePayload, type ProbedChannel } from '../jobs/scopeCapture';
import { services } from '../running';
import { addEntry } from './addEntry';

/** Analyses a capture, keeps its samples and puts it on the thread. */
export async function addCapture(
	{ id, caseId }: { id: string; caseId: string },
	capture: Capture,
	probes: readonly ProbedChannel[],
	about: Pick<ScopeCapture, 'name' | 'typeId' | 'source' | 'teeth' | 'knownGood'>,
	member: Author
): Promise<Result<string>> {
	const { captures } = services().desk;
	const startedAt = new Date().toISOString();
	const kept = encodeCapture(capture);
	const held = await captures.keep({ id, caseId, authorId: member.id, name: about.name, startedAt }, [kept]);
	if (!held.ok) return held;
	const payload = scopePayload(capture, probes, { ...about, samplesSha256: captureHash(kept) });
	const stored = await addEntry({ id, caseId, kind: 'scope-capture', payload }, member);
	if (stored.ok) return ok(id);
	await captures.forget({ id, caseId });
	return fail(stored.error);
}
