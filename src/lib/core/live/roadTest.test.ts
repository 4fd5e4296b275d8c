import { describe, expect, it } from 'vitest';
import { planRoadTest, RoadProgress, type RoadReasons, type Showing } from './roadTest';

const FOUR = ['front_left', 'front_right', 'rear_left', 'rear_right'];
const reasons = (change: Partial<RoadReasons> = {}): RoadReasons => ({
	tests: [],
	shows: new Set<Showing>(),
	wheels: FOUR,
	...change
});
const ids = (change: Partial<RoadReasons>) => planRoadTest(reasons(change)).map(({ id }) => id);

/** A drive at 10 Hz by legs of seconds and speed; `turn` is how much slower the left wheels are. */
function driven(progress: RoadProgress, legs: { forS: number; kmh: number; turn?: number }[]) {
	let t = 0;
	for (const { forS, kmh, turn = 0 } of legs) {
		for (let s = 0; s < forS; s += 0.1) {
			progress.sample(
				t,
				new Map(FOUR.map((wheel) => [wheel, kmh * (1 + (wheel.endsWith('left') ? -turn : turn))]))
			);
			t += 0.1;
		}
	}
	return Object.fromEntries(progress.progress.map(({ id, done }) => [id, done]));
}

describe('a road test', () => {
	it('is planned from the codes’ tests and from what the customer says', () => {
		expect(ids({})).toEqual(['starts', 'even', 'left', 'right']);
		expect(ids({ shows: new Set<Showing>(['fast', 'wet']) })).toEqual(
			expect.arrayContaining(['fast', 'wet'])
		);
		expect(ids({ shows: new Set<Showing>(['slow', 'turning']) })).not.toContain('fast');
		const test = planRoadTest(
			reasons({
				tests: [
					{
						text: 'C0040-2F',
						words: 'vehicle speed above 20 km/h',
						condition: {
							kind: 'compare',
							left: { kind: 'signal', signal: 'vehicle' },
							is: 'above',
							right: { kind: 'value', value: 20 },
							hysteresis: 0
						}
					}
				]
			})
		).at(-1);
		expect(test).toMatchObject({ id: 'test C0040-2F', says: 'Vehicle speed above 20 km/h.' });
	});

	it('is covered leg by leg, each only by what it asks for', () => {
		const progress = new RoadProgress(planRoadTest(reasons()));
		expect(driven(progress, [{ forS: 40, kmh: 50 }])).toEqual({ starts: 0, even: 1, left: 0, right: 0 });
		const more = driven(progress, [{ forS: 5, kmh: 20, turn: 0.05 }]);
		expect(more).toMatchObject({ left: 1, right: 0 });
		driven(progress, [{ forS: 5, kmh: 20, turn: -0.05 }]);
		const stops = Array.from({ length: 6 }, () => [
			{ forS: 1, kmh: 0 },
			{ forS: 2, kmh: 8 }
		]).flat();
		expect(driven(progress, stops).starts).toBe(1);
		expect(progress.progress.every(({ done }) => done >= 1)).toBe(true);
	});

	it('half of the time asked for is half covered', () => {
		const progress = new RoadProgress(planRoadTest(reasons()));
		expect(driven(progress, [{ forS: 15, kmh: 50 }]).even).toBeCloseTo(0.5, 1);
	});

	it('says which signals are missing to tell', () => {
		const plan = planRoadTest(
			reasons({
				tests: [
					{
						text: 'C0051-54',
						words: 'steering',
						condition: {
							kind: 'compare',
							left: { kind: 'signal', signal: 'steering' },
							is: 'above',
							right: { kind: 'value', value: 90 },
							hysteresis: 0
						}
					}
				]
			})
		);
		const progress = new RoadProgress(plan);
		driven(progress, [{ forS: 1, kmh: 10 }]);
		expect(progress.progress.at(-1)?.missing).toEqual(['steering']);
	});
});
