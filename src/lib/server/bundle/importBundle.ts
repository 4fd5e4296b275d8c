import { createHash } from 'node:crypto';
import { gzipSync } from 'node:zlib';
import { and, eq, inArray, sql } from 'drizzle-orm';
import sharp from 'sharp';
import { ulid } from 'ulid';
import { checkBundle, unpackBundle, type BundleFiles, type BundleHead } from '../../case/paper/bundle';
import { VehicleDescribed } from '../../case/entries/vehicle-described/payload';
import { vehicleName } from '../../../../library/vehicle/vehicleType';
import { signerOf } from '../../case/paper/bundleSignature';
import type { Entry } from '../../case/entries/entry';
import type { RawEntry } from '../../case/thread/knownEntry';
import { brokenRules } from '../../case/thread/threadRules';
import { splitPieces } from '../../core/live/pieces';
import { fail, ok, type Result } from '../../core/result';
import type { Database } from '../db/open';
import { capture, captureChunk, caseRecord, photo, user, vehicle } from '../db/schema';
import { ShopKeys } from '../db/shopKeys';
import { Shelf } from '../objects/shelf';
import { isTaken, type Threads } from '../db/threads';

type Writer = Pick<Database, 'insert' | 'select'>;

export interface Imported {
	caseId: string;
	entries: number;
	/** It was here before, the same. */
	known: boolean;
}

/** A bundle that was found as it was packed, in the pieces in which it is kept. Nothing of it needs the database. */
export interface CheckedBundle {
	raw: RawEntry[];
	head: BundleHead;
	/** Key that it was signed with; null = it is not signed. */
	signer: string | null;
	captures: { entry: string; name: string; pieces: Uint8Array[] }[];
	photos: { id: string; sha256: string; width: number; height: number; bytes: Uint8Array }[];
}

const MOST_PROBLEMS_SAID = 5;
const listed = (problems: readonly string[]): string =>
	problems.slice(0, MOST_PROBLEMS_SAID).join('; ') +
	(problems.length > MOST_PROBLEMS_SAID ? `; and ${problems.length - MOST_PROBLEMS_SAID} more` : '');

/** Looks through a bundle: every hash, its chain, its signature, the rules of a thread, and that its photos are some. */
export async function examineBundle(zip: Uint8Array, now = new Date()): Promise<Result<CheckedBundle>> {
	const files = unpackBundle(zip);
	if (!files.ok) return fail(`This bundle cannot be taken in: ${files.error}.`);
	const checked = checkBundle(files.value);
	if (!checked.ok) return fail(`This bundle cannot be taken in: ${checked.error}.`);
	const { raw, entries, head, problems } = checked.value;
	if (problems.length > 0) return fail(`This bundle was changed after it was packed: ${listed(problems)}.`);
	if (!head) return fail('case.json does not say which case and vehicle it is about.');
	const signer = await signerOf(files.value);
	if (!signer.ok) return fail(`This bundle cannot be taken in: ${signer.error}.`);
	const broken = brokenRules(raw, now);
	if (broken.length > 0) return fail(`No thread could have grown like this: ${listed(broken)}.`);
	const photos: CheckedBundle['photos'] = [];
	for (const [name, bytes] of files.value) {
		const id = /^photos\/(.+)\.jpg$/.exec(name)?.[1];
		if (id === undefined) continue;
		const meta = await sharp(bytes, { limitInputPixels: 80_000_000 })
			.metadata()
			.catch(() => null);
		if (meta?.format !== 'jpeg') return fail(`${name} is no JPEG that can be read.`);
		const { width = 1, height = 1 } = meta;
		photos.push({ id, sha256: createHash('sha256').update(bytes).digest('hex'), width, height, bytes });
	}
	const captures = entries.flatMap((entry) => {
		const pieces = keptPieces(files.value, entry);
		const name = entry.kind === 'live-recording' ? entry.payload.name : '';
		return pieces.length > 0 ? [{ entry: entry.id, name, pieces }] : [];
	});
	return ok({ raw, head, signer: signer.value, captures, photos });
}

/**
 * Takes a case from another shop in, whole or not at all: its thread byte for byte as it was, its captures and photos. It is
 * this shop's own only where it carries this shop's own signature.
 */
export async function takeInBundle(
	db: Database,
	threads: Threads,
	{ raw, head, signer, captures, photos }: CheckedBundle,
	shelf = new Shelf()
): Promise<Result<Imported>> {
	const [first] = raw;
	if (!first) return fail('case.json holds no entry.');
	const { caseId } = first;
	const here = await threads.read(caseId);
	if (here.length > 0) {
		const same = here.length === raw.length && here.at(-1)?.hash === raw.at(-1)?.hash;
		return same
			? ok({ caseId, entries: here.length, known: true })
			: fail('This case is here already, with another thread: nothing was changed.');
	}
	const known = await new ShopKeys(db).signer(signer);
	const fromShop =
		known.kind === 'own' ? null : known.kind === 'trusted' ? known.name : head.shop.trim() || 'another shop';
	try {
		await addCase(db, caseId, head, {
			fromShop,
			fromKey: known.kind === 'own' ? null : signer,
			fromEntries: raw.length,
			typeName: describedAs(raw)
		});
		try {
			// One small write after the other, so that nobody else waits long; until the last of them nobody sees the case.
			await addPeople(db, raw);
			const authorOf = new Map(raw.map((entry) => [entry.id, entry]));
			for (const one of captures) await addCapture(db, authorOf.get(one.entry), one, shelf);
			for (const { bytes, ...one } of photos)
				await db.insert(photo).values({
					...one,
					caseId,
					authorId: first.authorId,
					takenInAt: new Date().toISOString(),
					...(await shelf.lay(bytes))
				});
			await db.transaction(async (tx) => {
				await threads.takeIn(tx, raw);
				await tx.update(caseRecord).set({ comingIn: false }).where(eq(caseRecord.id, caseId));
			});
		} catch (error) {
			await takeAway(db, [caseId]);
			throw error;
		}
	} catch (error) {
		if (isTaken(error))
			return fail('Something of this case is here already under another one: nothing was changed.');
		throw error;
	}
	return ok({ caseId, entries: raw.length, known: false });
}

/** Takes away what a stopped server had only begun to bring in. @returns how many cases */
export async function takeAwayHalves(db: Database): Promise<number> {
	const halves = await db.select({ id: caseRecord.id }).from(caseRecord).where(eq(caseRecord.comingIn, true));
	await takeAway(
		db,
		halves.map(({ id }) => id)
	);
	return halves.length;
}

async function takeAway(db: Database, caseIds: string[]): Promise<void> {
	if (caseIds.length === 0) return;
	await db.transaction(async (tx) => {
		const ours = await tx
			.select({ id: caseRecord.vehicleId })
			.from(caseRecord)
			.where(and(inArray(caseRecord.id, caseIds), eq(caseRecord.comingIn, true)));
		await tx.delete(capture).where(inArray(capture.caseId, caseIds));
		await tx.delete(photo).where(inArray(photo.caseId, caseIds));
		await tx.delete(caseRecord).where(and(inArray(caseRecord.id, caseIds), eq(caseRecord.comingIn, true)));
		for (const { id } of ours)
			await tx
				.delete(vehicle)
				.where(and(eq(vehicle.id, id), sql`NOT EXISTS (SELECT 1 FROM case_record WHERE vehicle_id = ${id})`));
	});
}

/** What a vehicle is called by the thread that comes in, where that describes it. */
function describedAs(raw: readonly RawEntry[]): string | null {
	const entry = raw.findLast(({ kind }) => kind === 'vehicle-described');
	const told = entry && VehicleDescribed.safeParse(entry.payload);
	return told?.success ? vehicleName(told.data.description) : null;
}

/** Whoever wrote on the thread elsewhere has a name here, and no way to sign in. */
async function addPeople(tx: Writer, entries: readonly RawEntry[]): Promise<void> {
	const people = new Map(entries.map(({ authorId, authorName }) => [authorId, authorName]));
	const now = new Date();
	for (const [id, name] of people)
		await tx
			.insert(user)
			.values({ id, name, email: `${id}@elsewhere.invalid`, role: 'viewer', createdAt: now, updatedAt: now })
			.onConflictDoNothing();
}

async function addCase(
	tx: Writer,
	caseId: string,
	head: BundleHead,
	{
		typeName,
		...from
	}: { fromShop: string | null; fromKey: string | null; fromEntries: number; typeName: string | null }
): Promise<void> {
	const { id, typeId, nickname, plate } = head.vehicle;
	const [known] = await tx.select().from(vehicle).where(eq(vehicle.id, id));
	// Another shop may have given the same id to another vehicle.
	const isSame = known?.typeId === typeId && known.plate === plate;
	const vehicleId = known && !isSame ? ulid() : id;
	if (!isSame)
		await tx
			.insert(vehicle)
			.values({ id: vehicleId, typeId, typeName, nickname, plate, createdAt: head.createdAt });
	await tx.insert(caseRecord).values({
		id: caseId,
		vehicleId,
		wanted: head.wanted,
		createdAt: head.createdAt,
		...from,
		comingIn: true,
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

async function addCapture(
	tx: Writer,
	entry: RawEntry | undefined,
	{ name, pieces }: CheckedBundle['captures'][number],
	shelf: Shelf
): Promise<void> {
	if (!entry) return;
	await tx.insert(capture).values({
		id: entry.id,
		caseId: entry.caseId,
		authorId: entry.authorId,
		startedAt: entry.observedAt,
		name,
		whole: true
	});
	for (const [seq, piece] of pieces.entries())
		await tx.insert(captureChunk).values({ captureId: entry.id, seq, ...(await shelf.lay(piece)) });
}
