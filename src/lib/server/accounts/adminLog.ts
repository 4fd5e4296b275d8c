import { desc, lt } from 'drizzle-orm';
import type { Database } from '../db/open';
import { adminAct } from '../db/schema';
import type { Author } from '../db/threads';

/** What can be done to a shop as a whole, each as it is read: “Marit Aker *invited* …”. */
export const ADMIN_ACTS = {
	'person-invited': 'invited',
	'person-renamed': 'renamed',
	'role-changed': 'changed the role of',
	'password-reset': 'opened a new way in for',
	'person-shut-out': 'shut out',
	'person-let-in': 'let in again',
	'sessions-ended': 'signed out',
	'second-factor-taken-off': 'took the second factor off',
	'password-changed': 'changed the own password',
	'second-factor-set': 'set up a second factor',
	'token-made': 'made a token for',
	'token-revoked': 'took back the token of',
	'setting-changed': 'changed the setting',
	'odds-changed': 'changed the numbers of reasoning, now version',
	'pack-brought-in': 'brought in the pack',
	'pack-taken-away': 'took away the pack',
	'shop-trusted': 'trusts the shop',
	'shop-distrusted': 'trusts no more the shop',
	'vehicle-described': 'described the vehicle type',
	'customer-forgotten': 'took out',
	'case-unlearned': 'took off what is learned from',
	'case-learned-again': 'put back to what is learned from'
} as const;
export type AdminActKind = keyof typeof ADMIN_ACTS;

/** Whom or what it was done to, and what it was and became. Never a secret. */
export interface AdminFacts {
	of: string;
	from?: unknown;
	to?: unknown;
}

export interface AdminActRow {
	seq: number;
	at: string;
	byName: string;
	what: AdminActKind;
	facts: AdminFacts;
}

/** The row of one act: stores write it in the transaction of what it tells of, so that neither is without the other. */
export const actOf = (
	by: Author,
	what: AdminActKind,
	facts: AdminFacts,
	now = new Date()
): typeof adminAct.$inferInsert => ({
	at: now.toISOString(),
	byId: by.id,
	byName: by.name,
	what,
	facts
});

const PAGE = 100;

/** Who changed whom and what for the whole shop. */
export class AdminLog {
	constructor(private readonly db: Database) {}

	/** Newest first. @param before sequence number to read on from */
	async page(before = Number.MAX_SAFE_INTEGER): Promise<{ rows: AdminActRow[]; more: boolean }> {
		const rows = await this.db
			.select()
			.from(adminAct)
			.where(lt(adminAct.seq, before))
			.orderBy(desc(adminAct.seq))
			.limit(PAGE + 1);
		return { rows: rows.slice(0, PAGE) as AdminActRow[], more: rows.length > PAGE };
	}

	/** All of it, oldest last, a piece at a time. */
	async *all(): AsyncGenerator<AdminActRow[]> {
		for (let before: number | undefined; ;) {
			const { rows, more } = await this.page(before);
			yield rows;
			if (!more) return;
			before = rows.at(-1)?.seq;
		}
	}

	async add(by: Author, what: AdminActKind, facts: AdminFacts): Promise<void> {
		await this.db.insert(adminAct).values(actOf(by, what, facts));
	}
}
