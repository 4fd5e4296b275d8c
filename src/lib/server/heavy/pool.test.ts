import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { afterAll, afterEach, describe, expect, it } from 'vitest';
import { WorkerPool } from './pool';
import type { HeavyWork } from './tasks';

/** A worker that does as it is told: answers, waits, throws, dies. */
const folder = mkdtempSync(join(tmpdir(), 'jaldi-pool-'));
const file = join(folder, 'worker.mjs');
writeFileSync(
	file,
	`import { parentPort } from 'node:worker_threads';
	let held = null;
	parentPort.on('message', ({ id, input }) => {
		if (input === 'in parts') return (held = id);
		if (input === 'last part') parentPort.postMessage({ id: held, value: 'in parts' });
		if (input === 'die') process.exit(1);
		if (input === 'throw') return parentPort.postMessage({ id, error: 'it threw' });
		if (input === 'hang') { for (;;); }
		parentPort.postMessage({ id, value: input });
	});`
);
afterAll(() => rmSync(folder, { recursive: true }));

let pool: WorkerPool;
let north: HeavyWork;
let south: HeavyWork;
const shop = (name: string) => ({ databaseUrl: name, secret: '', origin: '' });
function open(size = 1): void {
	pool = new WorkerPool(pathToFileURL(file), { behind: 0 }, size);
	[north, south] = [pool.of(shop('north')), pool.of(shop('south'))];
}
const ask = (
	input: string,
	how?: { limitMs?: number; signal?: AbortSignal; patient?: boolean },
	whose = north
) => whose.ask('logHash', input as never, how) as Promise<unknown>;
afterEach(() => pool.close());

describe('heavy work on other threads', () => {
	it('is answered each by its own, and goes on after one that threw or died', async () => {
		open(2);
		const all = await Promise.allSettled(['a', 'throw', 'b', 'die', 'c'].map((input) => ask(input)));
		expect(all.map((one) => (one.status === 'fulfilled' ? one.value : 'failed'))).toEqual([
			'a',
			'failed',
			'b',
			'failed',
			'c'
		]);
		expect(await ask('again')).toBe('again');
	});

	it('is stopped at its time limit, and whoever waits behind it is served', async () => {
		open();
		const stuck = ask('hang', { limitMs: 300 });
		const behind = ask('behind');
		await expect(stuck).rejects.toMatchObject({ busy: true, message: expect.stringContaining('too long') });
		expect(await behind).toBe('behind');
	});

	it('can be cancelled, while it waits and while it runs', async () => {
		open();
		const [first, second] = [new AbortController(), new AbortController()];
		const running = ask('hang', { signal: first.signal });
		const waiting = ask('never', { signal: second.signal });
		second.abort();
		await expect(waiting).rejects.toMatchObject({ busy: true });
		first.abort();
		await expect(running).rejects.toMatchObject({ busy: true });
		expect(await ask('free again')).toBe('free again');
	});

	it('lets what somebody waits for go between the parts of what nobody waits for', async () => {
		open();
		const told: unknown[] = [];
		const done = [
			ask('in parts', { patient: true }),
			ask('later', { patient: true }),
			ask('waited for'),
			ask('last part')
		].map((one) => one.then((value) => told.push(value)));
		await Promise.all(done);
		expect(told).toEqual(['waited for', 'in parts', 'last part', 'later']);
	});

	it('is refused at once when too much waits already', async () => {
		open();
		const first = ask('hang', { limitMs: 1_000 });
		const waiting = Array.from({ length: 32 }, (_, i) => ask(String(i)));
		await expect(ask('one too many')).rejects.toMatchObject({ busy: true });
		await expect(first).rejects.toMatchObject({ busy: true });
		expect(await Promise.all(waiting)).toHaveLength(32);
	});

	it('serves shops in turn, fills no place of one with the work of another, and goes on for those that stay', async () => {
		open();
		const told: unknown[] = [];
		const first = ask('hang', { limitMs: 300 });
		const crowd = Array.from({ length: 32 }, (_, i) => ask(`north ${i}`));
		await expect(ask('one too many')).rejects.toMatchObject({ busy: true });
		const others = ['south 1', 'south 2'].map((input) => ask(input, {}, south));
		for (const one of [...crowd, ...others])
			one.then(
				(value) => told.push(value),
				() => told.push('given up')
			);
		await expect(first).rejects.toMatchObject({ busy: true });
		await Promise.all(others);
		expect(told.slice(0, 3)).toEqual(['south 1', 'north 0', 'south 2']);
		await north.close();
		await Promise.allSettled(crowd);
		expect(told).toContain('given up');
		expect(await ask('stays', {}, south)).toBe('stays');
	});
});
