import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strToU8 } from 'fflate';
import { afterAll, describe, expect, it } from 'vitest';
import { CASE_NAME, packBundle } from '../src/lib/case/paper/bundle';
import { writeCaseFile } from '../src/lib/case/thread/caseFile';
import { BRAKE, OPEN, ThreadMaker } from '../src/lib/case/thread/threads.fixture';
import { check } from './check';
import { WrongUsage } from './command';
import { runCommand } from './run.fixture';

const folder = mkdtempSync(join(tmpdir(), 'jaldi-check-'));
afterAll(() => rmSync(folder, { recursive: true }));

function bundle(name: string, change: (text: string) => string = (text) => text): string {
	const maker = new ThreadMaker().listen();
	maker.scan([[BRAKE, OPEN, 0x2f]]);
	const head = {
		shop: 'Tern Point Works',
		number: 'TP-0407',
		wanted: '',
		createdAt: '2026-11-24T09:00:00.000Z',
		vehicle: { id: 'v', typeId: 'brindle-marlow-16', nickname: 'minibus', plate: '' }
	};
	const path = join(folder, name);
	writeFileSync(path, packBundle(new Map([[CASE_NAME, strToU8(change(writeCaseFile(maker.thread, head)))]])));
	return path;
}
const run = (...args: string[]) => runCommand(check, args);

describe('jaldi check', () => {
	it('says that a bundle is as it was packed', async () => {
		const { status, out } = await run(bundle('whole.zip'), '--json');
		expect(status).toBe(0);
		expect(JSON.parse(out)).toMatchObject({
			intact: true,
			case: 'TP-0407',
			entries: 3,
			files: 2,
			problems: []
		});
		expect((await run(bundle('whole.zip'))).out).toMatch(/^TP-0407: 3 entries, 2 files, as it was packed\n/);
	});

	it('names the entry that was changed, although every hash of a file was made anew', async () => {
		const path = bundle('changed.zip', (text) => text.replace('"odometerKm": 10', '"odometerKm": 11'));
		const { status, out } = await run(path, '--json');
		expect(status).toBe(1);
		expect(JSON.parse(out)).toMatchObject({
			intact: false,
			problems: ['case.json: entry 2 was changed after it was written (vehicle-checked, by Ana)']
		});
		expect((await run(path)).out).toMatch(/changed in one place\n {2}case\.json: entry 2/);
	});

	it('what is no bundle, or not there, is said and ends with 1; without a file it is wrong usage', async () => {
		const path = join(folder, 'no.zip');
		writeFileSync(path, 'no zip at all');
		expect(await run(path)).toMatchObject({
			status: 1,
			err: expect.stringContaining('expected a case bundle (ZIP)')
		});
		expect(await run(join(folder, 'nowhere.zip'))).toMatchObject({
			status: 1,
			err: expect.stringContaining('there is no such file')
		});
		await expect(check([])).rejects.toThrow(WrongUsage);
		await expect(check([path, path])).rejects.toThrow(WrongUsage);
	});
});
