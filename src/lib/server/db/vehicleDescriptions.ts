import { and, desc, eq, sql } from 'drizzle-orm';
import { vehicleTypes } from '../../../../library';
import {
	descriptionOf,
	FullDescription,
	vehicleName,
	type Described
} from '../../../../library/vehicle/vehicleType';
import type { Database } from './open';
import { adminAct, vehicleDescription } from './schema';
import type { Author } from './threads';
import { actOf } from '../accounts/adminLog';

/** A description of the shop's, by what it is called. */
export interface Listed {
	id: string;
	name: string;
	version: number;
	madeBy: string;
	madeAt: string;
}

/** The vehicles that this shop has described, each in all its versions. */
export class VehicleDescriptions {
	constructor(private readonly db: Database) {}

	/** The newest version of each, the newest first. */
	async list(): Promise<Listed[]> {
		const rows = await this.db
			.select()
			.from(vehicleDescription)
			.orderBy(desc(vehicleDescription.madeAt), desc(vehicleDescription.version));
		const newest = new Map(rows.toReversed().map((row) => [row.id, row]));
		return [...newest.values()].reverse().map(({ id, version, description, madeBy, madeAt }) => ({
			id,
			version,
			name: vehicleName(FullDescription.parse(description)),
			madeBy,
			madeAt
		}));
	}

	/** The newest version; null where the shop has not described it. */
	async newest(id: string): Promise<Described | null> {
		const [row] = await this.db
			.select()
			.from(vehicleDescription)
			.where(eq(vehicleDescription.id, id))
			.orderBy(desc(vehicleDescription.version))
			.limit(1);
		return row ? { ...FullDescription.parse(row.description), version: row.version } : null;
	}

	/** What was kept of one, the newest first. */
	async versions(id: string): Promise<{ version: number; because: string; madeAt: string }[]> {
		const { version, because, madeAt } = vehicleDescription;
		return this.db
			.select({ version, because, madeAt })
			.from(vehicleDescription)
			.where(eq(vehicleDescription.id, id))
			.orderBy(desc(vehicleDescription.version));
	}

	/** One version; null where there is none of that number. The first of what is shipped is the library's own. */
	async at(id: string, version: number): Promise<Described | null> {
		const shipped = vehicleTypes.get(id);
		if (version === 1 && shipped) return descriptionOf(shipped);
		const [row] = await this.db
			.select()
			.from(vehicleDescription)
			.where(and(eq(vehicleDescription.id, id), eq(vehicleDescription.version, version)));
		return row ? { ...FullDescription.parse(row.description), version: row.version } : null;
	}

	/** Whether an id is taken, by the library or by the shop. */
	async isTaken(id: string): Promise<boolean> {
		return vehicleTypes.has(id) || (await this.newest(id)) !== null;
	}

	/** Keeps a description as the next version of its id. @returns it, with that version */
	async keep(description: Described, by: Author, because = '', now = new Date()): Promise<Described> {
		const { id } = description;
		// The library's own is the first version of what is corrected of it.
		const first = vehicleTypes.has(id) ? 2 : 1;
		const [row] = await this.db.transaction(async (tx) => {
			const made = await tx
				.insert(vehicleDescription)
				.values({
					id,
					version: sql`(SELECT COALESCE(MAX(version) + 1, ${first}) FROM vehicle_description WHERE id = ${id})`,
					description,
					because,
					madeBy: by.id,
					madeAt: now.toISOString()
				})
				.returning({ version: vehicleDescription.version });
			await tx
				.insert(adminAct)
				.values(actOf(by, 'vehicle-described', { of: id, to: `version ${made[0]?.version ?? first}` }, now));
			return made;
		});
		return { ...description, version: row?.version ?? first };
	}
}
