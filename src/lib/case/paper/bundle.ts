import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { unzipSync, zipSync, type Zippable } from 'fflate';
import { z } from 'zod';
import { fail, ok, type Result } from '../../core/result';
import { evidenceProblems } from './bundleEvidence';
import { readStampedFile } from '../thread/caseFile';
import type { Entry } from '../entries/entry';
import { ULID_SIGNS } from '../entries/fields';
import { checkChain } from '../thread/hashChain';
import { knownEntry, type RawEntry } from '../thread/knownEntry';

/**
 * A case as one file that another shop, an insurer or a court can read without Jaldi: a ZIP with the thread, its captures as
 * CSV, photos, papers and a list of hashes.
 */
export type BundleFiles = ReadonlyMap<string, Uint8Array>;

export const CASE_NAME = 'case.json';
export const HASHES_NAME = 'hashes.txt';
export const SIGNATURE_NAME = 'signature.json';
/** What may be in a bundle, and nothing else. */
const ALLOWED = new RegExp(
	`^(case\\.json|case\\.schema\\.json|hashes\\.txt|signature\\.json|report\\.pdf|report-customer\\.pdf|captures/${ULID_SIGNS}\\.(csv|bin)|photos/${ULID_SIGNS}\\.jpg|logs/${ULID_SIGNS}\\.(txt|log))$`
);
export const MOST_FILES = 5_000;
export const MOST_BUNDLE_BYTES = 512 * 1024 * 1024;
const MOST_FILE_BYTES = 256 * 1024 * 1024;

/** Who a case is about, in the bundle beside its thread. */
export const BundleHead = z.object({
	shop: z.string().max(80),
	number: z.string().max(40),
	wanted: z.string().max(200),
	createdAt: z.iso.datetime(),
	vehicle: z.object({
		id: z.string().min(1).max(60),
		typeId: z.string().min(1).max(60),
		nickname: z.string().max(120),
		plate: z.string().max(40)
	})
});
export type BundleHead = z.infer<typeof BundleHead>;

const hashOf = (bytes: Uint8Array): string => bytesToHex(sha256(bytes));

/** The list of what is in a bundle, by hash. `sha256sum -c hashes.txt` checks it too. */
export const hashList = (files: BundleFiles): Uint8Array<ArrayBuffer> =>
	new TextEncoder().encode(
		[...files]
			.map(([name, bytes]) => `${hashOf(bytes)}  ${name}\n`)
			.sort((a, b) => (a.slice(66) < b.slice(66) ? -1 : 1))
			.join('')
	);

/**
 * Packs files with the list of their hashes.
 *
 * @param signature of that list, see `signBundle`; absent = it is not signed
 */
export function packBundle(files: BundleFiles, signature?: Uint8Array): Uint8Array {
	const names = [...files.keys()].sort();
	const all: Zippable = { [HASHES_NAME]: hashList(files) };
	if (signature) all[SIGNATURE_NAME] = signature;
	for (const name of names) {
		// What is compressed already is only stored.
		const level = /\.(jpg|pdf|bin)$/.test(name) ? 0 : 6;
		all[name] = [files.get(name) ?? new Uint8Array(), { level }];
	}
	return zipSync(all);
}

/**
 * Unpacks a bundle from anywhere: names, count and sizes are looked at before a byte is written out.
 *
 * @returns error: what of it is not allowed, by the file's name
 */
export function unpackBundle(zip: Uint8Array): Result<BundleFiles> {
	if (zip.length > MOST_BUNDLE_BYTES) return fail(`it is larger than ${MOST_BUNDLE_BYTES / 1024 / 1024} MB`);
	let refused: string | null = null;
	let total = 0;
	let count = 0;
	const seen = new Set<string>();
	const refuse = (why: string) => {
		refused ??= why;
		return false;
	};
	try {
		const files = unzipSync(zip, {
			filter: ({ name, originalSize }) => {
				if (refused) return false;
				if (name.endsWith('/')) return false;
				count += 1;
				total += originalSize;
				if (count > MOST_FILES) return refuse(`more than ${MOST_FILES} files are in it`);
				if (!ALLOWED.test(name)) return refuse(`"${name.slice(0, 80)}" has no place in a bundle`);
				if (seen.has(name)) return refuse(`${name} is in it twice`);
				if (originalSize > MOST_FILE_BYTES || total > MOST_BUNDLE_BYTES)
					return refuse(`${name} would unpack to more than may be`);
				seen.add(name);
				return true;
			}
		});
		if (refused) return fail(refused);
		return ok(new Map(Object.entries(files)));
	} catch (error) {
		return fail(`it is no ZIP file that can be read (${(error as Error).message})`);
	}
}

export interface BundleCheck {
	/** As they stand in the file, which is what their hashes are of. */
	raw: RawEntry[];
	entries: Entry[];
	head: BundleHead | null;
	/** Hash of the last entry: the same stands on the printed report. */
	lastHash: string;
	files: number;
	/** What is not as it was when it was packed, each naming its place; empty = whole. */
	problems: string[];
}

/** Checks what is in a bundle against itself: every hash, the chain of the thread, photos against their entries. */
export function checkBundle(files: BundleFiles): Result<BundleCheck> {
	const text = files.get(CASE_NAME);
	if (!text) return fail('case.json is missing');
	const decoded = new TextDecoder().decode(text);
	const read = readStampedFile(decoded);
	if (!read.ok) return fail(`case.json: ${read.error}`);
	const raw = read.value;
	const entries = raw.map(knownEntry);
	const chain = checkChain(raw);
	const problems = [
		...(chain.intact ? [] : [`${CASE_NAME}: ${chain.reason}${titleAt(entries, chain.seq)}`]),
		...hashProblems(files),
		...evidenceProblems(files, entries)
	];
	return ok({
		raw,
		entries,
		head: headIn(decoded),
		lastHash: entries.at(-1)?.hash ?? '',
		files: files.size,
		problems
	});
}

const titleAt = (entries: readonly Entry[], seq: number): string => {
	const entry = entries[seq - 1];
	return entry ? ` (${entry.kind}, by ${entry.authorName || 'nobody'})` : '';
};

function headIn(text: string): BundleHead | null {
	const parsed = BundleHead.safeParse((JSON.parse(text) as { case?: unknown }).case);
	return parsed.success ? parsed.data : null;
}

function hashProblems(files: BundleFiles): string[] {
	const list = files.get(HASHES_NAME);
	if (!list) return [`${HASHES_NAME} is missing: nothing says what the files were`];
	const problems: string[] = [];
	const listed = new Set<string>();
	for (const [i, row] of new TextDecoder().decode(list).split('\n').entries()) {
		if (row === '') continue;
		const [, hash, name] = /^([0-9a-f]{64}) {2}(.+)$/.exec(row) ?? [];
		if (!hash || !name) {
			problems.push(`${HASHES_NAME} line ${i + 1}: expected a hash, two spaces and a name`);
			continue;
		}
		listed.add(name);
		const bytes = files.get(name);
		if (!bytes) problems.push(`${name} is missing`);
		else if (hashOf(bytes) !== hash) problems.push(`${name} was changed after it was packed`);
	}
	for (const name of files.keys())
		if (name !== HASHES_NAME && name !== SIGNATURE_NAME && !listed.has(name))
			problems.push(`${name} is not in ${HASHES_NAME}`);
	return problems;
}
