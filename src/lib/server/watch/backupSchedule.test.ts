import { mkdtempSync, readdirSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { backUp, backupsIn } from '../../care/backUp';
import { examine } from '../../care/examine';
import { openTestShop, put, type TestShop } from '../shop.fixture';
import { BackupSchedule } from './backupSchedule';

let shop: TestShop;
let to: string;
let now: Date;
beforeEach(async () => {
	shop = await openTestShop();
	to = join(mkdtempSync(join(tmpdir(), 'jaldi-backups-')), 'kept');
	now = new Date();
});
afterEach(() => {
	shop.close();
	rmSync(to, { recursive: true, force: true });
});

const HOUR_MS = 3_600_000;
const later = (hours: number) => (now = new Date(now.getTime() + hours * HOUR_MS));
/** As a clock that goes on has it: what was made is so old by now. */
const age = (hours: number) => {
	for (const file of backupsIn(to)) {
		const then = (Date.now() - hours * HOUR_MS) / 1000;
		utimesSync(file, then, then);
	}
};

describe('backups that the server makes itself', () => {
	it('come by what lies in their folder, are sound, and are not more than are kept', async () => {
		const told: boolean[] = [];
		const made = (folder: string) =>
			new BackupSchedule(
				{ to, everyHours: 24, keep: 2 },
				(plan, at) => backUp(folder, plan.to, { now: at, keep: plan.keep }),
				({ ok }) => told.push(ok),
				undefined,
				() => now
			);
		await put(shop, 'note', { text: 'kept' });
		const one = made(shop.folder);
		one.begin();
		await one.whenDue();
		await one.whenDue();
		expect(backupsIn(to)).toHaveLength(1);
		expect(await examine(backupsIn(to)[0] ?? '')).toMatchObject({ cases: 1, problems: [] });
		one.end();
		// After a start it goes on where it was.
		const again = made(shop.folder);
		await again.whenDue();
		expect(told).toEqual([true]);
		for (let day = 0; day < 3; day++) {
			age(25);
			later(0.01);
			await again.whenDue();
		}
		expect(told).toEqual([true, true, true, true]);
		expect(readdirSync(to)).toHaveLength(2);
		expect(again.state()).toMatchObject({ failed: null, late: false });
	});

	it('that fail say why, are tried again after an hour, and a folder without one for too long is late', async () => {
		let tries = 0;
		const plan = { to, everyHours: 24, keep: 2 };
		const failing = new BackupSchedule(
			plan,
			() => {
				tries++;
				return Promise.reject(new Error('no room'));
			},
			() => undefined,
			undefined,
			() => now
		);
		failing.begin();
		await failing.whenDue();
		await failing.whenDue();
		expect(tries).toBe(1);
		expect(failing.state()).toEqual({ last: null, failed: 'no room', notCopied: null, late: false });
		later(1.1);
		await failing.whenDue();
		expect(tries).toBe(2);
		writeFileSync(join(to, 'jaldi-20261101T080000000Z.db'), '');
		age(40);
		expect(failing.state()?.late).toBe(true);
		failing.end();
		expect(
			new BackupSchedule(
				null,
				() => Promise.reject(new Error('never')),
				() => undefined
			).state()
		).toBeNull();
	});
});
