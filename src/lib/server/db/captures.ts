import { and, asc, eq, lt } from 'drizzle-orm';
import type { LiveMark } from '../../case/livePayloads';
import { decodeChunk, encodeChunk, joinChunks, type Chunk } from '../../core/live/chunk';
import type { Database } from './open';
import { capture, captureChunk, user } from './schema';
import type { Author } from './threads';

/** A recording that was begun and not ended. */
export interface OpenCapture {
	id: string;
	caseId: string;
	author: Author;
	name: string;
	startedAt: string;
	marks: LiveMark[];
}

/** Pieces are laid together to this length once a recording is whole. */
const WHOLE_CHUNK_ROWS = 6_000;

/** Samples of recordings, in compressed pieces. */
export class Captures {
	constructor(private readonly db: Database) {}

	async begin(one: { id: string; caseId: string; authorId: string; name: string; startedAt: string }) {
		await this.db.insert(capture).values(one).onConflictDoNothing();
	}

	async add(id: string, seq: number, chunk: Chunk): Promise<void> {
		await this.db.insert(captureChunk).values({ captureId: id, seq, bytes: Buffer.from(encodeChunk(chunk)) });
	}

	async setMarks(id: string, marks: readonly LiveMark[]): Promise<void> {
		await this.db
			.update(capture)
			.set({ marks: JSON.stringify(marks) })
			.where(eq(capture.id, id));
	}

	/** The encoded pieces in order, as they lie on disk. */
	async pieces(id: string): Promise<Uint8Array[]> {
		const rows = await this.db
			.select({ bytes: captureChunk.bytes })
			.from(captureChunk)
			.where(eq(captureChunk.captureId, id))
			.orderBy(asc(captureChunk.seq));
		return rows.map(({ bytes }) => bytes);
	}

	/** All samples; a piece that cannot be read is left out. Null where there are none. */
	async read(id: string): Promise<Chunk | null> {
		const chunks = (await this.pieces(id)).map(decodeChunk).flatMap((one) => (one.ok ? [one.value] : []));
		return chunks.length > 0 ? joinChunks(chunks) : null;
	}

	async caseOf(id: string): Promise<string | null> {
		const [row] = await this.db.select({ caseId: capture.caseId }).from(capture).where(eq(capture.id, id));
		return row?.caseId ?? null;
	}

	/** Ends a recording: its many small pieces become few, in one go. */
	async finish(id: string, samples: Chunk): Promise<void> {
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
		await this.db.transaction(async (tx) => {
			await tx.delete(captureChunk).where(eq(captureChunk.captureId, id));
			for (const [seq, bytes] of pieces.entries())
				await tx.insert(captureChunk).values({ captureId: id, seq, bytes: Buffer.from(bytes) });
			await tx.update(capture).set({ whole: true }).where(eq(capture.id, id));
		});
	}

	/** Keeps a capture that is whole from the start, in its own format. The same id again keeps the first. */
	async keep(
		one: { id: string; caseId: string; authorId: string; name: string; startedAt: string },
		bytes: Uint8Array
	): Promise<void> {
		await this.db.transaction(async (tx) => {
			await tx
				.insert(capture)
				.values({ ...one, whole: true })
				.onConflictDoNothing();
			await tx
				.insert(captureChunk)
				.values({ captureId: one.id, seq: 0, bytes: Buffer.from(bytes) })
				.onConflictDoNothing();
		});
	}

	async forget(id: string): Promise<void> {
		await this.db.delete(capture).where(eq(capture.id, id));
	}

	/** Recordings that a stopped server left open. @param before only those begun earlier */
	async left(before: string): Promise<OpenCapture[]> {
		const rows = await this.db
			.select()
			.from(capture)
			.innerJoin(user, eq(user.id, capture.authorId))
			.where(and(eq(capture.whole, false), lt(capture.startedAt, before)));
		return rows.map(({ capture: { id, caseId, name, startedAt, marks }, user: author }) => ({
			id,
			caseId,
			name,
			startedAt,
			marks: JSON.parse(marks) as LiveMark[],
			author: { id: author.id, name: author.name }
		}));
	}
}
