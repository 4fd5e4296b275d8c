import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { account, adminAct, session, user } from '../db/schema';
import { openTestShop, type TestShop } from '../shop.fixture';
import { AdminLog } from './adminLog';
import { actWords } from './adminWords';
import { ApiTokens } from './apiTokens';
import { addMember, makeAuth, type Auth } from './auth';
import { tooEasy } from './passwordStrength';
import { People } from './people';
import { QuickCodes } from './quickCode';

let shop: TestShop;
let auth: Auth;
let people: People;
let now: Date;
const lead = { id: '', name: 'Rona Amsel' };
const SOMEBODY = { id: 'somebody', name: 'Marit Aker' };
const PASSWORD = 'tide-tables';
const signIn = (username: string, password: string) =>
	auth.api.signInUsername({ body: { username, password } }).then(
		(done) => done?.user.id ?? null,
		(error: { body?: { code?: string } }) => error.body?.code ?? 'refused'
	);
const acts = async () => (await new AdminLog(shop.db).page()).rows.map((row) => actWords(row));

beforeEach(async () => {
	shop = await openTestShop();
	now = new Date();
	auth = makeAuth({ db: shop.db, secret: 'x'.repeat(32), origin: 'http://127.0.0.1:1' });
	people = new People(shop.db, auth, () => now);
	lead.id = await addMember(auth, { name: lead.name, username: 'rona', password: PASSWORD, role: 'lead' });
});
afterEach(() => shop.close());

/** Somebody who was invited and came in. */
async function comeIn(username: string, role: 'lead' | 'technician' | 'viewer' = 'technician') {
	const code = await people.invite({ name: `Person ${username}`, username, role }, lead);
	if (!code.ok) throw new Error(code.error);
	expect(await people.comeIn(code.value.toLowerCase().replaceAll('-', ' '), PASSWORD)).toBe(true);
	const [row] = await shop.db.select({ id: user.id }).from(user).where(eq(user.username, username));
	return { id: row?.id ?? '', code: code.value };
}

describe('the people of a shop', () => {
	it('come in by a code that opens once, for a week, and that nobody could read in the database', async () => {
		const { id, code } = await comeIn('iven');
		expect(await signIn('iven', PASSWORD)).toBe(id);
		expect(await people.comeIn(code, 'another-password')).toBe(false);
		expect(await people.invited(code)).toBeNull();
		const late = await people.invite({ name: 'Late', username: 'late', role: 'viewer' }, lead);
		expect(JSON.stringify(await shop.db.query.invitation.findMany())).not.toContain(late.ok && late.value);
		now = new Date(now.getTime() + 8 * 24 * 3_600_000);
		expect(late.ok && (await people.invited(late.value))).toBeNull();
		expect(await people.invite({ name: 'x', username: 'iven', role: 'viewer' }, lead)).toMatchObject({
			ok: false
		});
	});

	it('have any user name that the form takes: two letters, and dashes', async () => {
		for (const username of ['io', 'a-b.c_d', 'x'.repeat(30)]) {
			const { id } = await comeIn(username);
			expect(await signIn(username, PASSWORD)).toBe(id);
		}
	});

	it('of two who are given one user name at once, one has it, and the other is told', async () => {
		const both = await Promise.all(
			['One', 'Other'].map((name) => people.invite({ name, username: 'same', role: 'viewer' }, lead))
		);
		expect(both.map(({ ok }) => ok).sort()).toEqual([false, true]);
		expect(both.find(({ ok }) => !ok)).toMatchObject({ error: expect.stringContaining('“same”') });
	});

	it('of two who go through one way in at once, one is in', async () => {
		const code = await people.invite({ name: 'Two', username: 'two', role: 'viewer' }, lead);
		if (!code.ok) throw new Error(code.error);
		const both = await Promise.all([
			people.comeIn(code.value, 'first-of-them'),
			people.comeIn(code.value, 'second-of-them')
		]);
		expect(both.sort()).toEqual([false, true]);
	});

	it('who are shut out are out at once and stay out, and come back with the password they had', async () => {
		const { id } = await comeIn('iven');
		await signIn('iven', PASSWORD);
		expect(await people.sessions(id)).toHaveLength(1);
		expect((await people.shutOut(id, 'Left the shop', lead)).ok).toBe(true);
		expect(await people.sessions(id)).toHaveLength(0);
		expect(await signIn('iven', PASSWORD)).toBe('BANNED_USER');
		expect((await people.reset(id, lead)).ok).toBe(false);
		await people.letIn(id, lead);
		expect(await signIn('iven', PASSWORD)).toBe(id);
	});

	it('sign in anew with another role, and with a new way in the old password opens nothing', async () => {
		const { id } = await comeIn('iven');
		await signIn('iven', PASSWORD);
		await people.setRole(id, 'lead', lead);
		expect(await people.sessions(id)).toHaveLength(0);
		expect((await people.find(id))?.role).toBe('lead');
		await signIn('iven', PASSWORD);
		const way = await people.reset(id, lead);
		expect(await people.sessions(id)).toHaveLength(0);
		expect(await signIn('iven', PASSWORD)).not.toBe(id);
		expect(way.ok && (await people.comeIn(way.value, 'new-and-longer'))).toBe(true);
		expect(await signIn('iven', 'new-and-longer')).toBe(id);
		expect(await shop.db.select().from(account).where(eq(account.userId, id))).toHaveLength(1);
	});

	it('are never without a lead who can sign in', async () => {
		const invitedOnly = await people.invite({ name: 'Not yet', username: 'notyet', role: 'lead' }, lead);
		expect(invitedOnly.ok).toBe(true);
		// Of the test shop's own people none has a password.
		for (const role of ['technician', 'viewer'] as const)
			expect(await people.setRole(lead.id, role, SOMEBODY)).toMatchObject({ ok: false });
		expect(await people.shutOut(lead.id, 'x', SOMEBODY)).toMatchObject({ ok: false });
		expect(await people.shutOut(lead.id, 'x', lead)).toMatchObject({ ok: false });
		await comeIn('second', 'lead');
		const { id: third } = await comeIn('third', 'lead');
		await people.setRole(lead.id, 'technician', SOMEBODY);
		// Two leads who take each other out at the same moment leave one.
		const [second] = (await people.all()).filter(({ username }) => username === 'second');
		const both = await Promise.all([
			people.setRole(third, 'viewer', { id: second?.id ?? '', name: 'Second' }),
			people.shutOut(second?.id ?? '', 'x', { id: third, name: 'Third' })
		]);
		expect(both.map(({ ok }) => ok).sort()).toEqual([false, true]);
	});

	it('end one session, or all but their own', async () => {
		const { id } = await comeIn('iven');
		for (let i = 0; i < 3; i++) await signIn('iven', PASSWORD);
		const [own, other] = await people.sessions(id);
		expect(await people.endSessions(id, { only: other?.id ?? '' }, lead)).toEqual([other?.id]);
		// A session of somebody else is none of theirs.
		expect(await people.endSessions(lead.id, { only: own?.id ?? '' }, lead)).toEqual([]);
		await people.endSessions(id, { allBut: own?.id ?? '' }, lead);
		expect((await people.sessions(id)).map((one) => one.id)).toEqual([own?.id]);
	});

	it('leave what was done to them on a log that nobody changes, and no secret is on it', async () => {
		const { id, code } = await comeIn('iven');
		await people.rename(id, 'Iven Holm', lead);
		await people.setRole(id, 'viewer', lead);
		expect(await acts()).toEqual([
			'changed the role of Iven Holm: technician → viewer',
			'renamed iven: Person iven → Iven Holm',
			'invited Person iven: technician'
		]);
		await shop.settings.write('shopName', 'Works at Tern Point', lead);
		await shop.settings.write('shopName', 'Works at Tern Point', lead);
		expect((await acts())[0]).toBe('changed the setting shopName: This workshop → Works at Tern Point');
		expect(await acts()).toHaveLength(4);
		expect(JSON.stringify(await shop.db.select().from(adminAct))).not.toContain(code);
		await expect(shop.db.delete(adminAct)).rejects.toThrow();
		await expect(shop.db.update(adminAct).set({ byName: 'nobody' })).rejects.toThrow();
	});
});

describe('a token of another program', () => {
	it('opens what it is for until it is taken back; only its hash is kept', async () => {
		const tokens = new ApiTokens(shop.db, () => now);
		const made = await tokens.make('Test lane', ['read', 'add'], lead);
		const token = made.ok ? made.value : '';
		expect(await tokens.bearer(`Bearer ${token}`)).toMatchObject({
			member: { name: 'Test lane', role: 'technician' },
			scopes: ['read', 'add']
		});
		expect(await tokens.bearer(`Bearer ${token}x`)).toBeNull();
		expect(await tokens.bearer(token)).toBeNull();
		expect(await tokens.bearer(null)).toBeNull();
		const [row] = await tokens.all();
		expect(row?.lastUsedAt).toBe(now.toISOString());
		expect(JSON.stringify(await shop.db.query.apiToken.findMany())).not.toContain(token);
		// A program is nobody who signs in, and nobody of the people.
		expect((await people.all()).map(({ name }) => name)).not.toContain('Test lane');
		await tokens.revoke(row?.id ?? '', lead);
		expect(await tokens.bearer(`Bearer ${token}`)).toBeNull();
		expect(await tokens.revoke(row?.id ?? '', lead)).toMatchObject({ ok: false });
	});
});

describe('a locked screen', () => {
	it('opens to six digits on the day of its sign-in, to the password always, to nothing else', async () => {
		const codes = new QuickCodes(shop.db, auth, () => now);
		await signIn('rona', PASSWORD);
		const [open] = await people.sessions(lead.id);
		const signedIn = {
			member: { ...lead, username: 'rona', role: 'lead' as const },
			sessionId: open?.id ?? '',
			since: open?.since ?? now,
			locked: true
		};
		const lockedAt = async () =>
			(await shop.db.select({ at: session.lockedAt }).from(session))[0]?.at ?? null;
		await codes.lock(signedIn.sessionId);
		expect(await codes.open(signedIn, '270418')).toBe(false);
		await codes.set(lead.id, '270418');
		expect(await codes.open(signedIn, '270419')).toBe(false);
		expect(await lockedAt()).not.toBeNull();
		expect(await codes.open(signedIn, '270418')).toBe(true);
		expect(await lockedAt()).toBeNull();
		now = new Date(now.getTime() + 24 * 3_600_000);
		expect(await codes.open(signedIn, '270418')).toBe(false);
		expect(await codes.open(signedIn, PASSWORD)).toBe(true);
		// The digits sign nobody in.
		expect(await signIn('rona', '270418')).not.toBe(lead.id);
	});
});

describe('a password', () => {
	it('that many would try is refused, and so is one of what everybody knows', async () => {
		for (const bad of ['password1', '12345678', 'qwertzuiop', 'rona2026', 'Sommer2026'])
			expect(await tooEasy(bad, ['Rona Amsel', 'rona']), bad).not.toBeNull();
		for (const good of ['tide-tables', 'gull over harbour'])
			expect(await tooEasy(good, ['Rona Amsel', 'rona']), good).toBeNull();
	});
});
