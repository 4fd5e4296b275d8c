import { format } from 'date-fns/format';
import { fail, ok, type Result } from '../../core/result';
import type { Author } from '../db/threads';
import type { Services } from '../services';

/** The day by the shop's clock. */
const dayOf = (now: Date): string => format(now, 'yyyy-MM-dd');

/** Accounts of those who are not here on a day. */
export async function notHereOn({ settings }: Pick<Services, 'settings'>, now: Date): Promise<string[]> {
	const said = await settings.read('notHere');
	return said.day === dayOf(now) ? said.ids : [];
}

/** Says of somebody whether they are here today. The error is a sentence for the person. */
export async function sayHere(
	services: Pick<Services, 'settings' | 'people'>,
	{ id, here }: { id: string; here: boolean },
	by: Author,
	now = new Date()
): Promise<Result<null>> {
	const known = await services.people.atWork();
	if (!known.some((one) => one.id === id)) return fail('Nobody of this shop goes by that.');
	const others = (await notHereOn(services, now)).filter((one) => one !== id);
	await services.settings.write('notHere', { day: dayOf(now), ids: here ? others : [...others, id] }, by);
	return ok(null);
}
