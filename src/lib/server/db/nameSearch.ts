import { sql } from 'drizzle-orm';
import type { Entry } from '../../case/entries/entry';
import { latest } from '../../case/thread/thread';
import type { Database } from './open';
import { byNames, plain, signsOf } from './trigrams';

/** A case found by what it, or its vehicle, is called. */
export interface NamedCase {
	id: string;
	number: number;
	vehicleId: string;
	vehicle: string;
	plate: string;
	signed: boolean;
}

/** What a vehicle is called by. */
interface CalledBy {
	nickname: string;
	plate: string;
	vin: string | null;
}

/**
 * What a case is called by: the vehicle as it was told when it came in and as it is described and called by now, its plates as they
 * are written and without spaces, its number where it was read.
 *
 * @param entries standing ones, in order
 * @param now what the vehicle is called by where that was changed
 */
export function namesOf(entries: readonly Entry[], now: CalledBy | null): string {
	const opened = latest(entries, 'case-opened')?.payload;
	const described = latest(entries, 'vehicle-described')?.payload.description;
	const checked = latest(entries, 'vehicle-checked')?.payload;
	const plate = opened?.plate ?? '';
	return plain(
		[
			opened?.name,
			described?.maker,
			described?.model,
			plate,
			signsOf(plate),
			checked?.vin,
			...(now ? [now.nickname, now.plate, signsOf(now.plate), now.vin] : [])
		]
			.filter(Boolean)
			.join(' ')
	);
}

const NUMBER = /^(?:tp[\s-]*)?0*(\d{1,9})$/i;

/** The case that a number means, as it is written or without its letters; null where the text is none. */
export function numberIn(text: string): number | null {
	const digits = NUMBER.exec(text.trim())?.[1];
	return digits === undefined ? null : Number(digits);
}

/** Search over what cases and their vehicles are called: number, plate, VIN, nickname, maker and model. */
export class NameSearch {
	constructor(private readonly db: Database) {}

	/** What brings the names of one case up to its thread, to be run with other writes. Harmless to repeat. */
	async indexing(caseId: string, entries: readonly Entry[]) {
		const [changed] = await this.db.all<CalledBy>(sql`
			SELECT v.nickname, v.plate, v.vin FROM case_record c JOIN vehicle v ON v.id = c.vehicle_id
			WHERE c.id = ${caseId} AND v.version > 1`);
		return () =>
			this.db.run(sql`
				INSERT OR REPLACE INTO case_names (rowid, names)
				VALUES ((SELECT number FROM case_record WHERE id = ${caseId}), ${namesOf(entries, changed ?? null)})`);
	}

	/** Cases by their number, then the newest whose names have all that was typed, also with a slip in a longer word. */
	async search(text: string, limit: number): Promise<NamedCase[]> {
		const number = numberIn(text);
		const numbered = number === null ? [] : await this.rows(sql`c.number = ${number}`, 1);
		if (numbered.length >= limit) return numbered;
		const named = await byNames(text, limit, (match, most) => this.matching(match, most));
		const known = new Set(numbered.map(({ id }) => id));
		return [...numbered, ...named.filter(({ id }) => !known.has(id))].slice(0, limit);
	}

	private matching(match: string, limit: number) {
		return this.rows(
			sql`c.number IN (SELECT rowid FROM case_names WHERE case_names MATCH ${match} ORDER BY rowid DESC LIMIT ${limit})`,
			limit
		);
	}

	private rows(where: ReturnType<typeof sql>, limit: number): Promise<(NamedCase & { names: string })[]> {
		return this.db.all(sql`
			SELECT c.id, c.number, v.id AS vehicleId, v.nickname AS vehicle, v.plate, c.signed = 1 AS signed, n.names
			FROM case_record c JOIN vehicle v ON v.id = c.vehicle_id LEFT JOIN case_names n ON n.rowid = c.number
			WHERE c.coming_in = 0 AND ${where} ORDER BY c.number DESC LIMIT ${limit}`);
	}
}
