import { eq } from 'drizzle-orm';
import { EMPTY_BOOK, ReasonBook, tidied } from '../../../../library/reason/book';
import { fail, ok, type Result } from '../../core/result';
import type { Database } from './open';
import { adminAct, shopSetting } from './schema';
import type { Author } from './threads';
import { actOf } from '../accounts/adminLog';

const NAME = 'reason-book';

/** The shop's own numbers for tests, repairs and odds. Two leads never overwrite each other. */
export class ReasonBooks {
	constructor(private readonly db: Database) {}

	async read(): Promise<ReasonBook> {
		const [row] = await this.db.select().from(shopSetting).where(eq(shopSetting.name, NAME));
		const parsed = ReasonBook.safeParse(row?.value);
		return parsed.success ? parsed.data : EMPTY_BOOK;
	}

	/** @param book with the version that was changed; refused where another has been written since */
	async write(book: ReasonBook, by: Author, now = new Date()): Promise<Result<ReasonBook>> {
		return this.db.transaction(async (tx) => {
			const [row] = await tx.select().from(shopSetting).where(eq(shopSetting.name, NAME));
			const known = ReasonBook.safeParse(row?.value);
			const version = known.success ? known.data.version : 0;
			if (version !== book.version)
				return fail(
					'Somebody else has changed these numbers meanwhile: look at theirs, then save yours again.'
				);
			const next = { ...tidied(book), version: version + 1 };
			const kept = { value: next, changedBy: by.id, changedAt: now.toISOString() };
			await tx
				.insert(shopSetting)
				.values({ name: NAME, ...kept })
				.onConflictDoUpdate({ target: shopSetting.name, set: kept });
			await tx.insert(adminAct).values(actOf(by, 'odds-changed', { of: String(next.version) }, now));
			return ok(next);
		});
	}
}
