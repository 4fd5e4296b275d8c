import { LONGEST_S } from '../entries/live-recording/payload';
import type { Chunk } from '../../core/live/chunk';
import { CHANNEL } from '../../core/live/columnMapping';

/** Five hours at 50 Hz. */
const MOST_ROWS = 1_000_000;

/** Why samples from a file are no recording that can be judged; null where they are one. */
export function noRecording({ timeS, channels }: Chunk): string | null {
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
