import { createHash } from 'node:crypto';
import { gzipSync } from 'node:zlib';
import { eq, sql } from 'drizzle-orm';
import sharp from 'sharp';
import { isValid, ulid } from 'ulid';
import { checkBundle, unpackBundle, type BundleFiles, type BundleHead } from '../../case/bundle';
import type { Entry } from '../../case/entry';
import { splitPieces } from '../../core/live/pieces';
import { fail, ok, type Result } from '../../core/result';
import type { Database } from '../db/open';
import { capture, captureChunk, caseRecord, photo, user, vehicle } from '../db/schema';
import { isTaken, type Threads } from '../db/threads';

type Writer = Parameters<Parameters<Database['transaction']>[0]>[0];

export interface Imported {
	caseId: string;
	entries: number;
	/** It was here before, the same. */
	known: boolean;
}

/**
 * Takes a case from another shop in, whole or not at all: its thread byte for byte as it was, its captures and photos. A
 * bundle that is not as it was packed is refused, naming what was changed.
 *
 * @param shopName this shop's, null where it has not said one: what comes from another does not count as its own work
 */
export async function importBundle(
	db: Database,
	threads: Threads,
	zip: Uint8Array,
	shopName: string | null
): Promise<Result<Imported>> {
	const files = unpackBundle(zip);
	if (!files.ok) return fail(`This bundle cannot be taken in: ${files.error}.`);
	const checked = checkBundle(files.value);
	if (!checked.ok) return fail(`This bundle cannot be taken in: ${checked.error}.`);
	const { entries, head, problems } = checked.value;
	if (problems.length > 0)
		return fail(`This bundle was changed after it was packed: ${problems.join('; ')}.`);
	const [first] = entries;
	if (!first || !head) return fail('case.json does not say which case and vehicle it is about.');
	const caseId = first.caseId;
	if (!isValid(caseId)) return fail('The id of the case in case.json is no ULID.');
	if (entries.some((entry) => entry.caseId !== caseId))
		return fail('case.json holds entries of more than one case.');
	const here = await threads.read(caseId);
	if (here.length > 0) {
		const same = here.length === entries.length && here.at(-1)?.hash === entries.at(-1)?.hash;
		return same
			? ok({ caseId, entries: here.length, known: true })
			: fail('This case is here already, with another thread: nothing was changed.');
	}
	for (const [name, bytes] of files.value) {
		if (!name.startsWith('photos/')) continue;
		const meta = await sharp(bytes, { limitInputPixels: 80_000_000 })
			.metadata()
			.catch(() => null);
		if (meta?.format !== 'jpeg') return fail(`${name} is no JPEG that can be read.`);
	}
	try {
		await db.transaction(async (tx) => {
			await addPeople(tx, entries);
			await addCase(tx, caseId, head, shopName);
			await threads.takeIn(tx, entries);
			await addCaptures(tx, files.value, entries);
			await addPhotos(tx, files.value, caseId, first.authorId);
		});
	} catch (error) {
		if (isTaken(error))
			return fail('Something of this case is here already under another one: nothing was changed.');
		throw error;
	}
	return ok({ caseId, entries: entries.length, known: false });
}

/** Whoever wrote on the thread elsewhere has a name here, and no way to sign in. */
async function addPeople(tx: Writer, entries: readonly Entry[]): Promise<void> {
	const people = new Map(entries.map(({ authorId, authorName }) => [authorId, authorName]));
	const now = new Date();
	for (const [id, name] of people)
		await tx
			.insert(user)
			.values({ id, name, email: `${id}@elsewhere.invalid`, role: 'viewer', createdAt: now, updatedAt: now })
			.onConflictDoNothing();
}

async function addCase(tx: Writer, caseId: string, head: BundleHead, shopName: string | null): Promise<void> {
	const { id, typeId, nickname, plate } = head.vehicle;
	const [known] = await tx.select().from(vehicle).where(eq(vehicle.id, id));
	// Another shop may have given the same id to another vehicle.
	const isSame = known?.typeId === typeId && known.plate === plate;
	const vehicleId = known && !isSame ? ulid() : id;
	if (!isSame)
		await tx.insert(vehicle).values({ id: vehicleId, typeId, nickname, plate, createdAt: head.createdAt });
	await tx.insert(caseRecord).values({
		id: caseId,
		vehicleId,
		wanted: head.wanted,
		createdAt: head.createdAt,
		// A shop that takes its own cases in again, on a new server, has its own.
		fromShop: head.shop === shopName ? null : head.shop,
		number: sql`(SELECT COALESCE(MAX(number), 400) + 1 FROM case_record)`
	});
}

/** What is kept beside the thread for an entry, as it lies on disk. */
function keptPieces(files: BundleFiles, entry: Entry): Uint8Array[] {
	if (entry.kind === 'frame-log') {
		const log = files.get(`logs/${entry.id}.log`);
		return log ? [gzipSync(log)] : [];
	}
	if (entry.kind !== 'live-recording' && entry.kind !== 'scope-capture') return [];
	const bytes = files.get(`captures/${entry.id}.bin`);
	const pieces = bytes && splitPieces(bytes);
	return pieces?.ok ? pieces.value : [];
}

async function addCaptures(tx: Writer, files: BundleFiles, entries: readonly Entry[]): Promise<void> {
	for (const entry of entries) {
		const pieces = keptPieces(files, entry);
		if (pieces.length === 0) continue;
		await tx.insert(capture).values({
			id: entry.id,
			caseId: entry.caseId,
			authorId: entry.authorId,
			startedAt: entry.observedAt,
			name: entry.kind === 'live-recording' ? entry.payload.name : '',
			whole: true
		});
		for (const [seq, piece] of pieces.entries())
			await tx.insert(captureChunk).values({ captureId: entry.id, seq, bytes: Buffer.from(piece) });
	}
}

async function addPhotos(tx: Writer, files: BundleFiles, caseId: string, authorId: string): Promise<void> {
	for (const [name, bytes] of files) {
		const id = /^photos\/([0-9A-Z]{26})\.jpg$/.exec(name)?.[1];
		if (!id) continue;
		const { width = 1, height = 1 } = await sharp(bytes).metadata();
		await tx
			.insert(photo)
			.values({
				id,
				caseId,
				authorId,
				takenInAt: new Date().toISOString(),
				sha256: createHash('sha256').update(bytes).digest('hex'),
				width,
				height,
				bytes: Buffer.from(bytes)
			})
			.onConflictDoNothing();
	}
}
