import { fail, ok, type Result } from '../core/result';
import { NEGATIVE, RESPONSE_PENDING } from '../core/uds/negativeResponse';
import { ReadCodes } from '../core/uds/readCodes';
import { trouble, type LinkError, type LinkTimes } from './vehicleLink';

/** Modules that say "still working" more often than this never finish. */
const MOST_PENDING = 30;

/**
 * Waits for the final answer to a request: "still working" is waited through, what answers something else is passed over.
 *
 * @param next the module's next message, or why there is none within so many milliseconds
 */
export async function awaitAnswer(
	request: ArrayLike<number>,
	next: (withinMs: number) => Promise<Result<Uint8Array, LinkError>>,
	times: LinkTimes
): Promise<Result<Uint8Array, LinkError>> {
	let deadline = Date.now() + times.answerMs;
	for (let pending = 0; pending <= MOST_PENDING;) {
		const told = await next(deadline - Date.now());
		if (!told.ok) return told;
		const answer = told.value;
		if (answer[0] === NEGATIVE && answer[2] === RESPONSE_PENDING) {
			pending += 1;
			deadline = Date.now() + times.pendingMs;
		} else if (answersTo(request, answer)) return ok(answer);
	}
	return fail(trouble('no-answer', 'The module keeps saying that it is still working.'));
}

/** Bytes after the service that a positive answer repeats (ISO 14229-1): what was asked for, or of which code. */
function echoed(request: ArrayLike<number>): number {
	if (request[0] === 0x22) return 2;
	if (request[0] !== 0x19) return 0;
	return request[1] === ReadCodes.snapshot || request[1] === ReadCodes.extended ? 4 : 1;
}

/** A late answer to an earlier request of the same service is told by what it repeats; a short one is judged by its reader. */
function answersTo(request: ArrayLike<number>, answer: Uint8Array): boolean {
	const service = request[0] ?? 0;
	if (answer[0] === NEGATIVE) return answer[1] === service;
	if (answer[0] !== service + 0x40) return false;
	const repeats = Math.min(echoed(request) + 1, answer.length);
	for (let i = 1; i < repeats; i++) if (answer[i] !== request[i]) return false;
	return true;
}
