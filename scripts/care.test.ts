import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { main } from '../cli/main';
import { runCommand } from '../cli/run.fixture';
import { startS3StandIn } from '../src/lib/objects/s3StandIn.fixture';
import { openTestShop, put, type TestShop } from '../src/lib/server/shop.fixture';

const run = (...args: string[]) => runCommand(main, args);

let shop: TestShop;
let place: string;

beforeAll(async () => {
	shop = await openTestShop();
	await put(shop, 'note', { text: 'one' });
	place = mkdtempSync(join(tmpdir(), 'jaldi-care-cli-'));
});
afterAll(() => {
	shop.close();
	rmSync(place, { recursive: true, force: true });
});

describe('jaldi doctor, backup, restore', () => {
	it('a shop that is at work is sound; it is kept, put into another folder, and is sound there too', async () => {
		const sound = {
			integrity: 'ok',
			cases: 1,
			chains: { checked: 1, broken: [] },
			orphans: 0,
			problems: []
		};
		const here = await run('doctor', '--data', shop.folder, '--json');
		expect([here.status, JSON.parse(here.out)]).toMatchObject([0, sound]);
		const folder = join(place, 'kept');
		mkdirSync(folder);
		for (let i = 0; i < 2; i++) {
			const kept = await run('backup', '--data', shop.folder, '--keep', '1', folder);
			expect(kept.status).toBe(0);
			expect(kept.out).toContain('Nothing is wrong.');
		}
		const into = join(place, 'into');
		const back = await run('restore', folder, '--data', into);
		expect([back.status, back.out]).toEqual([0, expect.stringContaining('Everybody signs in anew.')]);
		const there = await run('doctor', '--data', into, '--json');
		expect([there.status, JSON.parse(there.out)]).toMatchObject([0, sound]);
	});

	it('a store elsewhere keeps the newest, and gives it back; it is reached by a line that nobody can read alone', async () => {
		const store = await startS3StandIn();
		const variable = 'JALDI_BACKUP_COPY_TO_ENDPOINT';
		process.env[variable] = store.endpoint;
		try {
			for (let i = 0; i < 2; i++) {
				const kept = await run('backup', '--data', shop.folder, '--keep', '1', 's3://vault/tern-point');
				expect([kept.status, kept.out]).toEqual([0, expect.stringContaining('s3://vault/tern-point/jaldi-')]);
			}
			expect(store.objects.size).toBe(1);
			const into = join(place, 'from-elsewhere');
			expect((await run('restore', 's3://vault/tern-point', '--data', into)).status).toBe(0);
			const there = await run('doctor', '--data', into, '--json');
			expect(JSON.parse(there.out)).toMatchObject({ integrity: 'ok', cases: 1, problems: [] });
			expect(await run('restore', 's3://vault/nothing', '--data', join(place, 'y'))).toMatchObject({
				status: 1,
				err: expect.stringContaining('There is no backup there')
			});
			expect((await run('backup', '--data', shop.folder, 's3://NO')).status).toBe(2);
			process.env[variable] = 'http://store.example.test';
			expect((await run('backup', '--data', shop.folder, 's3://vault')).status).toBe(2);
		} finally {
			delete process.env[variable];
			store.close();
		}
	});

	it('what cannot be done is said, with status 1; what is not understood, with status 2', async () => {
		const none = await run('doctor', '--data', join(place, 'nowhere'), '--json');
		expect([none.status, JSON.parse(none.out)]).toMatchObject([
			1,
			{ cases: 0, problems: [expect.stringContaining('There is no database')] }
		]);
		expect(await run('restore', join(place, 'nowhere'), '--data', join(place, 'x'))).toMatchObject({
			status: 1,
			err: expect.stringContaining('There is no backup')
		});
		expect(await run('restore', shop.folder, '--data', shop.folder)).toMatchObject({ status: 1 });
		for (const args of [
			['backup'],
			['backup', 'a', 'b'],
			['backup', '--keep', '0', 'a'],
			['restore'],
			['doctor', 'x']
		])
			expect([args, (await run(...args)).status]).toEqual([args, 2]);
	});
});
