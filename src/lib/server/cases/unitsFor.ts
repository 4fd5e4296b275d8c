import { unitsOf, type Units } from '../../core/units/units';
import type { Member } from '../accounts/members';
import { ownUnits } from '../accounts/ownUnits';
import type { Stores } from '../stores';

/** As whoever looks chose them, or else the shop. */
export async function unitsFor({
	member,
	services: { db, settings }
}: {
	member: Pick<Member, 'id'> | null;
	services: Pick<Stores, 'db' | 'settings'>;
}): Promise<Units> {
	const own = member && (await ownUnits(db, member.id));
	return own ?? unitsOf(await settings.read('units'));
}
