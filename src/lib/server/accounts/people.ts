import { and, desc, eq, gt, inArray, ne, sql } from 'drizzle-orm';
import { fail, ok, type Result } from '../../core/result';
import type { Database } from '../db/open';
import { account, adminAct, invitation, session, twoFactor, user } from '../db/schema';
import type { Author } from '../db/threads';
import { actOf, type AdminActKind, type AdminFacts } from './adminLog';
import { addAccount, openBy, type Auth, type Newcomer } from './auth';
import type { Role } from './members';
import { hashOf, newCode, plainCode } from './secrets';

/** How long a way in stays open. */
const INVITED_DAYS = 7;
const DAY_MS = 24 * 3_600_000;
const MOST_SHOWN = 500;

export interface PersonRow {
	id: string;
	name: string;
	username: string;
	role: Role;
	/** Why they are shut out; null = they are not. */
	shutOut: string | null;
	/** A way in is open and not yet gone through. */
	invited: boolean;
	secondFactor: boolean;
	lastSeen: Date | null;
}

export interface SessionRow {
	id: string;
	since: Date;
	seen: Date;
	address: string;
	device: string;
}

type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0];

/**
 * The people of a shop, as a lead looks after them. A lead never knows anybody's password: whoever is invited, or needs a new way
 * in, chooses their own with a code that works once. Every act is on the admin log in the same transaction.
 */
export class People {
	constructor(
		private readonly db: Database,
		private readonly auth: Auth,
		private readonly now: () => Date = () => new Date()
	) {}

	async all(): Promise<PersonRow[]> {
		const [rows, open, seen] = await Promise.all([
			this.db.select().from(user).where(eq(user.program, false)).orderBy(user.name).limit(MOST_SHOWN),
			this.db.select().from(invitation).where(gt(invitation.expiresAt, this.now().toISOString())),
			this.db
				.select({ userId: session.userId, at: session.updatedAt })
				.from(session)
				.orderBy(desc(session.updatedAt))
		]);
		const invited = new Set(open.map(({ userId }) => userId));
		return rows.map((row) => ({
			id: row.id,
			name: row.name,
			username: row.username ?? '',
			role: row.role,
			shutOut: row.banned ? (row.banReason ?? '') : null,
			invited: invited.has(row.id),
			secondFactor: row.twoFactorEnabled ?? false,
			lastSeen: seen.find(({ userId }) => userId === row.id)?.at ?? null
		}));
	}

	/** Those who work at vehicles and may come in. */
	async atWork(): Promise<{ id: string; name: string; role: Role }[]> {
		return this.db
			.select({ id: user.id, name: user.name, role: user.role })
			.from(user)
			.where(
				and(
					eq(user.program, false),
					inArray(user.role, ['technician', 'lead']),
					sql`coalesce(${user.banned}, 0) = 0`
				)
			)
			.orderBy(user.name)
			.limit(MOST_SHOWN);
	}

	async find(id: string): Promise<PersonRow | null> {
		return (await this.all()).find((one) => one.id === id) ?? null;
	}

	/** Makes somebody who has no password yet. @returns the code of the way in, which is shown once */
	async invite(person: Newcomer, by: Author): Promise<Result<string>> {
		const made = await this.make(person);
		if (!made) return fail(taken(person.username));
		return ok(await this.openWayIn(made, by, 'person-invited', { of: person.name, to: person.role }));
	}

	/** Somebody without a password; null where the user name is taken, also by somebody who was made at the same moment. */
	private async make(person: Newcomer): Promise<string | null> {
		const named = eq(user.username, person.username);
		const isTaken = async () => (await this.db.select({ id: user.id }).from(user).where(named)).length > 0;
		if (await isTaken()) return null;
		try {
			return await addAccount(this.auth, person);
		} catch (error) {
			if (await isTaken()) return null;
			throw error;
		}
	}

	/** The password of somebody works no more, and they choose another. @returns the code of the way in */
	async reset(id: string, by: Author): Promise<Result<string>> {
		const person = await this.find(id);
		if (!person) return fail(GONE);
		if (person.shutOut !== null) return fail('They are shut out: let them in first.');
		return ok(await this.openWayIn(id, by, 'password-reset', { of: person.name }));
	}

	async rename(id: string, name: string, by: Author): Promise<Result<null>> {
		const person = await this.find(id);
		if (!person) return fail(GONE);
		await this.db.batch([
			this.db.update(user).set({ name, updatedAt: this.now() }).where(eq(user.id, id)),
			this.act(by, 'person-renamed', { of: person.username, from: person.name, to: name })
		]);
		return ok(null);
	}

	/** Whoever gets another role signs in anew. */
	async setRole(id: string, role: Role, by: Author): Promise<Result<null>> {
		const person = await this.find(id);
		if (!person) return fail(GONE);
		if (person.role === role) return ok(null);
		return this.unlessLastLead(id, async (tx) => {
			await tx.update(user).set({ role, updatedAt: this.now() }).where(eq(user.id, id));
			await tx.delete(session).where(eq(session.userId, id));
			const facts = { of: person.name, from: person.role, to: role };
			await tx.insert(adminAct).values(actOf(by, 'role-changed', facts, this.now()));
		});
	}

	async shutOut(id: string, why: string, by: Author): Promise<Result<null>> {
		const person = await this.find(id);
		if (!person) return fail(GONE);
		if (person.id === by.id) return fail('Nobody shuts themselves out: another lead does.');
		return this.unlessLastLead(id, async (tx) => {
			await tx
				.update(user)
				.set({ banned: true, banReason: why, updatedAt: this.now() })
				.where(eq(user.id, id));
			await tx.delete(session).where(eq(session.userId, id));
			await tx.delete(invitation).where(eq(invitation.userId, id));
			await tx
				.insert(adminAct)
				.values(actOf(by, 'person-shut-out', { of: person.name, to: why }, this.now()));
		});
	}

	async letIn(id: string, by: Author): Promise<Result<null>> {
		const person = await this.find(id);
		if (!person) return fail(GONE);
		await this.db.batch([
			this.db
				.update(user)
				.set({ banned: false, banReason: null, updatedAt: this.now() })
				.where(eq(user.id, id)),
			this.act(by, 'person-let-in', { of: person.name })
		]);
		return ok(null);
	}

	/** For whoever has lost their phone and their codes. */
	async takeSecondFactorOff(id: string, by: Author): Promise<Result<null>> {
		const person = await this.find(id);
		if (!person) return fail(GONE);
		await this.db.batch([
			this.db.delete(twoFactor).where(eq(twoFactor.userId, id)),
			this.db.update(user).set({ twoFactorEnabled: false, updatedAt: this.now() }).where(eq(user.id, id)),
			this.db.delete(session).where(eq(session.userId, id)),
			this.act(by, 'second-factor-taken-off', { of: person.name })
		]);
		return ok(null);
	}

	async sessions(id: string): Promise<SessionRow[]> {
		const rows = await this.db
			.select()
			.from(session)
			.where(and(eq(session.userId, id), gt(session.expiresAt, this.now())))
			.orderBy(desc(session.updatedAt))
			.limit(MOST_SHOWN);
		return rows.map((row) => ({
			id: row.id,
			since: row.createdAt,
			seen: row.updatedAt,
			address: row.ipAddress ?? '',
			device: deviceOf(row.userAgent ?? '')
		}));
	}

	/** Ends one session of somebody, or all but one. @returns the ids of those that ended */
	async endSessions(
		id: string,
		which: { only: string } | { allBut: string | null },
		by: Author
	): Promise<string[]> {
		const person = await this.find(id);
		if (!person) return [];
		const chosen =
			'only' in which
				? eq(session.id, which.only)
				: which.allBut === null
					? undefined
					: ne(session.id, which.allBut);
		const ended = await this.db
			.delete(session)
			.where(and(eq(session.userId, id), chosen))
			.returning({ id: session.id });
		if (ended.length > 0) await this.act(by, 'sessions-ended', { of: person.name, to: ended.length });
		return ended.map((one) => one.id);
	}

	/** Whose way in a code is; null = none that is open. */
	async invited(code: string): Promise<{ id: string; name: string; username: string } | null> {
		const [row] = await this.db
			.select({ id: user.id, name: user.name, username: user.username })
			.from(invitation)
			.innerJoin(user, eq(user.id, invitation.userId))
			.where(
				and(eq(invitation.hash, hashOf(plainCode(code))), gt(invitation.expiresAt, this.now().toISOString()))
			);
		return row ? { ...row, username: row.username ?? '' } : null;
	}

	/** Goes through a way in: it is shut behind them. @returns false where somebody else went through meanwhile */
	async comeIn(code: string, password: string): Promise<boolean> {
		const person = await this.invited(code);
		if (!person) return false;
		const context = await this.auth.$context;
		const hashed = await context.password.hash(password);
		const gone = await this.db
			.delete(invitation)
			.where(eq(invitation.hash, hashOf(plainCode(code))))
			.returning({ userId: invitation.userId });
		if (gone.length === 0) return false;
		await openBy(this.auth, person.id, hashed);
		return true;
	}

	/** Closes whatever opened the account until now and opens one way in. */
	private async openWayIn(id: string, by: Author, what: AdminActKind, facts: AdminFacts): Promise<string> {
		const code = newCode();
		const expiresAt = new Date(this.now().getTime() + INVITED_DAYS * DAY_MS).toISOString();
		const opened = { hash: hashOf(plainCode(code)), expiresAt };
		await this.db.batch([
			this.db.delete(account).where(eq(account.userId, id)),
			this.db.delete(session).where(eq(session.userId, id)),
			this.db.update(user).set({ quickCode: null }).where(eq(user.id, id)),
			this.db
				.insert(invitation)
				.values({ userId: id, ...opened })
				.onConflictDoUpdate({ target: invitation.userId, set: opened }),
			this.act(by, what, facts)
		]);
		return code;
	}

	private act(by: Author, what: AdminActKind, facts: AdminFacts) {
		return this.db.insert(adminAct).values(actOf(by, what, facts, this.now()));
	}

	/**
	 * Does what takes somebody out of the leads, unless nobody would be left who could look after the shop: a lead with a password,
	 * not shut out. Asked and done in one transaction, so that two leads who take each other out at once leave one.
	 */
	private async unlessLastLead(id: string, act: (tx: Transaction) => Promise<void>): Promise<Result<null>> {
		return this.db.transaction(async (tx) => {
			const leads = await tx
				.select({ id: user.id })
				.from(user)
				.innerJoin(account, eq(account.userId, user.id))
				.where(and(eq(user.role, 'lead'), eq(user.banned, false)));
			if (leads.length > 0 && leads.every((lead) => lead.id === id)) return fail(LAST_LEAD);
			await act(tx);
			return ok(null);
		});
	}
}

const taken = (username: string) => `There is a “${username}” already: take another user name.`;
const GONE = 'There is nobody of that name here any more.';
const LAST_LEAD = 'They are the last lead who can sign in: make somebody else a lead first.';

/** What signed in, as far as it says: enough to know one's own tablet again. */
const deviceOf = (agent: string): string =>
	/Tablet/i.test(agent) ? 'a tablet' : /Mobi/i.test(agent) ? 'a phone' : 'a computer';
