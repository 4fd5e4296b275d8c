import { and, desc, eq, isNotNull, sql } from 'drizzle-orm';
import { ulid } from 'ulid';
import { fail, ok, type Result } from '../../core/result';
import type { Database } from './open';
import { keepingPast, pastOf, type PastRecord } from './recordPast';
import { caseRecord, vehicle } from './schema';
import type { Author } from './threads';

export type Vehicle = typeof vehicle.$inferSelect;

const MOST_LISTED = 200;

/** The shop's vehicles. */
export class Vehicles {
	constructor(private readonly db: Database) {}

	/** The newest ones: all others are found by their names. */
	async newest(): Promise<Vehicle[]> {
		return this.db
			.select()
			.from(vehicle)
			.orderBy(desc(sql`vehicle.rowid`))
			.limit(MOST_LISTED);
	}

	async find(id: string): Promise<Vehicle | null> {
		const [found] = await this.db.select().from(vehicle).where(eq(vehicle.id, id));
		return found ?? null;
	}

	/** Another vehicle of this shop that has this number, by its own record or as it was read on a case; null where none has. */
	async otherWithVin(caseId: string, vin: string): Promise<{ nickname: string; plate: string } | null> {
		const [other] = await this.db.all<{ nickname: string; plate: string }>(sql`
			SELECT nickname, plate FROM vehicle WHERE id IN (
				SELECT id FROM vehicle WHERE vin = ${vin}
				UNION ALL SELECT c.vehicle_id FROM entry e JOIN case_record c ON c.id = e.case_id
					WHERE e.kind = 'vehicle-checked' AND json_extract(e.payload, '$.vin') = ${vin}
			) AND id != (SELECT vehicle_id FROM case_record WHERE id = ${caseId})
			ORDER BY vin IS ${vin} DESC, rowid LIMIT 1`);
		return other ?? null;
	}

	async add(
		values: Omit<Vehicle, 'id' | 'createdAt' | 'typeName' | 'version'> & {
			id?: string;
			typeName?: string | null;
		}
	): Promise<Vehicle> {
		const row = { id: values.id ?? ulid(), createdAt: new Date().toISOString(), ...values };
		await this.db.insert(vehicle).values(row).onConflictDoNothing();
		const [stored] = await this.db.select().from(vehicle).where(eq(vehicle.id, row.id));
		return stored as Vehicle;
	}

	/**
	 * Changes what a vehicle is called by, what it was before kept.
	 *
	 * @param version the one that whoever changes it has seen
	 */
	async rename(
		id: string,
		version: number,
		values: Pick<Vehicle, 'nickname' | 'plate' | 'vin'>,
		by: Author,
		now = new Date()
	): Promise<Result<null>> {
		const known = await this.find(id);
		if (!known) return fail('There is no such vehicle.');
		if (known.nickname === values.nickname && known.plate === values.plate && known.vin === values.vin)
			return ok(null);
		const [, changed] = await this.db.batch([
			keepingPast(this.db, 'vehicle', id, version, by, now),
			this.db
				.update(vehicle)
				.set({ ...values, version: version + 1 })
				.where(and(eq(vehicle.id, id), eq(vehicle.version, version)))
		]);
		return changed.rowsAffected > 0
			? ok(null)
			: fail('Somebody else has changed this vehicle meanwhile: load the page again.');
	}

	/** What a vehicle was called by before, the newest first. */
	async past(id: string): Promise<PastRecord[]> {
		return pastOf(this.db, 'vehicle', id);
	}

	/** Who brought a vehicle in the last time that somebody said so; null = nobody ever did. */
	async lastCustomerOf(vehicleId: string): Promise<string | null> {
		const [last] = await this.db
			.select({ id: caseRecord.customerId })
			.from(caseRecord)
			.where(
				and(
					eq(caseRecord.vehicleId, vehicleId),
					eq(caseRecord.comingIn, false),
					isNotNull(caseRecord.customerId)
				)
			)
			.orderBy(desc(caseRecord.number))
			.limit(1);
		return last?.id ?? null;
	}

	async setAddresses(
		vehicleId: string,
		linkAddress: string | null,
		standInAddress: string | null
	): Promise<void> {
		await this.db.update(vehicle).set({ linkAddress, standInAddress }).where(eq(vehicle.id, vehicleId));
	}

	async setLinkAddress(vehicleId: string, linkAddress: string | null): Promise<void> {
		await this.db.update(vehicle).set({ linkAddress }).where(eq(vehicle.id, vehicleId));
	}
}
