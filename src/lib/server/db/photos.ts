import { createHash } from 'node:crypto';
import { and, eq } from 'drizzle-orm';
import sharp from 'sharp';
import { fail, ok, type Result } from '../../core/result';
import type { Database } from './open';
import { photo } from './schema';

/** What a camera may send, and what is kept of it. */
export const MOST_PHOTO_BYTES = 25 * 1024 * 1024;
const MOST_PIXELS = 80_000_000;
const LONGEST_SIDE = 1_600;
const QUALITY = 82;

export interface KeptPhoto {
	id: string;
	sha256: string;
	width: number;
	height: number;
}

export class Photos {
	constructor(private readonly db: Database) {}

	/**
	 * Draws a photo anew, no larger than is needed to see what was looked at, the right way up, without place, time or
	 * camera, and keeps that. Sent again under the same id, it gives back what is kept.
	 */
	async keep(
		one: { id: string; caseId: string; authorId: string },
		sent: Uint8Array
	): Promise<Result<KeptPhoto>> {
		const [known] = await this.db
			.select({
				id: photo.id,
				caseId: photo.caseId,
				sha256: photo.sha256,
				width: photo.width,
				height: photo.height
			})
			.from(photo)
			.where(eq(photo.id, one.id));
		if (known) return known.caseId === one.caseId ? ok(known) : fail('Something else is kept under this id.');
		let drawn: { data: Buffer; info: { width: number; height: number } };
		try {
			drawn = await sharp(sent, { limitInputPixels: MOST_PIXELS, failOn: 'error' })
				.rotate()
				.resize({ width: LONGEST_SIDE, height: LONGEST_SIDE, fit: 'inside', withoutEnlargement: true })
				.flatten({ background: '#ffffff' })
				.jpeg({ quality: QUALITY })
				.toBuffer({ resolveWithObject: true });
		} catch {
			return fail('This is no photo that can be read: JPEG, PNG, WebP or AVIF, up to 80 megapixels.');
		}
		const { data, info } = drawn;
		const kept = {
			id: one.id,
			sha256: createHash('sha256').update(data).digest('hex'),
			width: info.width,
			height: info.height
		};
		await this.db
			.insert(photo)
			.values({ ...one, ...kept, takenInAt: new Date().toISOString(), bytes: data })
			.onConflictDoNothing();
		return ok(kept);
	}

	/** Hash of a photo of this case; null where it has none under this id. */
	async hashOf(caseId: string, id: string): Promise<string | null> {
		const [row] = await this.db
			.select({ sha256: photo.sha256 })
			.from(photo)
			.where(and(eq(photo.id, id), eq(photo.caseId, caseId)));
		return row?.sha256 ?? null;
	}

	async read(caseId: string, id: string): Promise<Uint8Array | null> {
		const [row] = await this.db
			.select({ bytes: photo.bytes })
			.from(photo)
			.where(and(eq(photo.id, id), eq(photo.caseId, caseId)));
		return row?.bytes ?? null;
	}
}
