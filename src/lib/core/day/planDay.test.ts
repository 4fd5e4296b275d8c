import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { planDay, type DayCase } from './planDay';

const takes = (mean: number, spread = 0) => ({ mean, low: mean - spread, high: mean + spread });
const one = (id: string, mean: number | null, more: Partial<DayCase> = {}): DayCase => ({
	id,
	minutes: mean === null ? null : takes(mean),
	with: null,
	rests: false,
	...more
});
const told = (cases: DayCase[], people: string[]) =>
	[...planDay(cases, people)].map(([id, { by, mean }]) => `${id} ${by} ${mean}`);

describe('a day of work', () => {
	it('is one case after the other for one person, and side by side for two', () => {
		const cases = [one('a', 60), one('b', 30), one('c', 20)];
		expect(told(cases, ['ana'])).toEqual(['a ana 60', 'b ana 90', 'c ana 110']);
		expect(told(cases, ['ana', 'teo'])).toEqual(['a ana 60', 'b teo 30', 'c teo 50']);
	});

	it('keeps to whoever has a case, also where they are not among those at work', () => {
		const cases = [one('a', 60), one('b', 30, { with: 'ana' }), one('c', 20, { with: 'marit' })];
		expect(told(cases, ['ana'])).toEqual(['a ana 60', 'c marit 20', 'b ana 90']);
	});

	it('has nobody take what is another’s before their own is done', () => {
		expect(told([one('a', 10, { with: 'teo' }), one('b', 50)], ['ana', 'teo'])).toEqual([
			'b ana 50',
			'a teo 10'
		]);
	});

	it('leaves out what rests and what nobody knows, and plans nothing for nobody', () => {
		expect(told([one('a', 60, { rests: true }), one('b', null), one('c', 5)], ['ana'])).toEqual(['c ana 5']);
		expect(told([one('a', 60)], [])).toEqual([]);
	});

	it('adds spreads as independent times: four alike are twice as wide as one, not four times', () => {
		const four = ['a', 'b', 'c', 'd'].map((id) => ({ ...one(id, 60), minutes: takes(60, 20) }));
		const last = planDay(four, ['ana']).get('d');
		expect(last?.mean).toBe(240);
		expect(last?.high).toBeCloseTo(240 + 2 * 20, 9);
		expect(last?.low).toBeCloseTo(240 - 2 * 20, 9);
	});

	it('plans each once, and ends the day of each person with the sum of what they did', () => {
		const any = fc.array(
			fc.record({
				mean: fc.integer({ min: 1, max: 300 }),
				with: fc.constantFrom(null, 'ana', 'teo'),
				rests: fc.boolean()
			}),
			{ maxLength: 25 }
		);
		fc.assert(
			fc.property(any, (drawn) => {
				const cases = drawn.map(({ mean, ...more }, at) => one(String(at), mean, more));
				const planned = planDay(cases, ['ana', 'teo']);
				expect([...planned.keys()].sort()).toEqual(
					cases
						.filter(({ rests }) => !rests)
						.map(({ id }) => id)
						.sort()
				);
				for (const person of ['ana', 'teo']) {
					const own = cases.filter(({ id }) => planned.get(id)?.by === person);
					const sum = own.reduce((all, { minutes }) => all + (minutes?.mean ?? 0), 0);
					expect(Math.max(0, ...own.map(({ id }) => planned.get(id)?.mean ?? 0))).toBe(sum);
				}
			})
		);
	});
});
