import { and, asc, eq, inArray, like, sql } from 'drizzle-orm';
import { z } from 'zod';
import { fail, ok, type Result } from '../../core/result';
import { caseNumber } from './caseNumber';
import { LatestCache } from '../latestCache';
import type { Database } from './open';
import { adminAct, caseCode, caseRecord, entry, shopSetting } from './schema';
import { actOf } from '../accounts/adminLog';
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
	signed: number;
	comebacks: number;
	steps: Map<string, { times: number; minutes: number }>;
}
const NOTHING = (): Counted => ({ newest: null, signed: 0, comebacks: 0, steps: new Map() });

/** The newest cases that a shop learns from. */
const MOST = 4000;
/** Cases that are asked for at once. */
const MOST_ASKED = 500;

/** What came back was not proven after all. */
const CAME_BACK = sql.raw(
	`EXISTS (SELECT 1 FROM entry c WHERE c.kind = 'case-opened' AND json_extract(c.payload, '$.comebackOf.caseId') = n.id)`
);

/** Signed as proven; signatures from before that was kept said it in their verdict. */
const SIGNED_AS_PROVEN = sql.raw(
	`EXISTS (SELECT 1 FROM entry s WHERE s.case_id = n.id AND s.kind = 'signature'
		AND coalesce(json_extract(s.payload, '$.outcome'), CASE WHEN json_extract(s.payload, '$.verdict') LIKE 'Released%' THEN 'released' ELSE 'proven' END) = 'proven')`
);

/** What this shop's own signed cases say: which repair was proven, and how long its tests take. */
export class TrackRecord {
	private readonly kept = new LatestCache<Promise<ProvenRepair[]>>(1);
	private counted: Promise<Counted> = Promise.resolve(NOTHING());

	constructor(private readonly db: Database) {}

	/** Changes whenever {@link proven} may: a case was signed, or came back. */
	async stamp(): Promise<string> {
		const [{ signed, comebacks }, unlearned] = await Promise.all([this.count(), this.unlearned()]);
		return `${signed}/${comebacks}/${unlearned.map(({ caseId }) => caseId).join()}`;
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
		const [[last], [head]] = await Promise.all([
			this.db.all<{ id: string }>(sql`SELECT id FROM entry WHERE rowid = ${before.newest?.rowid ?? -1}`),
			this.db.all<{ rowid: number; id: string }>(sql`SELECT rowid, id FROM entry ORDER BY rowid DESC LIMIT 1`)
		]);
		const from = last?.id === before.newest?.id ? before : NOTHING();
		const after = from.newest?.rowid ?? 0;
		if (!head || head.rowid === after) return from;
		const since = sql`e.rowid > ${after} AND e.rowid <= ${head.rowid}`;
		// From the beginning, what was kept for this is gone through; from where it was left, only what came since.
		const by = (name: string) => sql.raw(from.newest ? 'INDEXED BY entry_kind' : `INDEXED BY ${name}`);
		const [steps, [opened], [signed]] = await Promise.all([
			this.db.all<{ test: string; times: number; minutes: number }>(sql`
				SELECT json_extract(payload, '$.test') AS test, COUNT(*) AS times,
				SUM(json_extract(payload, '$.minutes')) AS minutes
				FROM entry e ${by('entry_timed')}
				WHERE kind = 'test-step' AND json_extract(payload, '$.how') = 'done' AND ${since}
				AND json_extract(payload, '$.test') IS NOT NULL AND json_extract(payload, '$.minutes') > 0
				AND case_id NOT IN (SELECT id FROM case_record WHERE from_shop IS NOT NULL)
				GROUP BY 1`),
			this.db.all<{ n: number }>(sql`
				SELECT COUNT(*) AS n FROM entry e ${by('entry_comeback')}
				WHERE kind = 'case-opened' AND json_extract(payload, '$.comebackOf.caseId') IS NOT NULL AND ${since}`),
			this.db.all<{ n: number }>(
				sql`SELECT COUNT(*) AS n FROM entry e INDEXED BY entry_kind WHERE kind = 'signature' AND ${since}`
			)
		]);
		const all = new Map(from.steps);
		for (const { test, times, minutes } of steps) {
			const known = all.get(test);
			all.set(test, { times: times + (known?.times ?? 0), minutes: minutes + (known?.minutes ?? 0) });
		}
		return {
			newest: head,
			signed: from.signed + (signed?.n ?? 0),
			comebacks: from.comebacks + (opened?.n ?? 0),
			steps: all
		};
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
		await this.db.batch([
			this.db
				.insert(shopSetting)
				.values({ name: UNLEARNED + caseId, ...kept })
				.onConflictDoUpdate({ target: shopSetting.name, set: kept }),
			this.db.insert(adminAct).values(actOf(by, 'case-unlearned', { of: caseId, to: why }, now))
		]);
		return ok(undefined);
	}

	/** It counts again. */
	async learnAgain(caseId: string, by: Author): Promise<void> {
		await this.db.batch([
			this.db.delete(shopSetting).where(eq(shopSetting.name, UNLEARNED + caseId)),
			this.db.insert(adminAct).values(actOf(by, 'case-learned-again', { of: caseId }))
		]);
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
		const rows = await this.db.all<
			Omit<Taught, 'codes' | 'unlearned' | 'typeId'> & { typeId: string | null }
		>(sql`
			WITH newest AS (
				-- By the signatures themselves, as the stamp counts them: what is kept beside a case follows a moment later.
				SELECT c.id, c.number, c.vehicle_id FROM entry g INDEXED BY entry_kind JOIN case_record c ON c.id = g.case_id
				WHERE g.kind = 'signature' AND c.coming_in = 0 AND c.from_shop IS NULL ORDER BY g.rowid DESC LIMIT ${MOST}
			)
			SELECT n.id AS caseId, n.number, v.nickname, r.observed_at AS at,
				json_extract(r.payload, '$.does.kind') AS kind, json_extract(r.payload, '$.does.place') AS place,
				(SELECT json_extract(o.payload, '$.typeId') FROM entry o
					WHERE o.case_id = n.id AND o.kind = 'case-opened' LIMIT 1) AS typeId,
				(SELECT json_extract(k.payload, '$.odometerKm') FROM entry k
					WHERE k.case_id = n.id AND k.kind = 'vehicle-checked' ORDER BY k.seq DESC LIMIT 1) AS km
			FROM newest n JOIN vehicle v ON v.id = n.vehicle_id
			JOIN entry r ON r.case_id = n.id AND r.kind = 'repair'
			WHERE json_extract(r.payload, '$.does.kind') IS NOT NULL AND ${SIGNED_AS_PROVEN} AND NOT ${CAME_BACK}
			ORDER BY r.seq`);
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

	/** Of some cases, as which they came back: the number of the newest comeback. */
	async cameBackAs(ids: readonly string[]): Promise<Map<string, string>> {
		if (ids.length === 0) return new Map();
		const of = sql<string>`json_extract(${entry.payload}, '$.comebackOf.caseId')`;
		const rows = await this.db
			.select({ id: of, number: caseRecord.number })
			.from(entry)
			.innerJoin(caseRecord, eq(caseRecord.id, entry.caseId))
			.where(and(eq(entry.kind, 'case-opened'), inArray(of, [...ids])))
			.orderBy(asc(caseRecord.number));
		return new Map(rows.map(({ id, number }) => [id, caseNumber(number)]));
	}

	private async codesOf(caseIds: string[]): Promise<Map<string, string[]>> {
		const found = new Map<string, string[]>();
		for (let from = 0; from < caseIds.length; from += MOST_ASKED) {
			const rows = await this.db
				.selectDistinct({ caseId: caseCode.caseId, code: caseCode.code })
				.from(caseCode)
				.where(inArray(caseCode.caseId, caseIds.slice(from, from + MOST_ASKED)));
			for (const { caseId, code } of rows) found.set(caseId, [...(found.get(caseId) ?? []), code]);
		}
		return found;
	}
}
