import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { backUp, backupsIn } from '../../care/backUp';
import { fetchNewest, sendBackup, sendNewest } from '../../care/elsewhere';
import { bucketPlace, type BucketPlace } from '../../objects/objectStore';
import { s3Files } from '../../objects/s3Store';
import { startS3StandIn, type S3StandIn } from '../../objects/s3StandIn.fixture';
import { openTestShop, put, type TestShop } from '../shop.fixture';
import { BackupSchedule } from './backupSchedule';

let shop: TestShop;
let store: S3StandIn;
let place: BucketPlace;
let folder: string;
beforeEach(async () => {
	shop = await openTestShop();
	store = await startS3StandIn();
	place = bucketPlace('s3://vault/tern-point', store.endpoint, 'The store');
	folder = mkdtempSync(join(tmpdir(), 'jaldi-elsewhere-'));
	await put(shop, 'note', { text: 'kept elsewhere' });
});
afterEach(() => {
	shop.close();
	store.close();
	rmSync(folder, { recursive: true, force: true });
});

/** One made at such a day, by its name. */
async function madeOn(day: number): Promise<string> {
	const made = await backUp(shop.folder, folder, { now: new Date(Date.UTC(2026, 2, day)) });
	if (!made.ok) throw new Error(made.error);
	return made.value.file;
}
const there = () => [...store.objects.keys()].map((name) => name.replace('/vault/tern-point/', '')).sort();

describe('backups in a store elsewhere', () => {
	it('are brought once, no more than are kept, and beside what is none', async () => {
		store.objects.set('/vault/tern-point/readme.txt', Buffer.from('ours'));
		const files = s3Files(place);
		for (const day of [1, 2, 3]) {
			const sent = await sendBackup(await madeOn(day), files, 2);
			expect(sent).toMatchObject({ ok: true, value: { now: true } });
		}
		expect(there()).toEqual(['jaldi-20260302T000000000Z.db', 'jaldi-20260303T000000000Z.db', 'readme.txt']);
		expect(await sendNewest(folder, files, 2)).toMatchObject({ ok: true, value: { now: false } });
	});

	it('come back as they were, large ones in pieces', async () => {
		const large = join(folder, 'jaldi-20260401T000000000Z.db');
		const bytes = Buffer.from(Uint8Array.from({ length: 11_000_000 }, (_, i) => (i * i) % 251));
		writeFileSync(large, bytes);
		const files = s3Files(place, 5 * 1024 * 1024);
		expect((await sendBackup(large, files)).ok).toBe(true);
		expect(store.parts).toBe(3);
		expect(store.objects.get('/vault/tern-point/jaldi-20260401T000000000Z.db')?.equals(bytes)).toBe(true);
		const back = mkdtempSync(join(folder, 'back-'));
		const fetched = await fetchNewest(files, back);
		expect(fetched).toEqual({ ok: true, value: join(back, 'jaldi-20260401T000000000Z.db') });
	});

	it('are refused with a sentence where the store is out of reach or has none', async () => {
		expect(await fetchNewest(s3Files(place), folder)).toEqual({
			ok: false,
			error: 'There is no backup there.'
		});
		const file = await madeOn(1);
		store.close();
		expect(await sendBackup(file, s3Files(place))).toMatchObject({
			ok: false,
			error: expect.stringContaining('could not be brought elsewhere')
		});
	});

	it('follow the server’s own by themselves, and what could not go is told and tried again', async () => {
		let now = new Date();
		let away = true;
		const schedule = new BackupSchedule(
			{ to: folder, everyHours: 24, keep: 3, copyTo: place },
			(plan, at) => backUp(shop.folder, plan.to, { now: at, keep: plan.keep }),
			() => undefined,
			({ to, keep, copyTo }) =>
				away ? Promise.reject(new Error('no way there')) : sendNewest(to, s3Files(copyTo), keep),
			() => now
		);
		await schedule.whenDue();
		expect(schedule.state()).toMatchObject({ failed: null, notCopied: 'no way there' });
		away = false;
		await schedule.whenDue();
		expect(there()).toEqual([]);
		now = new Date(now.getTime() + 3_600_000);
		await schedule.whenDue();
		expect(schedule.state()).toMatchObject({ notCopied: null });
		expect(there()).toEqual(backupsIn(folder).map((file) => file.slice(folder.length + 1)));
	});
});
