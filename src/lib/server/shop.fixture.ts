import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ulid } from 'ulid';
import { ENTRY_VERSION, type EntryDraft, type EntryKind, type PayloadOf } from '../case/entries/entry';
import { databaseOf } from '../care/dataFolder';
import { addMember, makeAuth } from './accounts/auth';
import { openDatabase } from './db/open';
import type { Author } from './db/threads';
import { storesOn, type Stores } from './stores';

/** A shop on disk for one test: one technician, one vehicle, one open case. */
export interface TestShop extends Stores {
	/** Where its database is. */
	folder: string;
	ana: Author;
	caseId: string;
	close(): void;
}

/** @param elsewhere a database on another machine; absent = a file of its own */
export async function openTestShop(elsewhere?: { url: string; token?: string }): Promise<TestShop> {
	const folder = mkdtempSync(join(tmpdir(), 'jaldi-'));
	const db = await openDatabase(elsewhere?.url ?? `file:${databaseOf(folder)}`, elsewhere?.token);
	const stores = storesOn(db, 'http://127.0.0.1:1');
	const { cases, vehicles } = stores;
	const auth = makeAuth({ db, secret: 'x'.repeat(32), origin: stores.origin });
	const id = await addMember(auth, {
		name: 'Ana',
		username: 'ana',
		password: 'tide-tables',
		role: 'technician'
	});
	const vehicle = await vehicles.add({
		typeId: 'brindle-marlow-16',
		nickname: 'school minibus',
		plate: 'TP 16',
		vin: null,
		linkAddress: '127.0.0.1:1',
		standInAddress: null
	});
	const caseId = await cases.open(ulid(), vehicle.id);
	return {
		...stores,
		folder,
		ana: { id, name: 'Ana' },
		caseId,
		close() {
			db.$client.close();
			rmSync(folder, { recursive: true });
		}
	};
}

/** Puts an entry on a thread of the shop, by its technician. @returns its id */
export async function put<K extends EntryKind>(
	shop: TestShop,
	kind: K,
	payload: PayloadOf<K>,
	{
		id = ulid(),
		caseId = shop.caseId,
		supersedes = null
	}: Partial<Pick<EntryDraft, 'id' | 'caseId' | 'supersedes'>> = {}
): Promise<string> {
	const draft = {
		id,
		caseId,
		kind,
		version: ENTRY_VERSION,
		observedAt: new Date().toISOString(),
		payload,
		supersedes
	};
	const stored = await shop.threads.append(draft as EntryDraft, shop.ana);
	if (!stored.ok) throw new Error(stored.error.text);
	return id;
}
