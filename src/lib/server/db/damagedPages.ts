import { sql } from 'drizzle-orm';
import type { Stores } from '../stores';
import { troubleOf } from './health';

/**
 * What the database says of its own pages: null where nothing is wrong. Goes through the whole file, a gigabyte in some seconds, so
 * it is asked on a thread that nobody waits for.
 */
export async function damagedPages({ db }: Pick<Stores, 'db'>, _: null): Promise<string | null> {
	try {
		const { rows } = await db.run(sql`PRAGMA quick_check(1)`);
		const said = String(rows[0]?.[0] ?? 'ok');
		return said === 'ok' ? null : said;
	} catch (error) {
		if (troubleOf(error) !== 'damaged') throw error;
		return (error as Error).message;
	}
}
