import { describe, expect, it } from 'vitest';
import { Estimate } from '../entries/estimate/payload';
import { standing } from '../thread/thread';
import { ThreadMaker } from '../thread/threads.fixture';
import { estimateStart, type CostedWay } from './estimateStart';

const WAY: CostedWay = {
	kind: 'renew-sensor',
	place: 'rear-left',
	name: 'renew the sensor, rear left',
	part: true,
	minutesNow: 24.6,
	price: 64.9,
	after: [{ name: 'Sensor learning', minutes: 10 }]
};
const step = (how: 'done' | 'skipped', minutes: number | null) => ({
	test: null,
	place: 'rear-left',
	name: 'a look',
	station: 'measure' as const,
	from: 'own' as const,
	how,
	seen: {},
	because: '',
	minutes
});

describe('what an estimate begins with', () => {
	it('is the finding as far as it was timed, the way with its part, and what it calls for', () => {
		const maker = new ThreadMaker();
		maker.add('test-step', step('done', 12.4));
		maker.add('test-step', step('done', null));
		maker.add('test-step', step('skipped', 30));
		const lines = estimateStart(standing(maker.thread), WAY, 2);
		const repair = { kind: 'renew-sensor', place: 'rear-left' };
		expect(lines).toEqual([
			{ what: 'Finding the fault, as done so far', minutes: 12 },
			{ what: 'Renew the sensor, rear left', minutes: 25, repair },
			{ what: 'Part for it: renew the sensor, rear left', amount: 6490, repair },
			{ what: 'Sensor learning', minutes: 10 }
		]);
		const terms = { currency: 'EUR', ratePerHour: 8900, taxBasisPoints: 2100 };
		expect(Estimate.safeParse({ ...terms, lines, note: '' }).success).toBe(true);
	});

	it('has no line for a part that costs nothing, and none at all where nothing is chosen', () => {
		expect(estimateStart([], { ...WAY, price: 0, after: [] }, 2)).toHaveLength(1);
		expect(estimateStart([], null, 2)).toEqual([]);
		// Yen have no smaller part.
		expect(estimateStart([], { ...WAY, price: 7300 }, 0)[1]).toMatchObject({ amount: 7300 });
	});
});
