import { sql } from 'drizzle-orm';
import { distance } from 'fastest-levenshtein';
import type { Entry } from '../../case/entries/entry';
import { latest } from '../../case/thread/thread';
import type { Database } from './open';

/** A case found by what it, or its vehicle, is called. */
export interface NamedCase {
	id: string;
	number: number;
	vehicleId: string;
	vehicle: string;
	plate: string;
	signed: boolean;
}

/** The index knows words by three signs in a row. */
const TRIGRAM = 3;
const MOST_WORDS = 6;
/** Of those that could be meant, the newest are looked at more closely. */
const MOST_CLOSE = 400;
/** Signs of a word that may be wrong: none of a short one. */
const slips = (word: string): number => (word.length < 5 ? 0 : word.length < 8 ? 1 : 2);
/** What one slip, or two signs that changed places, can spoil: so many of a word's threes in a row. */
const SPOILED = 4;

const APART = /[^\p{L}\p{N}]+/u;
const LONG_WORD = 12;
const TOLD_BY = 8;

const plain = (text: string): string => text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();
const signsOf = (text: string): string => plain(text).replace(/[^\p{L}\p{N}]/gu, '');
const wordsOf = (text: string): string[] => plain(text).match(/[\p{L}\p{N}]+/gu) ?? [];

/**
 * What a case is called by: the vehicle as it was told when it came in and as it is described, its plate as it is written and
 * without spaces, its number where it was read.
 *
 * @param entries standing ones, in order
 */
export function namesOf(entries: readonly Entry[]): string {
	const opened = latest(entries, 'case-opened')?.payload;
	const described = latest(entries, 'vehicle-described')?.payload.description;
	const checked = latest(entries, 'vehicle-checked')?.payload;
	const plate = opened?.plate ?? '';
	return plain(
		[opened?.name, described?.maker, described?.model, plate, signsOf(plate), checked?.vin]
			.filter(Boolean)
			.join(' ')
	);
}

/**
 * What the index is asked for a word: of a long one, as a number of seventeen signs, its end. How such begin is alike on
 * every second vehicle, and the index would go through all of them.
 */
const indexed = (word: string): string => (word.length > LONG_WORD ? word.slice(-TOLD_BY) : word);

const term = (text: string): string => `"${text.replaceAll('"', '""')}"`;

/** What the index is asked for, in turn: all signs together, as of a plate; then all words that have three signs or more. */
function exactQueries(text: string): string[] {
	const words = wordsOf(text).slice(0, MOST_WORDS);
	const together = signsOf(text);
	const long = words.filter((word) => word.length >= TRIGRAM);
	return [
		...(words.length > 1 && together.length >= TRIGRAM ? [term(indexed(together))] : []),
		...(long.length > 0 ? [long.map((word) => term(indexed(word))).join(' AND ')] : [])
	];
}

/** Whether names have all that was typed: short words as the beginning of one, others anywhere, or all signs together. */
export function isNamed(names: string, text: string): boolean {
	const has = names.split(APART);
	const together = signsOf(text);
	if (together.length >= TRIGRAM && names.includes(together)) return true;
	return wordsOf(text).every((word) =>
		word.length < TRIGRAM ? has.some((one) => one.startsWith(word)) : names.includes(word)
	);
}

/** Each word but for a slip: of its threes, all but some in a row. Null where no word is long enough to be told by the rest. */
function slippedQuery(text: string): string | null {
	const parts = wordsOf(text)
		.slice(0, MOST_WORDS)
		.filter((word) => word.length >= TRIGRAM)
		.map((whole) => {
			const word = indexed(whole);
			if (slips(word) === 0) return term(word);
			const threes = Array.from({ length: word.length - TRIGRAM + 1 }, (_, at) =>
				word.slice(at, at + TRIGRAM)
			);
			const spoiled = Math.min(SPOILED, threes.length - 1);
			const kept = Array.from({ length: threes.length - spoiled + 1 }, (_, from) =>
				threes.filter((_, at) => at < from || at >= from + spoiled)
			);
			return `(${kept.map((some) => `(${some.map(term).join(' AND ')})`).join(' OR ')})`;
		});
	return parts.length > 0 ? parts.join(' AND ') : null;
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
	indexing(caseId: string, entries: readonly Entry[]) {
		return this.db.run(sql`
			INSERT OR REPLACE INTO case_names (rowid, names)
			VALUES ((SELECT number FROM case_record WHERE id = ${caseId}), ${namesOf(entries)})`);
	}

	/** Cases by their number, then the newest whose names have all that was typed, also with a slip in a longer word. */
	async search(text: string, limit: number): Promise<NamedCase[]> {
		const number = numberIn(text);
		const numbered = number === null ? [] : await this.rows(sql`c.number = ${number}`, 1);
		const named = await this.exactly(text, limit);
		const known = new Set(numbered.map(({ id }) => id));
		const found = [...numbered, ...named.filter(({ id }) => !known.has(id))].slice(0, limit);
		if (found.length > 0) return found;
		const slipped = slippedQuery(text);
		return slipped === null ? [] : this.meant(text, await this.matching(slipped, MOST_CLOSE), limit);
	}

	/** Those whose names have all of it, the newest first. */
	private async exactly(text: string, limit: number): Promise<NamedCase[]> {
		const isWhole = wordsOf(text).every((word) => word.length >= TRIGRAM && word.length <= LONG_WORD);
		for (const match of exactQueries(text)) {
			const near = await this.matching(match, isWhole ? limit : MOST_CLOSE);
			const found = isWhole ? near : near.filter(({ names }) => isNamed(names, text));
			if (found.length > 0) return found.slice(0, limit);
		}
		return [];
	}

	/** Those whose names have each word but for its slips, the closest first. */
	private meant(text: string, near: (NamedCase & { names: string })[], limit: number): NamedCase[] {
		const words = wordsOf(text);
		const off = (names: string) => {
			const has = names.split(APART);
			return words.map((word) => {
				if (word.length < TRIGRAM) return has.some((one) => one.startsWith(word)) ? 0 : Infinity;
				const least = Math.min(...has.map((one) => distance(word, one)));
				// Two signs that changed places count as one slip.
				return names.includes(word) ? 0 : least <= slips(word) + 1 ? least : Infinity;
			});
		};
		return near
			.map((one) => ({ one, off: off(one.names).reduce((sum, each) => sum + each, 0) }))
			.filter((each) => each.off < Infinity)
			.sort((a, b) => a.off - b.off)
			.slice(0, limit)
			.map(({ one }) => one);
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
