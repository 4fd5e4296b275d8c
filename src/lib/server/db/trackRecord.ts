import { and, asc, eq, isNull, like, sql } from 'drizzle-orm';
import { z } from 'zod';
import { fail, ok, type Result } from '../../core/result';
import { LatestCache } from '../latestCache';
import type { Database } from './open';
import { caseCode, caseRecord, entry, shopSetting, vehicle } from './schema';
import type { Author } from './threads';

/** How one case ended that was signed with everything proven: the repair that did it. */
export interface ProvenRepair {
	caseId: string;
	number: number;
	typeId: string;
	/** Repair of the library. */
	kind: string;
	place: string;
	/** Codes that stood on the case, without suffix. */
	codes: string[];
	/** Odometer as it was read first; null where nobody did. */
	km: number | null;
	/** When it was repaired. */
	at: string;
}

/** One of them, as a lead sees what the shop has learned. */
export interface Taught extends ProvenRepair {
	nickname: string;
	/** Why a lead has taken it off what is learned from; null where it counts. */
	unlearned: { why: string; by: string; at: string } | null;
}
const Unlearned = z.object({ why: z.string(), by: z.string() });
/** A setting a case: two leads never overwrite each other. */
const UNLEARNED = 'unlearned:';

/** How often steps of a kind ran by the timer, and the mean of their minutes. */
export type Timed = Record<string, { times: number; mean: number }>;

/** What was counted of entries that only ever come after those counted before. */
interface Counted {
	/** The newest entry that was looked at; an id, because a row that was taken away gives its place to another. */
	newest: { rowid: number; id: string } | null;
	comebacks: number;
	steps: Map<string, { times: number; minutes: number }>;
}
const NOTHING = (): Counted => ({ newest: null, comebacks: 0, steps: new Map() });

const MOST = 4000;

/** Cases that have a comeback. */
const COME_BACK = sql.raw(
	`(select json_extract(c.payload, '$.comebackOf.caseId') from entry as c where c.kind = 'case-opened' and json_extract(c.payload, '$.comebackOf.caseId') is not null)`
);

/** Signed as proven; signatures from before that was kept said it in their verdict. */
const SIGNED_AS_PROVEN = sql.raw(
	`(select s.case_id from entry as s where s.kind = 'signature'
		and coalesce(json_extract(s.payload, '$.outcome'), case when json_extract(s.payload, '$.verdict') like 'Released%' then 'released' else 'proven' end) = 'proven')`
);

/** What this shop's own signed cases say: which repair was proven, and how long its tests take. */
export class TrackRecord {
	private readonly kept = new LatestCache<Promise<ProvenRepair[]>>(1);
	private counted: Promise<Counted> = Promise.resolve(NOTHING());

	constructor(private readonly db: Database) {}

	/** Changes whenever {@link proven} may: a case was signed, or came back. */
	async stamp(): Promise<string> {
		const { comebacks } = await this.count();
		const [row] = await this.db.all<{ signed: number }>(
			sql`SELECT COUNT(*) AS signed FROM case_record WHERE signed = 1 AND coming_in = 0`
		);
		const unlearned = (await this.unlearned()).map(({ caseId }) => caseId);
		return `${row?.signed ?? 0}/${comebacks}/${unlearned.join()}`;
	}

	/** What was proven, worked out once for each stamp. */
	async read(): Promise<ProvenRepair[]> {
		const stamp = await this.stamp();
		const known = this.kept.find('proven', stamp);
		if (known) return known;
		const made = this.proven();
		made.catch(() => this.kept.forget('proven'));
		return this.kept.keep('proven', stamp, made);
	}

	/** Minutes that steps of each kind took here by the timer. */
	async minutes(): Promise<Timed> {
		const { steps } = await this.count();
		return Object.fromEntries(
			[...steps].map(([test, { times, minutes }]) => [test, { times, mean: minutes / times }])
		);
	}

	/** Counts on from where it was left: every page asks for it, so no entry is looked at twice. One after the other. */
	private count(): Promise<Counted> {
		this.counted = this.counted.then(
			(before) => this.countOn(before),
			() => this.countOn(NOTHING())
		);
		return this.counted;
	}

	private async countOn(before: Counted): Promise<Counted> {
		const [last] = before.newest
			? await this.db.all<{ id: string }>(sql`SELECT id FROM entry WHERE rowid = ${before.newest.rowid}`)
			: [];
		const from = last?.id === before.newest?.id ? before : NOTHING();
		const [head] = await this.db.all<{ rowid: number; id: string }>(
			sql`SELECT rowid, id FROM entry ORDER BY rowid DESC LIMIT 1`
		);
		const after = from.newest?.rowid ?? 0;
		if (!head || head.rowid === after) return from;
		const since = sql`e.rowid > ${after} AND e.rowid <= ${head.rowid}`;
		const steps = await this.db.all<{ test: string; times: number; minutes: number }>(sql`
			SELECT json_extract(e.payload, '$.test') AS test, COUNT(*) AS times,
			SUM(json_extract(e.payload, '$.minutes')) AS minutes
			FROM entry e JOIN case_record c ON c.id = e.case_id
			WHERE e.kind = 'test-step' AND ${since} AND c.from_shop IS NULL
			AND json_extract(e.payload, '$.how') = 'done' AND json_extract(e.payload, '$.minutes') > 0
			AND json_extract(e.payload, '$.test') IS NOT NULL
			GROUP BY test`);
		const [opened] = await this.db.all<{ comebacks: number }>(sql`
			SELECT COUNT(*) AS comebacks FROM entry e
			WHERE e.kind = 'case-opened' AND ${since} AND json_extract(e.payload, '$.comebackOf.caseId') IS NOT NULL`);
		const all = new Map(from.steps);
		for (const { test, times, minutes } of steps) {
			const known = all.get(test);
			all.set(test, { times: times + (known?.times ?? 0), minutes: minutes + (known?.minutes ?? 0) });
		}
		return { newest: head, comebacks: from.comebacks + (opened?.comebacks ?? 0), steps: all };
	}

	/** What the shop learns from: the last repair, chosen from the library, of each case that was proven and did not come back. */
	async proven(): Promise<ProvenRepair[]> {
		return (await this.taught())
			.filter(({ unlearned }) => unlearned === null)
			.map(({ nickname: _nickname, unlearned: _unlearned, ...one }) => one);
	}

	/** A lead takes a case off what is learned from. Refused where nothing is learned from it. */
	async unlearn(caseId: string, why: string, by: Author, now = new Date()): Promise<Result<void>> {
		if (!(await this.taught()).some((one) => one.caseId === caseId))
			return fail('Nothing is learned from that case.');
		const kept = { value: { why, by: by.name }, changedBy: by.id, changedAt: now.toISOString() };
		await this.db
			.insert(shopSetting)
			.values({ name: UNLEARNED + caseId, ...kept })
			.onConflictDoUpdate({ target: shopSetting.name, set: kept });
		return ok(undefined);
	}

	/** It counts again. */
	async learnAgain(caseId: string): Promise<void> {
		await this.db.delete(shopSetting).where(eq(shopSetting.name, UNLEARNED + caseId));
	}

	private async unlearned() {
		const rows = await this.db
			.select()
			.from(shopSetting)
			.where(like(shopSetting.name, `${UNLEARNED}%`));
		return rows.flatMap(({ name, value, changedAt }) => {
			const told = Unlearned.safeParse(value);
			return told.success ? [{ caseId: name.slice(UNLEARNED.length), ...told.data, at: changedAt }] : [];
		});
	}

	/** All that the shop could learn from, and what a lead has taken off. */
	async taught(): Promise<Taught[]> {
		const rows = await this.db
			.select({
				caseId: entry.caseId,
				number: caseRecord.number,
				kind: sql<string>`json_extract(${entry.payload}, '$.does.kind')`,
				place: sql<string>`json_extract(${entry.payload}, '$.does.place')`,
				typeId: sql<string>`(select json_extract(o.payload, '$.typeId') from entry as o where o.case_id = ${entry.caseId} and o.kind = 'case-opened' limit 1)`,
				km: sql<
					number | null
				>`(select json_extract(k.payload, '$.odometerKm') from entry as k where k.case_id = ${entry.caseId} and k.kind = 'vehicle-checked' order by k.seq desc limit 1)`,
				at: entry.observedAt,
				nickname: vehicle.nickname
			})
			.from(entry)
			.innerJoin(caseRecord, eq(caseRecord.id, entry.caseId))
			.innerJoin(vehicle, eq(vehicle.id, caseRecord.vehicleId))
			.where(
				and(
					eq(entry.kind, 'repair'),
					eq(caseRecord.signed, true),
					isNull(caseRecord.fromShop),
					sql`json_extract(${entry.payload}, '$.does.kind') is not null`,
					sql`${entry.caseId} in ${SIGNED_AS_PROVEN}`,
					// What came back was not proven after all.
					sql`${entry.caseId} not in ${COME_BACK}`
				)
			)
			.orderBy(asc(entry.seq))
			.limit(MOST);
		const last = new Map<string, Omit<Taught, 'codes' | 'unlearned'>>();
		for (const row of rows) last.set(row.caseId, { ...row, typeId: row.typeId ?? '' });
		const [codes, off] = await Promise.all([this.codesOf([...last.keys()]), this.unlearned()]);
		return [...last.values()].map((one) => ({
			...one,
			codes: codes.get(one.caseId) ?? [],
			unlearned: off.find(({ caseId }) => caseId === one.caseId) ?? null
		}));
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
			.selectDistinct({ caseId: caseCode.caseId, code: caseCode.code })
			.from(caseCode)
			.innerJoin(caseRecord, eq(caseRecord.id, caseCode.caseId))
			.where(eq(caseRecord.signed, true));
		for (const { caseId, code } of rows)
			if (wanted.has(caseId)) found.set(caseId, [...(found.get(caseId) ?? []), code]);
		return found;
	}
}
