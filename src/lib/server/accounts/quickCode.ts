import { eq } from 'drizzle-orm';
import { isSameDay } from 'date-fns/isSameDay';
import type { Database } from '../db/open';
import { account, session, user } from '../db/schema';
import type { Auth, SignedIn } from './auth';

/**
 * Screens that are locked, and opened again with six digits. The digits resume what the same person signed in to on the same day,
 * at that one screen; they never sign anybody in.
 */
export class QuickCodes {
	constructor(
		private readonly db: Database,
		private readonly auth: Auth,
		private readonly now: () => Date = () => new Date()
	) {}

	async isSet(memberId: string): Promise<boolean> {
		return (await this.hashOf(memberId)) !== null;
	}

	/** @param digits null = none any more */
	async set(memberId: string, digits: string | null): Promise<void> {
		const { password } = await this.auth.$context;
		const quickCode = digits === null ? null : await password.hash(digits);
		await this.db.update(user).set({ quickCode }).where(eq(user.id, memberId));
	}

	async lock(sessionId: string): Promise<void> {
		await this.db
			.update(session)
			.set({ lockedAt: this.now().toISOString() })
			.where(eq(session.id, sessionId));
	}

	/** Whether six digits open this screen today. */
	async opensToday({ member, since }: Pick<SignedIn, 'member' | 'since'>): Promise<boolean> {
		return isSameDay(since, this.now()) && (await this.isSet(member.id));
	}

	/** Opens a locked screen by six digits of the same day, or by the whole password. @returns whether it is open */
	async open(signedIn: SignedIn, secret: string): Promise<boolean> {
		const { password } = await this.auth.$context;
		const hashes = [
			(await this.opensToday(signedIn)) ? await this.hashOf(signedIn.member.id) : null,
			await this.passwordOf(signedIn.member.id)
		];
		for (const hash of hashes) {
			if (hash === null || !(await password.verify({ hash, password: secret }))) continue;
			await this.db.update(session).set({ lockedAt: null }).where(eq(session.id, signedIn.sessionId));
			return true;
		}
		return false;
	}

	private async hashOf(memberId: string): Promise<string | null> {
		const [row] = await this.db.select({ code: user.quickCode }).from(user).where(eq(user.id, memberId));
		return row?.code ?? null;
	}

	private async passwordOf(memberId: string): Promise<string | null> {
		const [row] = await this.db
			.select({ password: account.password })
			.from(account)
			.where(eq(account.userId, memberId));
		return row?.password ?? null;
	}
}
