import { existsSync, mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { databaseOf } from '../../care/dataFolder';
import { openDatabase, type Database } from '../db/open';
import { user } from '../db/schema';
import { makeAuth } from './auth';
import { FirstLead } from './firstLead';

let folder: string;
let db: Database;
const RONA = { name: 'Rona', username: 'rona', password: 'tide-tables' };
const firstLead = (file: string | null = databaseOf(folder)) =>
	new FirstLead(db, makeAuth({ db, secret: 'x'.repeat(32), origin: 'http://127.0.0.1:1' }), file);

beforeEach(async () => {
	folder = mkdtempSync(join(tmpdir(), 'jaldi-first-'));
	db = await openDatabase(`file:${databaseOf(folder)}`);
});
afterEach(() => {
	db.$client.close();
	rmSync(folder, { recursive: true });
});

describe('the first lead of a shop that has nobody', () => {
	it('is made with the code that stands beside its database, which is then gone', async () => {
		const one = firstLead();
		const code = (await one.code()) ?? '';
		expect(code).toMatch(/^[A-Z2-9]{4}-[A-Z2-9]{4}-[A-Z2-9]{4}$/);
		expect(readFileSync(one.file ?? '', 'utf8').trim()).toBe(code);
		expect(statSync(one.file ?? '').mode & 0o077).toBe(0);
		// After a start anew it is the same.
		expect(await firstLead().code()).toBe(code);
		expect(await one.make('AAAA-BBBB-CCCC', RONA)).toEqual({ ok: false, error: 'code' });
		expect(await one.make('', RONA)).toEqual({ ok: false, error: 'code' });
		expect((await one.make(` ${code.toLowerCase().replaceAll('-', ' ')} `, RONA)).ok).toBe(true);
		const people = await db.select({ username: user.username, role: user.role }).from(user);
		expect(people).toEqual([{ username: 'rona', role: 'lead' }]);
		expect(existsSync(one.file ?? '')).toBe(false);
	});

	it('is one: who comes later, or at the same moment, makes none', async () => {
		const one = firstLead();
		const code = (await one.code()) ?? '';
		const both = await Promise.all([one.make(code, RONA), one.make(code, { ...RONA, username: 'iven' })]);
		expect(both.map(({ ok }) => ok).sort()).toEqual([false, true]);
		expect(await one.make(code, { ...RONA, username: 'later' })).toEqual({ ok: false, error: 'late' });
		expect(await firstLead().isWanted()).toBe(false);
		expect(await db.select({ id: user.id }).from(user)).toHaveLength(1);
	});

	it('comes by the command where the database is on another machine', async () => {
		expect(await firstLead(null).isWanted()).toBe(false);
		expect(await firstLead(null).code()).toBeNull();
	});
});
