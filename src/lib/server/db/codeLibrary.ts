import { and, asc, count, desc, eq, inArray, ne, sql } from 'drizzle-orm';
import { createHash } from 'node:crypto';
import { CodeDefinition, type CodePack } from '../../../../library/codePack';
import { shippedBook, shippedPacks, type CodeBook, type SourcedDefinition } from '../../../../library/codes';
import { fail, ok, type Result } from '../../core/result';
import type { Database } from './open';
import { adminAct, codeDefinition, codePack } from './schema';
import type { Author } from './threads';
import { actOf } from '../accounts/adminLog';
import { lineWith, searchQuery } from './searchQuery';

export type PackRow = typeof codePack.$inferSelect & { definitions: number };

/** A definition found by its words. */
export interface Found {
	id: number;
	code: string;
	failureType: string | null;
	title: string;
	packId: string;
	packName: string;
	maker: string | null;
	/** The cause or note that has the words, where the title does not. */
	because: string | null;
}

/** One version of a definition, as it was written down. */
export interface DefinitionVersion {
	version: number;
	current: boolean;
	definition: CodeDefinition;
	packId: string;
	packName: string;
	authorName: string | null;
	why: string | null;
	createdAt: string;
}

export const SHOP_PACK_ID = 'shop';
const PAGE = 100;
/** Rows in one insert: below the most parameters SQLite takes. */
const ROWS_AT_ONCE = 500;

/** Of words that stand in more definitions than this only the newest are weighed: nobody reads that far. */
const MOST_RANKED = 1500;

const bodyOf = (row: { body: string }): CodeDefinition => CodeDefinition.parse(JSON.parse(row.body));

/** Packs of code definitions: shipped, brought in, and the shop's own; found by code or by words. */
export class CodeLibrary {
	constructor(
		private readonly db: Database,
		private readonly now: () => Date = () => new Date()
	) {}

	/** Lays down the shipped packs where they are missing or have changed, and opens the shop's own. Harmless to repeat. */
	async prepare(): Promise<void> {
		const rows = await this.db.select().from(codePack);
		const known = new Map(rows.map((row) => [row.id, row.contentHash]));
		for (const pack of shippedPacks) {
			const contentHash = createHash('sha256').update(JSON.stringify(pack)).digest('hex');
			if (known.get(pack.id) !== contentHash) await this.lay(pack, 'shipped', contentHash, null);
		}
		const name = 'This shop';
		await this.db
			.insert(codePack)
			.values({
				id: SHOP_PACK_ID,
				name,
				source: 'written in this shop',
				date: this.now().toISOString().slice(0, 10),
				origin: 'shop',
				addedAt: this.now().toISOString()
			})
			.onConflictDoNothing();
	}

	/** Changes whenever what is known of codes does: a pack brought in or taken away, a definition written. */
	async stamp(): Promise<string> {
		const [row] = await this.db.all<{ stamp: string }>(
			sql`SELECT (SELECT COALESCE(MAX(id), 0) FROM code_definition) || '/' || (SELECT COUNT(*) FROM code_pack) AS stamp`
		);
		return row?.stamp ?? '';
	}

	/** The shipped book with what this shop has added on top: its own words first, then packs it brought in. */
	async bookFor(codes: Iterable<string>): Promise<CodeBook> {
		const wanted = [...new Set(codes)];
		if (wanted.length === 0) return shippedBook;
		const rows = await this.db
			.select()
			.from(codeDefinition)
			.innerJoin(codePack, eq(codePack.id, codeDefinition.packId))
			.where(
				and(
					inArray(codeDefinition.code, wanted),
					eq(codeDefinition.current, true),
					ne(codePack.origin, 'shipped')
				)
			)
			.orderBy(desc(codePack.origin), desc(codePack.addedAt));
		const added = new Map<string, SourcedDefinition[]>();
		for (const { code_definition: row, code_pack: pack } of rows) {
			const { id, name, source, conditions, maker } = pack;
			const date = pack.origin === 'shop' ? row.createdAt.slice(0, 10) : pack.date;
			const list = added.get(row.code) ?? [];
			list.push({
				...bodyOf(row),
				pack: { id, name, source, date, conditions, maker, own: id === SHOP_PACK_ID }
			});
			added.set(row.code, list);
		}
		return { definitions: (code) => [...(added.get(code) ?? []), ...shippedBook.definitions(code)] };
	}

	/** Definitions by words, best first; the last word may be cut short. Nothing is found by no words. */
	async search(text: string, limit = 20): Promise<Found[]> {
		for (const match of searchQuery(text)) {
			const found = await this.db.all<
				Omit<Found, 'because'> & { failureType: string; causes: string; notes: string }
			>(sql`
				SELECT d.id, d.code, d.failure_type AS failureType, d.title, d.causes, d.notes,
				p.id AS packId, p.name AS packName, p.maker
				FROM (
					SELECT id, score FROM (
						SELECT rowid AS id, bm25(code_search, 8.0, 4.0, 2.0, 1.0) AS score
						FROM code_search WHERE code_search MATCH ${match} ORDER BY rowid DESC LIMIT ${MOST_RANKED}
					) ORDER BY score LIMIT ${limit}
				) AS hit
				JOIN code_definition d ON d.id = hit.id JOIN code_pack p ON p.id = d.pack_id
				ORDER BY hit.score`);
			if (found.length > 0)
				return found.map(({ causes, notes, ...hit }) => ({
					...hit,
					failureType: hit.failureType || null,
					because: lineWith(text, hit.title, `${causes}\n${notes}`)
				}));
		}
		return [];
	}

	async packs(): Promise<PackRow[]> {
		const rows = await this.db
			.select({ pack: codePack, definitions: count(codeDefinition.id) })
			.from(codePack)
			.leftJoin(codeDefinition, and(eq(codeDefinition.packId, codePack.id), eq(codeDefinition.current, true)))
			.groupBy(codePack.id)
			.orderBy(desc(codePack.origin), asc(codePack.name));
		return rows.map(({ pack, definitions }) => ({ ...pack, definitions }));
	}

	/** One page of a pack, by code. */
	async packPage(packId: string, page: number) {
		const pack = (await this.packs()).find((p) => p.id === packId);
		if (!pack) return null;
		const rows = await this.db
			.select()
			.from(codeDefinition)
			.where(and(eq(codeDefinition.packId, packId), eq(codeDefinition.current, true)))
			.orderBy(asc(codeDefinition.code), asc(codeDefinition.failureType))
			.limit(PAGE)
			.offset((Math.max(1, page) - 1) * PAGE);
		return { pack, definitions: rows.map(bodyOf), pages: Math.max(1, Math.ceil(pack.definitions / PAGE)) };
	}

	/** A pack as a file holds it. */
	async exportPack(packId: string): Promise<CodePack | null> {
		const [pack] = await this.db.select().from(codePack).where(eq(codePack.id, packId));
		if (!pack) return null;
		const rows = await this.db
			.select()
			.from(codeDefinition)
			.where(and(eq(codeDefinition.packId, packId), eq(codeDefinition.current, true)))
			.orderBy(asc(codeDefinition.id));
		const { id, name, source, date, conditions, maker } = pack;
		return {
			format: 'jaldi-code-pack',
			version: 1,
			id,
			name,
			source,
			date,
			conditions,
			maker,
			definitions: rows.map(bodyOf)
		};
	}

	/** Brings in a pack whole; one with the same id, brought in before, is replaced by it. */
	async importPack(pack: CodePack, by: Author): Promise<Result<number>> {
		const [known] = await this.db.select().from(codePack).where(eq(codePack.id, pack.id));
		if (known && known.origin !== 'imported')
			return fail(
				`"${pack.id}" is the id of ${known.name}, which a file cannot replace: give the pack another id.`
			);
		await this.lay(pack, 'imported', null, by);
		return ok(pack.definitions.length);
	}

	/** Takes away a pack that was brought in. */
	async removePack(packId: string, by: Author): Promise<Result<null>> {
		return this.db.transaction(async (tx) => {
			const [removed] = await tx
				.delete(codePack)
				.where(and(eq(codePack.id, packId), eq(codePack.origin, 'imported')))
				.returning({ name: codePack.name });
			if (!removed) return fail('Only packs that were brought in can be taken away.');
			await tx.insert(adminAct).values(actOf(by, 'pack-taken-away', { of: removed.name }, this.now()));
			return ok(null);
		});
	}

	/**
	 * Writes the shop's own words on a code: a new version beside the old ones. `basedOn` is the version that was on the
	 * writer's screen (0 = none): if somebody else has written since, nothing is stored.
	 */
	async saveOwn(
		definition: CodeDefinition,
		{ authorName, why, basedOn }: { authorName: string; why: string; basedOn: number }
	): Promise<Result<number>> {
		const failureType = definition.failureType ?? '';
		const same = and(
			eq(codeDefinition.packId, SHOP_PACK_ID),
			eq(codeDefinition.code, definition.code),
			eq(codeDefinition.failureType, failureType)
		);
		return this.db.transaction(async (tx) => {
			const [latest] = await tx
				.select({ version: codeDefinition.version, body: codeDefinition.body, why: codeDefinition.why })
				.from(codeDefinition)
				.where(same)
				.orderBy(desc(codeDefinition.version))
				.limit(1);
			const version = latest?.version ?? 0;
			const row = toRow(SHOP_PACK_ID, definition, this.now().toISOString());
			// The same words sent twice are stored once.
			if (latest && version === basedOn + 1 && latest.body === row.body && latest.why === why)
				return ok(version);
			if (version !== basedOn)
				return fail(
					`Somebody else wrote version ${version} while you were writing. Yours is kept on this page; load theirs first.`
				);
			await tx
				.update(codeDefinition)
				.set({ current: false })
				.where(and(same, eq(codeDefinition.current, true)));
			await tx.insert(codeDefinition).values({ ...row, version: version + 1, authorName, why });
			return ok(version + 1);
		});
	}

	/** Every version of the shop's own words on a code, newest first. */
	async ownVersions(code: string): Promise<DefinitionVersion[]> {
		const rows = await this.db
			.select()
			.from(codeDefinition)
			.innerJoin(codePack, eq(codePack.id, codeDefinition.packId))
			.where(and(eq(codeDefinition.code, code), eq(codeDefinition.packId, SHOP_PACK_ID)))
			.orderBy(desc(codeDefinition.id));
		return rows.map(({ code_definition: row, code_pack: pack }) => ({
			version: row.version,
			current: row.current,
			definition: bodyOf(row),
			packId: pack.id,
			packName: pack.name,
			authorName: row.authorName,
			why: row.why,
			createdAt: row.createdAt
		}));
	}

	private async lay(
		pack: CodePack,
		origin: 'shipped' | 'imported',
		contentHash: string | null,
		by: Author | null
	): Promise<void> {
		const addedAt = this.now().toISOString();
		const { id, name, source, date, conditions, maker } = pack;
		await this.db.transaction(async (tx) => {
			await tx.delete(codePack).where(eq(codePack.id, id));
			await tx.insert(codePack).values({
				id,
				name,
				source,
				date,
				conditions,
				maker,
				origin,
				contentHash,
				addedBy: by?.name,
				addedAt
			});
			if (by)
				await tx
					.insert(adminAct)
					.values(
						actOf(
							by,
							'pack-brought-in',
							{ of: name, to: `${date}, ${pack.definitions.length} definitions` },
							this.now()
						)
					);
			const rows = pack.definitions.map((definition) => toRow(id, definition, addedAt));
			for (let at = 0; at < rows.length; at += ROWS_AT_ONCE)
				await tx.insert(codeDefinition).values(rows.slice(at, at + ROWS_AT_ONCE));
		});
	}
}

const toRow = (packId: string, definition: CodeDefinition, createdAt: string) => ({
	packId,
	code: definition.code,
	failureType: definition.failureType ?? '',
	title: definition.title,
	causes: definition.causes.join('\n'),
	notes: definition.notes,
	body: JSON.stringify(definition),
	createdAt
});
