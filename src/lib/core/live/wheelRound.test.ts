import { describe, expect, it } from 'vitest';
import { WheelRound, type RoundState, type RoundWheel } from './wheelRound';

const pair = (axle: string, driven: boolean): RoundWheel[] => [
	{ channel: `${axle}_left`, driven, mate: `${axle}_right` },
	{ channel: `${axle}_right`, driven, mate: `${axle}_left` }
];
const CAR = [...pair('front', false), ...pair('rear', true)];
const RATE_HZ = 20;

/** A hand at a wheel: runs up, turns, runs down; `spoil` sees what it would read and how long it has been turning. */
class Hand {
	private t = 0;
	state: RoundState;
	constructor(readonly round: WheelRound) {
		this.state = round.state;
	}
	spin(
		channel: string | null,
		forS = 4,
		spoil: (kmh: number, t: number) => number = (kmh) => kmh,
		others = new Map<string, number>()
	) {
		for (let t = 0; t < forS + 1.5; t += 1 / RATE_HZ) {
			const turned = Math.max(0, Math.min(9, t * 8, (forS - t) * 8)) + 0.05 * Math.sin(t * 40);
			const kmh = new Map(CAR.map((wheel) => [wheel.channel, 0]));
			for (const [other, value] of others)
				kmh.set(other, value > 50 ? value : turned > 0.5 ? turned * value : 0);
			if (channel) kmh.set(channel, turned < 0.5 ? 0 : spoil(turned, t));
			this.state = this.round.sample(this.t, kmh);
			this.t += 1 / RATE_HZ;
		}
		return this.state;
	}
	result(channel: string) {
		return this.state.corners.find((corner) => corner.channel === channel);
	}
}
const hand = (mode: 'hand' | 'gear' = 'hand') => new Hand(new WheelRound(CAR, mode));

describe('a round of wheels turned by hand', () => {
	it('notices which wheel turns, asks for the next, and ends', () => {
		const one = hand();
		expect(one.state.ask).toBe('front_left');
		one.spin('front_left');
		expect(one.state).toMatchObject({ ask: 'front_right', turning: null });
		// In another order than asked: it is ticked off all the same.
		one.spin('rear_left', 4, undefined, new Map([['rear_right', 1]]));
		expect(one.state.ask).toBe('front_right');
		one.spin('front_right');
		one.spin('rear_right', 4, undefined, new Map([['rear_left', 1]]));
		expect(one.state.ask).toBeNull();
		expect(one.state.corners.map(({ result }) => result)).toEqual([
			'answers',
			'answers',
			'turns-mate',
			'turns-mate'
		]);
		expect(one.result('front_left')?.topKmh).toBeCloseTo(9, 0);
	});

	it('hears a signal that drops out while the wheel turns', () => {
		const one = hand();
		one.spin('front_left', 5, (kmh, t) => (t % 1 < 0.15 ? 0 : kmh));
		expect(one.result('front_left')).toMatchObject({ result: 'erratic' });
	});

	it('never takes a wheel for dead by its silence, however long: only when somebody says that it was turned', () => {
		const one = hand();
		one.spin(null, 13);
		expect(one.state.ask).toBe('front_right');
		for (const wheel of ['front_right', 'rear_left', 'rear_right']) one.spin(wheel);
		expect(one.state.ask).toBe('front_left');
		one.spin(null, 120);
		expect(one.result('front_left')?.result).toBeNull();
		expect(one.state.silent).toEqual(['front_left']);
		one.state = one.round.notTurned('front_left');
		expect(one.state).toMatchObject({ ask: 'front_left', silent: [] });
		one.spin(null, 13);
		one.state = one.round.turnedInVain('front_left');
		expect(one.result('front_left')).toMatchObject({ result: 'dead' });
		expect(one.state.ask).toBeNull();
		// Of a wheel that nobody asked about nothing is said.
		one.state = one.round.turnedInVain('front_right');
		expect(one.result('front_right')).toMatchObject({ result: 'answers' });
		// Turned again, it is judged again.
		one.spin('front_left');
		expect(one.result('front_left')).toMatchObject({ result: 'answers' });
	});

	it('a sensor that begins to read late is weaker than its mate', () => {
		const one = hand();
		one.spin('front_left');
		one.spin('front_right', 4, (kmh) => (kmh < 6 ? 0 : kmh));
		expect(one.result('front_right')).toMatchObject({ result: 'weaker' });
	});

	it('says when a reading cannot be trusted: not available, frozen, too slow', () => {
		const one = hand();
		one.spin('front_left', 2, undefined, new Map([['rear_right', 655.35]]));
		expect(one.state.warning).toMatch(/save and clear/);
		expect(one.result('rear_right')).toMatchObject({ result: 'not-trusted' });
		const frozen = new WheelRound(CAR, 'hand');
		let state = frozen.state;
		for (let t = 0; t < 5; t += 0.05) state = frozen.sample(t, new Map([['rear_left', 12.34]]));
		expect(state.warning).toMatch(/does not change/);
		const slow = new WheelRound(CAR, 'hand');
		for (let t = 0; t < 5; t += 0.5) state = slow.sample(t, new Map([['rear_left', 0]]));
		expect(state.warning).toMatch(/readings a second/);
	});
});

describe('driven in gear on stands', () => {
	it('judges only the driven wheels, each against its mate', () => {
		const round = new WheelRound(CAR, 'gear');
		let state = round.state;
		for (let t = 0; t < 9; t += 0.05) {
			const kmh = t < 1 ? 0 : 6 + 0.03 * Math.sin(t * 50);
			state = round.sample(
				t,
				new Map([
					['rear_left', kmh],
					['rear_right', 0]
				])
			);
		}
		expect(state.corners.map(({ channel, result }) => [channel, result])).toEqual([
			['rear_left', 'answers'],
			['rear_right', 'dead']
		]);
		expect(state.ask).toBeNull();
	});
});
