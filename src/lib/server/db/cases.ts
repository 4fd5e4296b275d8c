import { and, desc, eq, inArray, sql, type SQL } from 'drizzle-orm';
import { vehicleTypes, type VehicleType } from '../../../../library';
import { vehicleName } from '../../../../library/vehicle/vehicleType';
import { typeOf } from '../../case/thread/vehicleOf';
import { codesOn } from '../../case/codes/caseCodes';
import { projectCase } from '../../case/progress/project';
import { floorFacts, summarise, type CaseSummary } from '../../case/progress/summary';
import { ofKind, standing } from '../../case/thread/thread';
import { codeNumber, suffixOf } from '../../core/codes/codeId';
import { groupedBy } from '../../core/groupedBy';
import { caseNumber } from './caseNumber';
import { CaseSearch, SPOKEN_KINDS, type FoundCase } from './caseSearch';
import { CodeLibrary } from './codeLibrary';
import { NameSearch, type NamedCase } from './nameSearch';
import type { Database } from './open';
import { caseCode, caseRecord, vehicle } from './schema';
import type { Threads } from './threads';
import type { Vehicle } from './vehicles';

export interface CaseRow {
	id: string;
	number: string;
	/** When it is promised, in words: of cases of before that stood on their threads. */
	wanted: string;
	/** The shop that it was brought in from; null = this one’s own. */
	fromShop: string | null;
	/** Key that its bundle was signed with; null = it was not, or it is this shop's own. */
	fromKey: string | null;
	/** How many of its entries are by people of that shop. */
	fromEntries: number;
	/** Why its thread is not as it was written; null = it is, as far as it was looked at. */
	chainBroken: string | null;
	signed: boolean;
	vehicle: Vehicle;
	/** Its vehicle's type as this shop describes it; null = it is not described. */
	type: VehicleType | null;
	/** Maker and model. */
	vehicleName: string;
	summary: CaseSummary;
	/** Entries on its thread. */
	length: number;
}

/** A case that had a code, for those who meet it again. */
export interface CaseWithCode {
	id: string;
	number: string;
	vehicle: string;
	failureTypes: string[];
	/** Whether it was proven clear in the end. */
	proven: boolean;
	repairs: string[];
}

const PAGE = 25;
const FOLLOW_AFTER_MS = 200;
/** Open cases whose threads are checked at a start, the newest first. */
const MOST_CHECKED = 2_000;
/** Set by migrations that changed what is kept beside threads. */
const COMPUTE_ANEW = -1;

/** Maker and model of a vehicle type; the bare id where the library does not know it. */
export function typeName(typeId: string, told: string | null = null): string {
	const type = vehicleTypes.get(typeId);
	return type ? vehicleName(type) : (told ?? typeId);
}

/** "Ottaro Pip, school minibus"; once where both are the same words. */
export const calledSo = (type: string, nickname: string): string =>
	type === nickname || nickname === '' ? type : `${type}, ${nickname}`;

/** A case with its vehicle and how many entries its thread has. */
interface Joined {
	case_record: typeof caseRecord.$inferSelect;
	vehicle: Vehicle;
	length: number;
}
const JOINED = {
	case_record: caseRecord,
	vehicle,
	length: sql<number>`(SELECT COALESCE(MAX(seq), 0) FROM entry WHERE entry.case_id = case_record.id)`
};

const plainPlate = (plate: string): string => plate.toUpperCase().replaceAll(' ', '');

/** The shop's cases. */
export class Cases {
	private readonly behind = new Set<string>();
	private following: Promise<void> | null = null;
	private readonly byId;

	constructor(
		private readonly db: Database,
		private readonly threads: Threads,
		private readonly codes = new CodeLibrary(db),
		private readonly words = new CaseSearch(db),
		private readonly names = new NameSearch(db)
	) {
		this.byId = db
			.select(JOINED)
			.from(caseRecord)
			.innerJoin(vehicle, eq(vehicle.id, caseRecord.vehicleId))
			.where(and(eq(caseRecord.id, sql.placeholder('id')), eq(caseRecord.comingIn, false)))
			.prepare();
	}

	/** Opens a case under an id made by the client: asked twice, it is opened once. */
	async open(id: string, vehicleId: string, createdAt = new Date()): Promise<string> {
		await this.db
			.insert(caseRecord)
			.values({
				id,
				vehicleId,
				createdAt: createdAt.toISOString(),
				number: sql`(SELECT COALESCE(MAX(number), 400) + 1 FROM case_record)`
			})
			.onConflictDoNothing({ target: caseRecord.id });
		return id;
	}

	async find(id: string): Promise<CaseRow | null> {
		const [row] = await this.byId.all({ id });
		if (!row) return null;
		const kept = row.case_record.summary as CaseSummary | null;
		const thread = await this.threads.read(id);
		const found = await this.toRow(row, { summary: kept ?? summarise(thread) });
		return { ...found, type: typeOf(standing(thread)) ?? found.type };
	}

	/** Who made the vehicle of a case; null where its type or the case is not known. */
	async makerOf(caseId: string): Promise<string | null> {
		return (await this.find(caseId))?.type?.maker || null;
	}

	/**
	 * Open cases, oldest number first, a page at a time; `signed` gives the closed ones, newest first. A page beyond the last
	 * is the last.
	 *
	 * @param of only those of one vehicle, by its number or its plate, however it is spaced
	 */
	async page(
		signed: boolean,
		wantedPage: number,
		of: { vin?: string | null; plate?: string | null } = {}
	): Promise<{ rows: CaseRow[]; total: number; page: number; pages: number }> {
		const wanted = and(
			eq(caseRecord.signed, signed),
			eq(caseRecord.comingIn, false),
			of.vin ? eq(vehicle.vin, of.vin.toUpperCase()) : undefined,
			of.plate ? sql`replace(upper(${vehicle.plate}), ' ', '') = ${plainPlate(of.plate)}` : undefined
		);
		const counted = this.db.select({ n: sql<number>`count(*)` }).from(caseRecord);
		const [count] = await (of.vin || of.plate
			? counted.innerJoin(vehicle, eq(vehicle.id, caseRecord.vehicleId)).where(wanted)
			: counted.where(wanted));
		const total = count?.n ?? 0;
		const pages = Math.max(1, Math.ceil(total / PAGE));
		const page = Math.min(pages, Math.max(1, wantedPage));
		// Which they are comes from the index alone; only those of the page are read.
		const order = signed ? desc(caseRecord.number) : caseRecord.number;
		const listed = this.db
			.select({ row: sql`case_record.rowid` })
			.from(caseRecord)
			.$dynamic();
		if (of.vin || of.plate) listed.innerJoin(vehicle, eq(vehicle.id, caseRecord.vehicleId));
		const onPage = listed
			.where(wanted)
			.orderBy(order)
			.limit(PAGE)
			.offset((page - 1) * PAGE);
		const rows = await this.joined(sql`case_record.rowid IN ${onPage}`).orderBy(order);
		return { rows: await this.toRows(rows), total, page, pages };
	}

	/** Cases by their ids, in that order; what there is not is left out. */
	async rowsOf(ids: readonly string[]): Promise<CaseRow[]> {
		const joined = await this.joined(inArray(caseRecord.id, [...ids]));
		const rows = new Map((await this.toRows(joined)).map((row) => [row.id, row]));
		return ids.flatMap((id) => rows.get(id) ?? []);
	}

	/** The newest cases of a vehicle, the first one first. */
	async idsOfVehicle(vehicleId: string, limit: number): Promise<string[]> {
		const rows = await this.db
			.select({ id: caseRecord.id })
			.from(caseRecord)
			.where(and(eq(caseRecord.vehicleId, vehicleId), eq(caseRecord.comingIn, false)))
			.orderBy(desc(caseRecord.number))
			.limit(limit);
		return rows.map(({ id }) => id).reverse();
	}

	/** The cases that a customer brought in, the newest first. */
	async ofCustomer(customerId: string, limit: number): Promise<CaseRow[]> {
		const rows = await this.db
			.select({ id: caseRecord.id })
			.from(caseRecord)
			.where(and(eq(caseRecord.customerId, customerId), eq(caseRecord.comingIn, false)))
			.orderBy(desc(caseRecord.number))
			.limit(limit);
		return this.rowsOf(rows.map(({ id }) => id));
	}

	private joined(where: SQL | undefined) {
		return this.db
			.select(JOINED)
			.from(caseRecord)
			.innerJoin(vehicle, eq(vehicle.id, caseRecord.vehicleId))
			.where(where)
			.$dynamic();
	}

	private async toRows(rows: Joined[]): Promise<CaseRow[]> {
		const known = await this.codes.stamp();
		return Promise.all(rows.map((row) => this.toRow(row, { known })));
	}

	/** Has what the floor shows follow the thread soon: whoever has written waits for nothing but the entry itself. */
	later(caseId: string): void {
		this.behind.add(caseId);
		this.following ??= this.follow().finally(() => (this.following = null));
	}

	/** Resolves once nothing waits to be followed any more. */
	async settled(): Promise<void> {
		while (this.following) await this.following;
	}

	private async follow(): Promise<void> {
		// What is written in one breath is followed once.
		await new Promise((resolve) => setTimeout(resolve, FOLLOW_AFTER_MS));
		for (const caseId of this.behind) {
			this.behind.delete(caseId);
			// Whoever waits for a page comes first.
			await new Promise((resolve) => setImmediate(resolve));
			await this.refresh(caseId).catch(() => undefined);
		}
	}

	/** Reads the threads of open cases from disk and checks them. @returns how many are not as they were written */
	async checkOpenChains(): Promise<number> {
		const open = await this.db
			.select({ id: caseRecord.id })
			.from(caseRecord)
			.where(and(eq(caseRecord.signed, false), eq(caseRecord.comingIn, false)))
			.orderBy(desc(caseRecord.number))
			.limit(MOST_CHECKED);
		let broken = 0;
		for (const { id } of open) {
			if (!(await this.threads.check(id)).intact) broken += 1;
			await new Promise((resolve) => setImmediate(resolve));
		}
		return broken;
	}

	/** Brings what the floor shows up to the thread. Harmless to repeat; run after every append. */
	async refresh(caseId: string): Promise<CaseSummary> {
		const [thread, known] = await Promise.all([this.threads.read(caseId), this.codes.stamp()]);
		const view = projectCase(thread, await this.codes.bookFor(codesOn(thread)));
		const summary = summarise(thread, view);
		const had = view.codes.map((code) => ({
			caseId,
			code: codeNumber(code.dtc),
			failureType: suffixOf(code.dtc) ?? '',
			moduleName: code.moduleName,
			verdict: code.proof.verdict
		}));
		const naming = await this.names.indexing(caseId, view.entries);
		// In one go: each write by itself would wait for the disk.
		await this.db.batch([
			this.db
				.update(caseRecord)
				.set({
					...floorFacts(summary),
					summary,
					summarySeq: thread.length,
					summaryKnown: known,
					signed: thread.some((e) => e.kind === 'signature')
				})
				.where(and(eq(caseRecord.id, caseId), sql`${caseRecord.summarySeq} <= ${thread.length}`)),
			this.words.indexing(caseId, view.entries),
			naming(),
			...(had.length > 0
				? [
						this.db
							.insert(caseCode)
							.values(had)
							.onConflictDoUpdate({
								target: [caseCode.caseId, caseCode.code, caseCode.failureType, caseCode.moduleName],
								set: { verdict: sql`excluded.verdict` }
							})
					]
				: [])
		]);
		return summary;
	}

	/** Computes anew what is kept beside threads wherever a migration has asked for it. Returns for how many cases. */
	async catchUp(): Promise<number> {
		const behind = await this.db
			.select({ id: caseRecord.id })
			.from(caseRecord)
			.where(eq(caseRecord.summarySeq, COMPUTE_ANEW));
		for (const { id } of behind) await this.refresh(id);
		return behind.length;
	}

	/** Cases by the words on their threads. */
	async search(text: string, limit: number): Promise<(Omit<FoundCase, 'number'> & { number: string })[]> {
		const found = await this.words.search(text, limit, (ids) => this.threads.readKinds(ids, SPOKEN_KINDS));
		return found.map((one) => ({ ...one, number: caseNumber(one.number) }));
	}

	/** Cases by what they, or their vehicles, are called. */
	async named(text: string, limit: number): Promise<(Omit<NamedCase, 'number'> & { number: string })[]> {
		return (await this.names.search(text, limit)).map((one) => ({ ...one, number: caseNumber(one.number) }));
	}

	/** Open cases that have a code, by its number. */
	async openWith(code: string): Promise<ReadonlySet<string>> {
		const rows = await this.db
			.selectDistinct({ id: caseRecord.id })
			.from(caseRecord)
			.innerJoin(caseCode, eq(caseCode.caseId, caseRecord.id))
			.where(and(eq(caseRecord.comingIn, false), eq(caseRecord.signed, false), eq(caseCode.code, code)));
		return new Set(rows.map(({ id }) => id));
	}

	/** Which of some cases had a code, by its number, in their order. */
	async thatHad(code: string, ids: readonly string[]): Promise<string[]> {
		const rows = await this.db
			.selectDistinct({ id: caseCode.caseId })
			.from(caseCode)
			.where(and(eq(caseCode.code, code), inArray(caseCode.caseId, [...ids])));
		const had = new Set(rows.map(({ id }) => id));
		return ids.filter((id) => had.has(id));
	}

	/** The newest cases that had any of some codes, by their numbers. */
	async newestWith(codes: readonly string[], limit: number): Promise<string[]> {
		const each = await Promise.all(
			codes.map((code) =>
				this.db
					.selectDistinct({ id: caseCode.caseId })
					.from(caseCode)
					.where(eq(caseCode.code, code))
					.orderBy(desc(caseCode.caseId))
					.limit(limit)
			)
		);
		return [...new Set(each.flat().map(({ id }) => id))];
	}

	/** Cases of the newest vehicles of a type. */
	async newestOfType(typeId: string, limit: number): Promise<string[]> {
		const newest = this.db
			.select({ id: vehicle.id })
			.from(vehicle)
			.where(eq(vehicle.typeId, typeId))
			.orderBy(desc(sql`vehicle.rowid`))
			.limit(limit);
		const rows = await this.db
			.select({ id: caseRecord.id })
			.from(caseRecord)
			.where(and(inArray(caseRecord.vehicleId, newest), eq(caseRecord.comingIn, false)))
			.orderBy(desc(caseRecord.number))
			.limit(limit);
		return rows.map(({ id }) => id);
	}

	/** Codes of some cases, with their failure types. */
	async codesOf(ids: readonly string[]): Promise<Map<string, { code: string; failureType: string }[]>> {
		const rows = await this.db
			.selectDistinct({ caseId: caseCode.caseId, code: caseCode.code, failureType: caseCode.failureType })
			.from(caseCode)
			.where(inArray(caseCode.caseId, [...ids]));
		return groupedBy(rows, ({ caseId }) => caseId);
	}

	/** Cases of this shop that had a code, newest first, with what was mended on each. */
	async casesWith(code: string, limit = 20): Promise<CaseWithCode[]> {
		// Ids grow with the time of opening: the newest are found without going through all that ever had it.
		const newest = this.db
			.selectDistinct({ id: caseCode.caseId })
			.from(caseCode)
			.where(eq(caseCode.code, code))
			.orderBy(desc(caseCode.caseId))
			.limit(limit);
		const rows = await this.db
			.select({
				id: caseRecord.id,
				number: caseRecord.number,
				vehicle: vehicle.nickname,
				typeId: vehicle.typeId,
				typeName: vehicle.typeName,
				failureTypes: sql<string>`group_concat(DISTINCT ${caseCode.failureType})`,
				verdicts: sql<string>`group_concat(DISTINCT ${caseCode.verdict})`
			})
			.from(caseCode)
			.innerJoin(caseRecord, eq(caseRecord.id, caseCode.caseId))
			.innerJoin(vehicle, eq(vehicle.id, caseRecord.vehicleId))
			.where(and(eq(caseCode.code, code), inArray(caseCode.caseId, newest)))
			.groupBy(caseRecord.id)
			.orderBy(desc(caseRecord.number))
			.limit(limit);
		const ids = rows.map((row) => row.id);
		const repairs = ofKind(standing(await this.threads.readKinds(ids, ['repair'])), 'repair');
		return rows.map(({ id, number, vehicle: nickname, typeId, typeName: told, failureTypes, verdicts }) => ({
			id,
			number: caseNumber(number),
			vehicle: calledSo(typeName(typeId, told), nickname),
			failureTypes: failureTypes.split(','),
			proven: verdicts === 'proven-clear',
			repairs: repairs.filter((repair) => repair.caseId === id).map((repair) => repair.payload.title)
		}));
	}

	/** @param as a summary that will do, though it may be behind the thread; or what is known of codes now, to have it as it is */
	private async toRow(row: Joined, as: { summary: CaseSummary } | { known: string }): Promise<CaseRow> {
		const { case_record: record, length } = row;
		// A signed case stays as it was signed.
		const isFresh = (known: string) =>
			record.summary !== null &&
			record.summarySeq === length &&
			(record.signed || record.summaryKnown === known);
		const summaryNow = async (known: string) =>
			isFresh(known) ? (record.summary as CaseSummary) : this.refresh(record.id);
		return {
			id: record.id,
			number: caseNumber(record.number),
			wanted: record.wanted,
			fromShop: record.fromShop,
			fromKey: record.fromKey,
			fromEntries: record.fromEntries,
			chainBroken: record.chainBroken,
			signed: record.signed,
			vehicle: row.vehicle,
			type: vehicleTypes.get(row.vehicle.typeId) ?? null,
			vehicleName: typeName(row.vehicle.typeId, row.vehicle.typeName),
			length,
			summary: 'summary' in as ? as.summary : await summaryNow(as.known)
		};
	}
}
