import { eq, isNull } from 'drizzle-orm';
import { ulid } from 'ulid';
import { z } from 'zod';
import { fail, ok, type Result } from '../../core/result';
import type { Database } from '../db/open';
import { adminAct, apiToken, user } from '../db/schema';
import type { Author } from '../db/threads';
import { SCOPES, type Scope } from '../gate/permissions';
import { actOf } from './adminLog';
import type { Member } from './members';
import { hashOf, newToken, TOKEN_BEGINS } from './secrets';

const Scopes = z.array(z.enum(SCOPES)).min(1);
export const TokenName = z
	.string()
	.trim()
	.min(2, 'What is it for? Two signs or more.')
	.max(60, 'Sixty signs at most.');
/** A token that is in use says so to the minute. */
const USED_EVERY_MS = 60_000;
const MOST_TOKENS = 200;

export interface ApiTokenRow {
	id: string;
	name: string;
	scopes: Scope[];
	madeBy: string;
	madeAt: string;
	lastUsedAt: string | null;
}

/**
 * Tokens of other programs. Each is a member of its own, so that what a program adds to a thread carries its name; it has no
 * password and never signs in.
 */
export class ApiTokens {
	private readonly used = new Map<string, number>();

	constructor(
		private readonly db: Database,
		private readonly now: () => Date = () => new Date()
	) {}

	/** Those that work, by name. */
	async all(): Promise<ApiTokenRow[]> {
		const rows = await this.db
			.select({
				id: apiToken.id,
				name: user.name,
				scopes: apiToken.scopes,
				madeBy: apiToken.madeBy,
				madeAt: apiToken.madeAt,
				lastUsedAt: apiToken.lastUsedAt
			})
			.from(apiToken)
			.innerJoin(user, eq(user.id, apiToken.userId))
			.where(isNull(apiToken.revokedAt))
			.orderBy(user.name)
			.limit(MOST_TOKENS);
		return rows.map((row) => ({ ...row, scopes: Scopes.parse(row.scopes) }));
	}

	/** @returns the token itself, which is shown once and kept nowhere */
	async make(name: string, scopes: Scope[], by: Author): Promise<Result<string>> {
		if ((await this.all()).length >= MOST_TOKENS)
			return fail(`A shop has at most ${MOST_TOKENS} tokens: take back one that is not used.`);
		const [token, id, now] = [newToken(), ulid(), this.now()];
		await this.db.batch([
			this.db.insert(user).values({
				id,
				name,
				email: `${id}@program.invalid`,
				emailVerified: true,
				role: scopes.includes('add') ? 'technician' : 'viewer',
				program: true,
				createdAt: now,
				updatedAt: now
			}),
			this.db.insert(apiToken).values({
				id,
				userId: id,
				hash: hashOf(token),
				scopes: Scopes.parse(scopes),
				madeBy: by.name,
				madeAt: now.toISOString()
			}),
			this.db.insert(adminAct).values(actOf(by, 'token-made', { of: name, to: scopes }, now))
		]);
		return ok(token);
	}

	async revoke(id: string, by: Author): Promise<Result<null>> {
		const known = (await this.all()).find((one) => one.id === id);
		if (!known) return fail('There is no such token any more.');
		const now = this.now();
		await this.db.batch([
			this.db.update(apiToken).set({ revokedAt: now.toISOString() }).where(eq(apiToken.id, id)),
			this.db.insert(adminAct).values(actOf(by, 'token-revoked', { of: known.name }, now))
		]);
		return ok(null);
	}

	/** Whose token a request carries, and what it is for; null = none that works. */
	async bearer(authorization: string | null): Promise<{ member: Member; scopes: Scope[] } | null> {
		const token = /^Bearer (\S+)$/i.exec(authorization ?? '')?.[1];
		if (!token?.startsWith(TOKEN_BEGINS)) return null;
		const [row] = await this.db
			.select({
				id: apiToken.id,
				name: user.name,
				role: user.role,
				scopes: apiToken.scopes,
				revokedAt: apiToken.revokedAt
			})
			.from(apiToken)
			.innerJoin(user, eq(user.id, apiToken.userId))
			.where(eq(apiToken.hash, hashOf(token)));
		if (!row || row.revokedAt !== null) return null;
		await this.tellUsed(row.id);
		const { id, name, role } = row;
		return { member: { id, name, username: name, role }, scopes: Scopes.parse(row.scopes) };
	}

	private async tellUsed(id: string): Promise<void> {
		const now = this.now();
		if (now.getTime() - (this.used.get(id) ?? 0) < USED_EVERY_MS) return;
		this.used.set(id, now.getTime());
		await this.db.update(apiToken).set({ lastUsedAt: now.toISOString() }).where(eq(apiToken.id, id));
	}
}
