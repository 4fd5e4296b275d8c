import { and, eq, sql } from 'drizzle-orm';
import type { OpenCase } from '../../case/progress/floorPlan';
import type { Cases } from './cases';
import type { Database } from './open';
import { caseOutlook, caseRecord, vehicle } from './schema';

const isOpen = () => and(eq(caseRecord.signed, false), eq(caseRecord.comingIn, false));
const LENGTH = sql`(SELECT COALESCE(MAX(seq), 0) FROM entry WHERE entry.case_id = case_record.id)`;

/** What the floor is put in order by follows the thread a moment later: whatever is behind is brought up now. */
async function bringUp(db: Database, cases: Pick<Cases, 'refresh'>): Promise<void> {
	const behind = await db
		.select({ id: caseRecord.id })
		.from(caseRecord)
		.where(and(isOpen(), sql`${caseRecord.summarySeq} <> ${LENGTH}`));
	for (const { id } of behind) await cases.refresh(id);
}

/** The open cases as the floor is put in order by them, in no order. */
export async function openCases(db: Database, cases: Pick<Cases, 'refresh'>): Promise<OpenCase[]> {
	await bringUp(db, cases);
	const rows = await db
		.select({
			id: caseRecord.id,
			number: caseRecord.number,
			nickname: vehicle.nickname,
			names: sql<string>`coalesce((SELECT names FROM case_names WHERE rowid = case_record.number), '')`,
			dueAt: caseRecord.dueAt,
			isBack: caseRecord.isBack,
			withId: caseRecord.withId,
			waitsFor: caseRecord.waitsFor,
			toSign: caseRecord.toSign,
			toAsk: caseRecord.toAsk,
			customerId: caseRecord.customerId,
			mean: caseOutlook.meanMinutes,
			low: caseOutlook.lowMinutes,
			high: caseOutlook.highMinutes
		})
		.from(caseRecord)
		.innerJoin(vehicle, eq(vehicle.id, caseRecord.vehicleId))
		.leftJoin(caseOutlook, eq(caseOutlook.caseId, caseRecord.id))
		.where(isOpen());
	return rows.map(({ mean, low, high, ...row }) => ({
		...row,
		minutes: mean === null || low === null || high === null ? null : { mean, low, high }
	}));
}
