import { healthOf } from '$lib/server/db/open';
import { unitsFor } from '$lib/server/cases/unitsFor';
import { TROUBLE_WORDS, type Trouble } from '$lib/server/db/health';

const troubleWords = (trouble: Trouble | null) => trouble && TROUBLE_WORDS[trouble.kind];

export const load = async ({ locals, cookies }) => ({
	member: locals.member,
	/** What is wrong with the server's disk, for everybody; null = nothing. */
	trouble: troubleWords(healthOf(locals.services.db).state()),
	theme: cookies.get('jaldi-theme') === 'bay' ? ('bay' as const) : ('day' as const),
	/** Keys that are one sign do something. */
	singleKeys: cookies.get('jaldi-keys') !== 'off',
	units: await unitsFor(locals),
	lockAfterMinutes: locals.member ? await locals.services.settings.read('lockAfterMinutes') : 0
});
