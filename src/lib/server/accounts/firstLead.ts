import { timingSafeEqual } from 'node:crypto';
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { OWNER_ONLY } from '../../care/dataFolder';
import type { Database } from '../db/open';
import { user } from '../db/schema';
import { fail, ok, type Result } from '../../core/result';
import { addMember, type Auth } from './auth';
import { newCode, plainCode } from './secrets';

/**
 * A shop that has nobody yet takes its first lead from a page. Whoever makes it shows that they are at the server, by a code that
 * stands at its start and in a file beside its database, and is gone with the first account.
 */
export class FirstLead {
	private empty: boolean | null = null;
	private kept: string | null = null;

	/** @param database file that it is about; null = on another machine, where the first account comes by the command */
	constructor(
		private readonly db: Database,
		private readonly auth: Auth,
		private readonly database: string | null
	) {}

	/** Where the code stands. */
	get file(): string | null {
		return this.database === null ? null : `${this.database}.first-lead`;
	}

	/** Whether the shop still has nobody. Once somebody is there it is not asked again. */
	async isWanted(): Promise<boolean> {
		if (this.empty === false || this.file === null) return false;
		this.empty = (await this.db.select({ id: user.id }).from(user).limit(1)).length === 0;
		if (!this.empty) this.forget();
		return this.empty;
	}

	/** The code, made when it is first asked for and the same after a start anew; null where nobody is wanted. */
	async code(): Promise<string | null> {
		const { file } = this;
		if (file === null || !(await this.isWanted())) return null;
		this.kept ??= existsSync(file) ? readFileSync(file, 'utf8').trim() : null;
		if (!this.kept) {
			this.kept = newCode();
			writeFileSync(file, `${this.kept}\n`, { mode: OWNER_ONLY });
		}
		return this.kept;
	}

	/** Makes the first lead. */
	async make(
		code: string,
		person: { name: string; username: string; password: string }
	): Promise<Result<null, 'code' | 'late'>> {
		const right = await this.code();
		if (right === null) return fail('late');
		const [typed, wanted] = [Buffer.from(plainCode(code)), Buffer.from(plainCode(right))];
		if (typed.length !== wanted.length || !timingSafeEqual(typed, wanted)) return fail('code');
		// Of two who press at once the second finds it taken.
		if (!this.empty) return fail('late');
		this.empty = false;
		try {
			await addMember(this.auth, { ...person, role: 'lead' });
		} catch (error) {
			this.empty = null;
			throw error;
		}
		this.forget();
		return ok(null);
	}

	private forget(): void {
		this.kept = null;
		if (this.file) rmSync(this.file, { force: true });
	}
}
