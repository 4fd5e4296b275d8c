import type { LiveRecording } from '../../case/entries/live-recording/payload';
import { LONGEST_S } from '../../case/entries/live-recording/payload';
import type { LiveVehicle } from '../../core/live/analyse';
import type { Chunk } from '../../core/live/chunk';
import { CHANNEL } from '../../core/live/columnMapping';
import type { NamedCondition } from '../../core/live/conditionsOver';
import { framePieces, readPieces, splitPieces } from '../../core/live/pieces';
import { fail, ok, type Result } from '../../core/result';
import { wholePieces } from '../db/captures';
import { recordingPayload } from './recorder';

type About = Pick<LiveRecording, 'name' | 'purpose' | 'source' | 'marks' | 'endedBecause' | 'heard'>;

/** A recording as it goes onto the thread, with its samples as they are kept. */
export interface ReadyRecording {
	payload: LiveRecording;
	pieces: Uint8Array[];
}

/** Five hours at 50 Hz. */
const MOST_ROWS = 1_000_000;

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

/** Why samples from a file are no recording that can be judged; null where they are one. */
function whyNot({ timeS, channels }: Chunk): string | null {
	if (timeS.length < 2 || channels.size === 0 || timeS.length > MOST_ROWS)
		return `A recording has 2 to ${MOST_ROWS.toLocaleString('en-GB')} readings of at least one signal: cut the file to the minutes around the fault.`;
	const odd = [...channels.keys()].find((name) => !CHANNEL.test(name));
	if (odd !== undefined) return `"${odd.slice(0, 60)}" is no name of a signal.`;
	if (!((timeS.at(-1) ?? NaN) - (timeS[0] ?? NaN) <= LONGEST_S))
		return 'It spans more than four months: is the first column really the time, and in this unit?';
	for (let i = 1; i < timeS.length; i++)
		if (!((timeS[i] ?? NaN) >= (timeS[i - 1] ?? 0))) return `Time runs backwards at reading ${i + 1}.`;
	return null;
}

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
	const refused = whyNot(samples.value);
	return refused ? fail(refused) : ok(endedRecording({ samples: samples.value, vehicle, about, tests }));
}
