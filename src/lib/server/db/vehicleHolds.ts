import { and, eq, sql } from 'drizzle-orm';
import type { Database } from './open';
import { peer, vehicleHold } from './schema';

/** A server that has not been seen for this long, by the database's clock, is taken to be dead, s. */
export const GONE_S = 30;

/** Of work that some living server is at: nobody else ends it. */
export const isHeld = (jobId: unknown) =>
	sql`EXISTS (SELECT 1 FROM vehicle_hold WHERE vehicle_hold.job_id = ${jobId})`;

const livingPeers = sql`(SELECT ${peer.id} FROM ${peer} WHERE ${peer.seenAt} > unixepoch() - ${GONE_S})`;

/** Who is at which vehicle, whatever server it is through: two never talk to one vehicle at once. */
export class VehicleHolds {
	/** @param peerId this server's own id */
	constructor(
		private readonly db: Database,
		private readonly peerId: string
	) {}

	/** @returns who is at it already; null = it is held now */
	async take(address: string, jobId: string, byName: string): Promise<string | null> {
		const made = await this.db
			.insert(vehicleHold)
			.values({ address, jobId, peerId: this.peerId, byName })
			// What this server itself could not let go is its own still.
			.onConflictDoUpdate({
				target: vehicleHold.address,
				set: { jobId, byName },
				setWhere: eq(vehicleHold.peerId, this.peerId)
			})
			.returning();
		if (made.length > 0) return null;
		const [held] = await this.db.select().from(vehicleHold).where(eq(vehicleHold.address, address));
		// It was let go in this moment.
		return held ? held.byName : this.take(address, jobId, byName);
	}

	async letGo(jobId: string): Promise<void> {
		await this.db
			.delete(vehicleHold)
			.where(and(eq(vehicleHold.jobId, jobId), eq(vehicleHold.peerId, this.peerId)));
	}

	/** Takes away what dead servers held, and what this one did before it was started anew. @returns how many */
	async freeDead(): Promise<number> {
		const gone = await this.db
			.delete(vehicleHold)
			.where(sql`${vehicleHold.peerId} NOT IN ${livingPeers}`)
			.returning({ jobId: vehicleHold.jobId });
		return gone.length;
	}
}
