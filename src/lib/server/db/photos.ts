import { createHash } from 'node:crypto';
import { and, eq } from 'drizzle-orm';
import sharp from 'sharp';
import { fail, ok, type Result } from '../../core/result';
import { Shelf } from '../objects/shelf';
import type { Database } from './open';
import { photo } from './schema';

/** What a camera may send, and what is kept of it. */
export const MOST_PHOTO_BYTES = 25 * 1024 * 1024;
const MOST_PIXELS = 80_000_000;
const LONGEST_SIDE = 1_600;
const QUALITY = 82;

const NO_PHOTO = 'This is no photo that can be read: JPEG, PNG, WebP or AVIF, up to 80 megapixels.';
/** Drawing a photo anew takes a second or two. */
const MOST_DRAWING_S = 20;

/** Whether the bytes begin like a picture made of points: nothing that is a program for drawing gets as far as being drawn. */
function isRaster(bytes: Uint8Array): boolean {
	const starts = (at: number, ...signs: number[]) => signs.every((sign, i) => bytes[at + i] === sign);
	const text = (at: number, word: string) => starts(at, ...[...word].map((sign) => sign.charCodeAt(0)));
	return (
		starts(0, 0xff, 0xd8, 0xff) ||
		(starts(0, 0x89) && text(1, 'PNG')) ||
		(text(0, 'RIFF') && text(8, 'WEBP')) ||
		(text(4, 'ftyp') && ['avif', 'avis', 'mif1', 'heic', 'heix'].some((brand) => text(8, brand)))
	);
}

/** A camera full of photos is drawn one after the other: each takes as much memory as it has points. */
let drawing: Promise<unknown> = Promise.resolve();
function oneAfterAnother<T>(work: () => Promise<T>): Promise<T> {
	const mine = drawing.then(work, work);
	drawing = mine.catch(() => undefined);
	return mine;
}

/** Draws what was sent anew, the right way up, without what the camera wrote into it. */
async function drawnAnew(
	sent: Uint8Array,
	as: (picture: sharp.Sharp) => sharp.Sharp
): Promise<Result<{ data: Buffer; info: { width: number; height: number } }>> {
	if (!isRaster(sent)) return fail(NO_PHOTO);
	try {
		return ok(
			await oneAfterAnother(() =>
				as(sharp(sent, { limitInputPixels: MOST_PIXELS, failOn: 'error' }).rotate())
					.timeout({ seconds: MOST_DRAWING_S })
					.toBuffer({ resolveWithObject: true })
			)
		);
	} catch {
		return fail(NO_PHOTO);
	}
}

/** A mark on paper, in points: 48 × 16 mm at 250 points an inch. */
const MARK = { width: 480, height: 160 };

/** A shop's mark as papers have it, a PNG. The error is a sentence for the person. */
export async function markOf(sent: Uint8Array): Promise<Result<Uint8Array>> {
	const drawn = await drawnAnew(sent, (picture) =>
		picture.resize({ ...MARK, fit: 'inside', withoutEnlargement: true }).png({ palette: true })
	);
	return drawn.ok ? ok(drawn.value.data) : drawn;
}

export interface KeptPhoto {
	id: string;
	sha256: string;
	width: number;
	height: number;
}

export class Photos {
	constructor(
		private readonly db: Database,
		private readonly shelf = new Shelf()
	) {}

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
		const drawn = await drawnAnew(sent, (picture) =>
			picture
				.resize({ width: LONGEST_SIDE, height: LONGEST_SIDE, fit: 'inside', withoutEnlargement: true })
				.flatten({ background: '#ffffff' })
				.jpeg({ quality: QUALITY })
		);
		if (!drawn.ok) return drawn;
		const { data, info } = drawn.value;
		const kept = {
			id: one.id,
			sha256: createHash('sha256').update(data).digest('hex'),
			width: info.width,
			height: info.height
		};
		await this.db
			.insert(photo)
			.values({ ...one, ...kept, takenInAt: new Date().toISOString(), ...(await this.shelf.lay(data)) })
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
			.select({ bytes: photo.bytes, stored: photo.stored })
			.from(photo)
			.where(and(eq(photo.id, id), eq(photo.caseId, caseId)));
		return row ? this.shelf.take(row) : null;
	}
}
