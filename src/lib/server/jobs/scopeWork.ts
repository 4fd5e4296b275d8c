import type { ScopeCapture } from '../../case/entries/scope-capture/payload';
import { captureHash } from '../../case/thread/samplesHash';
import { fail, ok, type Result } from '../../core/result';
import type { Capture } from '../../core/scope/capture';
import { decodeCapture, encodeCapture } from '../../core/scope/captureChunk';
import { scopePayload, type ProbedChannel } from './scopeCapture';

export interface CaptureWork {
	/** As it was taken, or as it came from a browser (JSC1). */
	capture: Capture | Uint8Array;
	/** What was said of each channel; of the words for its tip, its name is what is known where they are missing. */
	probes: readonly (Omit<ProbedChannel, 'probe'> & { probe?: string })[];
	about: Pick<ScopeCapture, 'name' | 'typeId' | 'source' | 'teeth' | 'knownGood' | 'turned'>;
}

/** A capture as it goes onto the thread, with its samples as they are kept. */
export interface ReadyCapture {
	payload: ScopeCapture;
	kept: Uint8Array;
}

const MOST_CHANNELS = 4;

/** A capture → what its analysis says, and how it is kept. */
export function analysedCapture({ capture: given, probes, about }: CaptureWork): Result<ReadyCapture> {
	const decoded = given instanceof Uint8Array ? decodeCapture(given) : ok(given);
	if (!decoded.ok) return fail(`The samples cannot be read: ${decoded.error}.`);
	const capture = decoded.value;
	if (capture.channels.length === 0 || capture.channels.length > MOST_CHANNELS)
		return fail('A capture has one to four channels.');
	const kept = encodeCapture(capture);
	const said = capture.channels.map(({ name }, i): ProbedChannel => {
		const { position = null, at = 'elsewhere', probe = name.replaceAll('_', ' ') } = probes[i] ?? {};
		return { position, at, probe };
	});
	return ok({ payload: scopePayload(capture, said, { ...about, samplesSha256: captureHash(kept) }), kept });
}
