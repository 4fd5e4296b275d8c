import { and, asc, eq, isNull, sql } from 'drizzle-orm';
import { LatestCache } from '../latestCache';
import type { Database } from './open';
import { caseCode, caseRecord, entry } from './schema';

/** How one signed case ended: the repair that was proven. */
export interface ProvenRepair {
	caseId: string;
	number: number;
	typeId: string;
	/** Repair of the library. */
	kind: string;
	place: string;
	/** Codes that stood on the case, without suffix. */
	codes: string[];
}

/** All of it at one moment. */
export interface ShopRecord {
	stamp: string;
	proven: ProvenRepair[];
	minutes: Record<string, { times: number; mean: number }>;
}

const MOST = 4000;

/** Cases that have a comeback. */
const COME_BACK = sql.raw(
	`(select json_extract(c.payload, '$.comebackOf.caseId') from entry as c where c.kind = 'case-opened' and json_extract(c.payload, '$.comebackOf.caseId') is not null)`
);

/** What this shop's own signed cases say: which repair was proven, and how long its tests take. */
export class TrackRecord {
	private readonly kept = new LatestCache<Promise<ShopRecord>>(1);

	constructor(private readonly db: Database) {}

	/** Changes whenever what signed cases and timed steps say may have changed; asked at every page, so it reads no entry. */
	async stamp(): Promise<string> {
		const newest = (kind: string) => sql`(SELECT MAX(rowid) FROM entry WHERE kind = ${kind})`;
		const [row] = await this.db.all<{ stamp: string }>(sql`
			SELECT printf('%d/%d/%d/%d', ${newest('repair')}, ${newest('test-step')}, ${newest('case-opened')},
			(SELECT COUNT(*) FROM case_record WHERE signed = 1 AND coming_in = 0)) AS stamp`);
		return row?.stamp ?? '';
	}

	/** What stamp, repairs and minutes say together, worked out once for each stamp. */
	async read(): Promise<ShopRecord> {
		const stamp = await this.stamp();
		const known = this.kept.find('record', stamp);
		if (known) return known;
		const made = Promise.all([this.proven(), this.minutes()]).then(([proven, minutes]) => ({
			stamp,
			proven,
			minutes
		}));
		made.catch(() => this.kept.forget('record'));
		return this.kept.keep('record', stamp, made);
	}

	/** The last repair of each signed case that was chosen from the library. */
	async proven(): Promise<ProvenRepair[]> {
		const rows = await this.db
			.select({
				caseId: entry.caseId,
				number: caseRecord.number,
				kind: sql<string>`json_extract(${entry.payload}, '$.does.kind')`,
				place: sql<string>`json_extract(${entry.payload}, '$.does.place')`,
				typeId: sql<string>`(select json_extract(o.payload, '$.typeId') from entry as o where o.case_id = ${entry.caseId} and o.kind = 'case-opened' limit 1)`
			})
			.from(entry)
			.innerJoin(caseRecord, eq(caseRecord.id, entry.caseId))
			.where(
				and(
					eq(entry.kind, 'repair'),
					eq(caseRecord.signed, true),
					isNull(caseRecord.fromShop),
					sql`json_extract(${entry.payload}, '$.does.kind') is not null`,
					// What came back was not proven after all.
					sql`${entry.caseId} not in ${COME_BACK}`
				)
			)
			.orderBy(asc(entry.seq))
			.limit(MOST);
		const last = new Map<string, Omit<ProvenRepair, 'codes'>>();
		for (const row of rows) last.set(row.caseId, { ...row, typeId: row.typeId ?? '' });
		const codes = await this.codesOf([...last.keys()]);
		return [...last.values()].map((one) => ({ ...one, codes: codes.get(one.caseId) ?? [] }));
	}

	/** Comebacks of a case, the first first. */
	async comebacksOf(caseId: string): Promise<{ id: string; number: number }[]> {
		return this.db
			.select({ id: caseRecord.id, number: caseRecord.number })
			.from(entry)
			.innerJoin(caseRecord, eq(caseRecord.id, entry.caseId))
			.where(
				and(
					eq(entry.kind, 'case-opened'),
					sql`json_extract(${entry.payload}, '$.comebackOf.caseId') = ${caseId}`
				)
			)
			.orderBy(asc(caseRecord.number));
	}

	private async codesOf(caseIds: string[]): Promise<Map<string, string[]>> {
		const found = new Map<string, string[]>();
		if (caseIds.length === 0) return found;
		const wanted = new Set(caseIds);
		const rows = await this.db
			.select({ caseId: caseCode.caseId, code: caseCode.code })
			.from(caseCode)
			.innerJoin(caseRecord, eq(caseRecord.id, caseCode.caseId))
			.where(eq(caseRecord.signed, true));
		for (const { caseId, code } of rows)
			if (wanted.has(caseId)) found.set(caseId, [...(found.get(caseId) ?? []), code]);
		return found;
	}

	/** Minutes that steps of each kind took here by the timer: how often it ran, and the mean. */
	async minutes(): Promise<Record<string, { times: number; mean: number }>> {
		const rows = await this.db
			.select({
				test: sql<string>`json_extract(${entry.payload}, '$.test')`,
				times: sql<number>`count(*)`,
				mean: sql<number>`avg(json_extract(${entry.payload}, '$.minutes'))`
			})
			.from(entry)
			.innerJoin(caseRecord, eq(caseRecord.id, entry.caseId))
			.where(
				and(
					eq(entry.kind, 'test-step'),
					isNull(caseRecord.fromShop),
					sql`json_extract(${entry.payload}, '$.how') = 'done'`,
					sql`json_extract(${entry.payload}, '$.minutes') > 0`,
					sql`json_extract(${entry.payload}, '$.test') is not null`
				)
			)
			.groupBy(sql`json_extract(${entry.payload}, '$.test')`);
		return Object.fromEntries(rows.map(({ test, times, mean }) => [test, { times, mean }]));
	}
}
