import { eq } from 'drizzle-orm';
import { ColumnMappingShape } from '../../case/entries/columnMappingShape';
import type { ColumnMapping } from '../../core/live/columnMapping';
import type { Database } from './open';
import { columnMemory } from './schema';

/** What people of this shop said the columns of their files are, by header. */
export class ColumnMemory {
	constructor(private readonly db: Database) {}

	async find(headerKey: string): Promise<ColumnMapping | null> {
		const [row] = await this.db.select().from(columnMemory).where(eq(columnMemory.headerKey, headerKey));
		return row ? ColumnMappingShape.parse(JSON.parse(row.mapping)) : null;
	}

	async keep(headerKey: string, mapping: ColumnMapping, authorName: string): Promise<void> {
		const said = { mapping: JSON.stringify(mapping), authorName, savedAt: new Date().toISOString() };
		await this.db
			.insert(columnMemory)
			.values({ headerKey, ...said })
			.onConflictDoUpdate({ target: columnMemory.headerKey, set: said });
	}
}
