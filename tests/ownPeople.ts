import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { PASSWORD } from '../demo/shop';
import { addMember, makeAuth } from '../src/lib/server/accounts/auth';
import type { Role } from '../src/lib/server/accounts/members';
import { openDatabase } from '../src/lib/server/db/open';

/** The people of a shop of a test's own, made before its server is started. */
export async function makePeople(
	data: string,
	people: readonly (readonly [username: string, name: string, role: Role])[]
): Promise<void> {
	mkdirSync(data, { recursive: true });
	const db = await openDatabase(`file:${join(data, 'jaldi.db')}`);
	// What is made here holds for whatever secret the server has: it signs sessions, and there are none yet.
	const auth = makeAuth({ db, secret: 'x'.repeat(32), origin: 'http://127.0.0.1:1' });
	for (const [username, name, role] of people)
		await addMember(auth, { username, name, role, password: PASSWORD });
	db.$client.close();
}
