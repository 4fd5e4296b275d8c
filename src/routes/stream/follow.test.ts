import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { pino } from 'pino';
import { inlineWork } from '$lib/server/heavy/inline';
import { Outlooks } from '$lib/server/jobs/outlooks';
import { openTestShop, put, type TestShop } from '$lib/server/shop.fixture';
import { followCase } from './follow';

let shop: TestShop;
beforeEach(async () => (shop = await openTestShop()));
afterEach(() => shop.close());

const nothingRuns = { watch: () => () => undefined, status: () => null };

describe('what follows a case', () => {
	it('hears at once of a next step that was worked out before it listened', async () => {
		await put(shop, 'complaint', { words: 'Lamp on', symptoms: [], conditions: [] });
		const outlooks = new Outlooks(shop.db, pino({ enabled: false }), inlineWork(shop));
		const stamp = await new Promise((resolve) => {
			outlooks.listen(shop.caseId, resolve);
			outlooks.later(shop.caseId);
		});
		const send = vi.fn();
		const services = { threads: shop.threads, vehicleJobs: nothingRuns, outlooks } as never;
		const stop = await followCase(services, shop.caseId, send);
		expect(send.mock.calls).toEqual([
			['head', 1],
			['next', stamp],
			['job', null]
		]);
		stop();
	});
});
