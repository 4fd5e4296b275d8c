import type { LiveRecording } from '../../case/entries/live-recording/payload';
import type { LiveVehicle } from '../../core/live/analyse';
import type { Chunk } from '../../core/live/chunk';
import type { NamedCondition } from '../../core/live/conditionsOver';
import { framePieces, readPieces, splitPieces } from '../../core/live/pieces';
import { fail, ok, type Result } from '../../core/result';
import { wholePieces } from '../db/captures';
import { noRecording } from '../../case/watch/importedSamples';
import { recordingPayload } from '../../case/watch/recordingPayload';

type About = Pick<LiveRecording, 'name' | 'purpose' | 'source' | 'marks' | 'endedBecause' | 'heard'>;

/** A recording as it goes onto the thread, with its samples as they are kept. */
export interface ReadyRecording {
	payload: LiveRecording;
	pieces: Uint8Array[];
}

/** A recording that has ended → what is kept of it. */
export const endedRecording = ({
	samples,
	vehicle,
	about,
	tests
}: {
	samples: Chunk;
	vehicle: LiveVehicle | undefined;
	about: About;
	tests: readonly NamedCondition[];
}): ReadyRecording => ({
	payload: recordingPayload(samples, vehicle, about, tests),
	pieces: wholePieces(samples)
});

/**
 * A file that was read in a browser → what is kept of it.
 *
 * @param input.body framed pieces: first what it is, as JSON, which is left to the caller, then its samples
 */
export function importedRecording({
	body,
	vehicle,
	about,
	tests
}: {
	body: Uint8Array;
	vehicle: LiveVehicle | undefined;
	about: About;
	tests: readonly NamedCondition[];
}): Result<ReadyRecording> {
	const pieces = splitPieces(body);
	if (!pieces.ok) return fail(`The file cannot be read: ${pieces.error}.`);
	const samples = readPieces(framePieces(pieces.value.slice(1)));
	if (!samples.ok) return fail(`The samples cannot be read: ${samples.error}.`);
	const refused = noRecording(samples.value);
	return refused ? fail(refused) : ok(endedRecording({ samples: samples.value, vehicle, about, tests }));
}
