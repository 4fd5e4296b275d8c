import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { databaseOf } from '../../care/dataFolder';
import { healthOf } from '../db/open';
import { openTestShop, put, type TestShop } from '../shop.fixture';
import { healthOfServer } from './healthOfServer';
import { watchStalls } from './stalls';
import { Metrics, processFigures } from './metrics';
import { Troubles } from './troubles';

let shop: TestShop;
beforeEach(async () => {
	shop = await openTestShop();
});
afterEach(() => shop.close());

describe('a server that is watched', () => {
	it('says its size, its room, and what somebody should do something about', async () => {
		await put(shop, 'note', { text: 'one' });
		const well = await healthOfServer(shop.db, databaseOf(shop.folder));
		expect(well).toMatchObject({ cases: 1, entries: 1 });
		expect(well.database?.bytes).toBeGreaterThan(100_000);
		expect(well.database?.freeBytes).toBeGreaterThan(0);
		healthOf(shop.db).found('full');
		expect((await healthOfServer(shop.db, null)).concerns).toEqual([expect.stringContaining('disk is full')]);
	});

	it('knows how long it stood still, and that a thread that rests does not', async () => {
		const stalls = watchStalls();
		const rest = () => new Promise((resolve) => setTimeout(resolve, 100));
		await rest();
		const before = performance.now();
		while (performance.now() - before < 300);
		await rest();
		expect(stalls.mostMs()).toBeGreaterThan(200);
	});

	it('gives figures that a program reads, by route and never by id', async () => {
		const metrics = new Metrics(
			{ ready: () => false, recordings: () => 3, streams: () => 7 },
			processFigures()
		);
		metrics.answered('/cases/[id]', 'GET', 200, 0.04);
		metrics.answered('/cases/[id]', 'GET', 503, 3);
		metrics.answered(null, 'GET', 404, 0.001);
		metrics.trouble('slow');
		const text = await metrics.text();
		for (const line of [
			'jaldi_process_cpu_seconds_total ',
			'jaldi_ready 0',
			'jaldi_recordings 3',
			'jaldi_streams 7',
			'jaldi_troubles_total{kind="slow"} 1',
			'jaldi_request_seconds_bucket{le="0.05",route="/cases/[id]",method="GET",status="2xx"} 1',
			'jaldi_request_seconds_count{route="/cases/[id]",method="GET",status="5xx"} 1',
			'jaldi_request_seconds_count{route="none",method="GET",status="4xx"} 1'
		])
			expect(text).toContain(line);
	});

	it('remembers what went wrong, newest first, in one line each and not without end', () => {
		const troubles = new Troubles(() => new Date('2026-12-01T10:00:00Z'));
		for (let i = 0; i < 150; i++)
			troubles.add({
				kind: 'server',
				path: '/x',
				text: `number ${i}\n    at somewhere ${'x'.repeat(999)}`,
				username: null,
				requestId: null
			});
		expect(troubles.newest()).toHaveLength(100);
		expect(troubles.newest()[0]?.text).toBe('number 149');
	});
});
