import { sql } from 'drizzle-orm';
import { featureOf, kindsWhere } from '../../case/entries/registry';
import type { Entry, EntryKind } from '../../case/entries/entry';
import { ofKind, standing } from '../../case/thread/thread';
import type { Database } from './open';
import { lineWith, searchQuery } from './searchQuery';

/** A case found by the words on its thread. */
export interface FoundCase {
	id: string;
	number: number;
	vehicle: string;
	complaint: string;
	/** The line of its thread that has the words, where the complaint has not. */
	because: string | null;
}

/** Kinds of entries in which people say something. */
export const SPOKEN_KINDS = kindsWhere(({ search }) => search !== undefined);

/** A word that stands everywhere is looked for in the newest cases that have it. */
const MOST_RANKED = 2_000;

const PARTS = ['complaint', 'mended', 'notes'] as const;

/** What is said on a thread, in the three parts that the index keeps apart. */
export function threadWords(entries: Entry[]): Record<(typeof PARTS)[number], string> {
	const saidIn = (kind: EntryKind): string[] => {
		const { search } = featureOf(kind);
		const all = ofKind(entries, kind);
		return (search?.of === 'latest' ? all.slice(-1) : all).flatMap(
			({ payload }) => search?.words(payload) ?? []
		);
	};
	return Object.fromEntries(
		PARTS.map((part) => [
			part,
			SPOKEN_KINDS.filter((kind) => featureOf(kind).search?.part === part)
				.flatMap(saidIn)
				.filter((words) => words !== '')
				.join('\n')
		])
	) as Record<(typeof PARTS)[number], string>;
}

/** Full-text search over what is said on the shop's threads. */
export class CaseSearch {
	constructor(private readonly db: Database) {}

	/** What brings the words of one case up to its thread, to be run with other writes. Harmless to repeat. */
	indexing(caseId: string, entries: Entry[]) {
		const { complaint, mended, notes } = threadWords(entries);
		const number = sql`(SELECT number FROM case_record WHERE id = ${caseId})`;
		return this.db.run(sql`
			INSERT OR REPLACE INTO case_search (rowid, complaint, mended, notes)
			VALUES (${number}, ${complaint}, ${mended}, ${notes})`);
	}

	/** Cases by words, best first. @param read entries of {@link SPOKEN_KINDS} of cases, for the line that has the words */
	async search(
		text: string,
		limit: number,
		read: (caseIds: string[]) => Promise<Entry[]>
	): Promise<FoundCase[]> {
		for (const match of searchQuery(text)) {
			const rows = await this.db.all<{ id: string; number: number; vehicle: string }>(sql`
				SELECT c.id, c.number, v.nickname AS vehicle
				FROM (
					SELECT rowid AS number, bm25(case_search, 1.0, 3.0, 1.0) AS score
					FROM case_search WHERE case_search MATCH ${match} ORDER BY rowid DESC LIMIT ${MOST_RANKED}
				) AS hit JOIN case_record c ON c.number = hit.number JOIN vehicle v ON v.id = c.vehicle_id
				ORDER BY hit.score LIMIT ${limit}`);
			if (rows.length === 0) continue;
			const spoken = standing(await read(rows.map((row) => row.id)));
			return rows.map((row): FoundCase => {
				const words = threadWords(spoken.filter((entry) => entry.caseId === row.id));
				const [complaint = ''] = words.complaint.split('\n');
				return { ...row, complaint, because: lineWith(text, complaint, `${words.mended}\n${words.notes}`) };
			});
		}
		return [];
	}
}
