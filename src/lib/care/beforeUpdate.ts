import { existsSync } from 'node:fs';
import { copyTo } from './backUp';
import { openToRead } from './dataFolder';
import { NEWEST_SCHEMA, schemaOf } from './examine';

/** Made by a newer version than this one: its rows may mean something that this one does not know. */
export class NewerDatabase extends Error {}

/**
 * What comes before a database file is brought up to date: a copy beside it, as it was. One that is new or up to date needs none.
 *
 * @returns the copy; null where none was needed
 */
export async function keepBeforeUpdate(file: string): Promise<string | null> {
	if (!existsSync(file)) return null;
	const client = await openToRead(file);
	let schema: number;
	try {
		schema = await schemaOf(client);
	} finally {
		client.close();
	}
	if (schema > NEWEST_SCHEMA)
		throw new NewerDatabase(
			`A newer Jaldi made ${file} (${schema} steps, this one knows ${NEWEST_SCHEMA}). Start that one, or restore a backup of this one into another folder.`
		);
	if (schema === 0 || schema === NEWEST_SCHEMA) return null;
	const copy = `${file}.before-${NEWEST_SCHEMA}`;
	// An update that was cut off begins again: what it began from is kept already.
	if (existsSync(copy)) return copy;
	await copyTo(file, copy);
	return copy;
}
