import { and, asc, eq, inArray, lt, not, sql } from 'drizzle-orm';
import { Purpose, type LiveMark } from '../../case/entries/live-recording/payload';
import { decodeChunk, encodeChunk, joinChunks, type Chunk } from '../../core/live/chunk';
import { fail, ok, type Result } from '../../core/result';
import { Shelf } from '../objects/shelf';
import type { Database } from './open';
import { capture, captureChunk, entry, user } from './schema';
import { isTaken, type Author } from './threads';
import { isHeld } from './vehicleHolds';

/** A capture is reached only through its case: its id alone opens nothing. */
export interface Owned {
	caseId: string;
	id: string;
}

type NewCapture = Owned & { authorId: string; name: string; purpose?: Purpose | null; startedAt: string };

/** A recording that was begun and not ended. */
export interface OpenCapture extends Owned {
	author: Author;
	name: string;
	purpose: Purpose | null;
	startedAt: string;
	marks: LiveMark[];
}

/** Pieces are laid together to this length once a recording is whole. */
const WHOLE_CHUNK_ROWS = 6_000;
const TAKEN = 'Something else is kept under this id.';

/** A whole recording in the few pieces in which it is kept. */
export function wholePieces(samples: Chunk): Uint8Array[] {
	const pieces: Uint8Array[] = [];
	for (let from = 0; from < samples.timeS.length; from += WHOLE_CHUNK_ROWS) {
		const to = from + WHOLE_CHUNK_ROWS;
		pieces.push(
			encodeChunk({
				timeS: samples.timeS.slice(from, to),
				channels: new Map([...samples.channels].map(([name, column]) => [name, column.slice(from, to)]))
			})
		);
	}
	return pieces;
}

const isOf = ({ caseId, id }: Owned) => and(eq(capture.id, id), eq(capture.caseId, caseId));

/** Samples of recordings and captures, in compressed pieces, each under its case. */
export class Captures {
	constructor(
		private readonly db: Database,
		private readonly shelf = new Shelf()
	) {}

	/** Opens a recording that will grow. Refused where the id is in use already. */
	async begin(one: NewCapture): Promise<Result<null>> {
		const made = await this.db.insert(capture).values(one).onConflictDoNothing().returning();
		return made.length === 1 ? ok(null) : fail(TAKEN);
	}

	/** Adds a piece to a recording that is still open. */
	async add({ caseId, id }: Owned, seq: number, chunk: Chunk): Promise<void> {
		await this.db.run(
			sql`INSERT INTO capture_chunk (capture_id, seq, bytes)
				SELECT id, ${seq}, ${Buffer.from(encodeChunk(chunk))} FROM capture
				WHERE id = ${id} AND case_id = ${caseId} AND whole = 0`
		);
	}

	async setMarks(one: Owned, marks: readonly LiveMark[]): Promise<void> {
		await this.db
			.update(capture)
			.set({ marks: JSON.stringify(marks) })
			.where(isOf(one));
	}

	/** The encoded pieces in order, as they lie on disk; none where the case has no such capture. */
	async pieces(one: Owned): Promise<Uint8Array[]> {
		const rows = await this.db
			.select({ bytes: captureChunk.bytes, stored: captureChunk.stored })
			.from(captureChunk)
			.innerJoin(capture, eq(capture.id, captureChunk.captureId))
			.where(isOf(one))
			.orderBy(asc(captureChunk.seq));
		return Promise.all(rows.map((row) => this.shelf.take(row)));
	}

	/** All samples; a piece that cannot be read is left out. Null where there are none. */
	async read(one: Owned): Promise<Chunk | null> {
		const chunks = (await this.pieces(one)).map(decodeChunk).flatMap((part) => (part.ok ? [part.value] : []));
		return chunks.length > 0 ? joinChunks(chunks) : null;
	}

	/** Whether anything is kept under this id, and whether it is of this case. */
	async stateOf({ caseId, id }: Owned): Promise<'free' | 'ours' | 'another'> {
		const [row] = await this.db.select({ caseId: capture.caseId }).from(capture).where(eq(capture.id, id));
		if (!row) return 'free';
		return row.caseId === caseId ? 'ours' : 'another';
	}

	/** Ends a recording: its many small pieces become few, in one go. @param pieces see {@link wholePieces} */
	async finish(one: Owned, pieces: readonly Uint8Array[]): Promise<void> {
		const laid = await this.shelf.layAll(pieces);
		await this.db.transaction(async (tx) => {
			const [open] = await tx.select({ id: capture.id }).from(capture).where(isOf(one));
			if (!open) throw new Error(`no recording ${one.id} on case ${one.caseId}`);
			await tx.delete(captureChunk).where(eq(captureChunk.captureId, one.id));
			await tx.insert(captureChunk).values(laid.map((piece, seq) => ({ captureId: one.id, seq, ...piece })));
			await tx.update(capture).set({ whole: true }).where(isOf(one));
		});
	}

	/**
	 * Keeps a capture that is whole from the start. What a server that died left under the same id, without an entry that
	 * speaks of it, gives way; anything else under the id stays and this is refused.
	 */
	async keep(one: NewCapture, pieces: readonly Uint8Array[]): Promise<Result<null>> {
		const laid = await this.shelf.layAll(pieces);
		try {
			await this.db.transaction(async (tx) => {
				await tx
					.delete(capture)
					.where(
						and(
							isOf(one),
							eq(capture.whole, true),
							sql`NOT EXISTS (SELECT 1 FROM entry WHERE id = ${one.id})`
						)
					);
				await tx.insert(capture).values({ ...one, whole: true });
				await tx
					.insert(captureChunk)
					.values(laid.map((piece, seq) => ({ captureId: one.id, seq, ...piece })));
			});
		} catch (error) {
			if (isTaken(error)) return fail(TAKEN);
			throw error;
		}
		return ok(null);
	}

	/** Takes away what no entry speaks of. */
	async forget(one: Owned): Promise<void> {
		await this.db
			.delete(capture)
			.where(
				and(
					isOf(one),
					sql`NOT EXISTS (SELECT 1 FROM ${entry} WHERE ${entry.id} = ${one.id} AND ${entry.caseId} = ${one.caseId})`
				)
			);
	}

	/** The recording that is open on a vehicle, on whatever case of it. */
	async openOn(vehicleCases: readonly string[]): Promise<Owned | null> {
		if (vehicleCases.length === 0) return null;
		const [row] = await this.db
			.select({ id: capture.id, caseId: capture.caseId })
			.from(capture)
			.where(and(inArray(capture.caseId, [...vehicleCases]), eq(capture.whole, false)))
			.limit(1);
		return row ?? null;
	}

	/** Recordings that a stopped server left open, and nobody is at. @param before only those begun earlier */
	async left(before: string): Promise<OpenCapture[]> {
		const rows = await this.db
			.select()
			.from(capture)
			.innerJoin(user, eq(user.id, capture.authorId))
			.where(and(eq(capture.whole, false), lt(capture.startedAt, before), not(isHeld(capture.id))));
		return rows.map(({ capture: { id, caseId, name, purpose, startedAt, marks }, user: author }) => ({
			id,
			caseId,
			name,
			// What a later version wrote is no purpose that this one knows.
			purpose: Purpose.safeParse(purpose).data ?? null,
			startedAt,
			marks: marksIn(marks),
			author: { id: author.id, name: author.name }
		}));
	}

	/** Ends it as it is: its samples stay, and no start asks after it again. */
	async close(one: Owned): Promise<void> {
		await this.db.update(capture).set({ whole: true }).where(isOf(one));
	}
}

function marksIn(text: string): LiveMark[] {
	try {
		return JSON.parse(text) as LiveMark[];
	} catch {
		return [];
	}
}
