import { TROUBLE_WORDS, troubleOf } from '../db/health';
import { healthOf, type Database } from '../db/open';
import { isBusy } from '../heavy/busy';

/** Why something cannot be done now and may be later; null = the error is of another kind. */
export function notNowWords(error: unknown, db: Database): string | null {
	if (isBusy(error)) return error.message;
	// The accounts library tells of its own error only, whatever kept it from its answer.
	const away = healthOf(db).state()?.kind;
	const trouble = troubleOf(error) ?? (away === 'unreachable' ? away : null);
	return trouble && TROUBLE_WORDS[trouble];
}
