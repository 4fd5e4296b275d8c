import { and, desc, eq, sql } from 'drizzle-orm';
import type { Database } from './open';
import { entry } from './schema';

const MOST = 200;

/** What this shop has kept as good, over all its cases: the reference for the next vehicle of the type. */
export class GoodReadings {
	constructor(private readonly db: Database) {}

	/** Values by measurement, of readings that were kept as good and stand. */
	async ofType(typeId: string): Promise<Record<string, number[]>> {
		const rows = await this.db
			.select({
				measurement: sql<string>`json_extract(${entry.payload}, '$.measurement')`,
				value: sql<number | null>`json_extract(${entry.payload}, '$.judgedValue')`
			})
			.from(entry)
			.where(and(eq(entry.kind, 'meter-reading'), isKept(typeId), stands))
			.orderBy(desc(entry.receivedAt))
			.limit(MOST);
		const values: Record<string, number[]> = {};
		for (const { measurement, value } of rows) if (value !== null) (values[measurement] ??= []).push(value);
		return values;
	}

	/** The case of a capture that was kept as good, for whoever lays it over another; null where it was not. */
	async caseOfCapture(id: string): Promise<string | null> {
		const [row] = await this.db
			.select({ caseId: entry.caseId })
			.from(entry)
			.where(
				and(
					eq(entry.id, id),
					eq(entry.kind, 'scope-capture'),
					sql`json_extract(${entry.payload}, '$.knownGood') = 1`,
					stands
				)
			);
		return row?.caseId ?? null;
	}

	/** Captures that were kept as good. */
	async capturesOfType(typeId: string): Promise<{ id: string; caseId: string; name: string }[]> {
		return this.db
			.select({
				id: entry.id,
				caseId: entry.caseId,
				name: sql<string>`json_extract(${entry.payload}, '$.name')`
			})
			.from(entry)
			.where(and(eq(entry.kind, 'scope-capture'), isKept(typeId), stands))
			.orderBy(desc(entry.receivedAt))
			.limit(20);
	}
}

const isKept = (typeId: string) =>
	sql`json_extract(${entry.payload}, '$.knownGood') = 1 and json_extract(${entry.payload}, '$.typeId') = ${typeId}`;
const stands = sql`not exists (select 1 from entry as later where json_extract(later.supersedes, '$.entryId') = ${entry.id})`;
