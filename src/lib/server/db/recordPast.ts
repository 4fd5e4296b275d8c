import { and, desc, eq, sql } from 'drizzle-orm';
import type { Database } from './open';
import { customer, recordPast, vehicle } from './schema';
import type { Author } from './threads';

/** What is kept of each kind of record when it is changed. */
const KEPT = {
	customer: {
		table: customer,
		fields: ['name', 'phone', 'email', 'address', 'note', 'consent', 'consentHow']
	},
	vehicle: { table: vehicle, fields: ['nickname', 'plate', 'vin'] }
} as const;
type Of = keyof typeof KEPT;

/** What a customer or a vehicle was, until somebody changed it. */
export interface PastRecord {
	was: Record<string, string | null>;
	by: string;
	at: string;
}

/**
 * What keeps a record as it is now, to be run before the change of that version in the same batch. Where somebody else has changed
 * it meanwhile, nothing is kept, as the change itself touches nothing.
 */
export function keepingPast(db: Database, of: Of, id: string, version: number, by: Author, now: Date) {
	const { table, fields } = KEPT[of];
	const columns = table as unknown as Record<string, typeof table.id>;
	const was = sql.join(
		fields.flatMap((field) => [sql`${field}`, sql`${columns[field]}`]),
		sql`, `
	);
	return db.run(sql`
		INSERT INTO ${recordPast} ("of", id, version, was, changed_by, changed_at)
		SELECT ${of}, ${table.id}, ${table.version}, json_object(${was}), ${by.name}, ${now.toISOString()}
		FROM ${table} WHERE ${table.id} = ${id} AND ${table.version} = ${version}`);
}

const MOST_PAST = 100;

/** What a record was, the newest first. */
export async function pastOf(db: Database, of: Of, id: string): Promise<PastRecord[]> {
	const rows = await db
		.select()
		.from(recordPast)
		.where(and(eq(recordPast.of, of), eq(recordPast.id, id)))
		.orderBy(desc(recordPast.version))
		.limit(MOST_PAST);
	return rows.map(({ was, changedBy, changedAt }) => ({
		was: was as PastRecord['was'],
		by: changedBy,
		at: changedAt
	}));
}

/** What takes all that is kept of a record's past away, to be run with other writes. */
export const forgettingPast = (db: Database, of: Of, id: string) =>
	db.delete(recordPast).where(and(eq(recordPast.of, of), eq(recordPast.id, id)));
