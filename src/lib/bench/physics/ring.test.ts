import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
	cover,
	crack,
	dropTooth,
	fieldOf,
	gapAt,
	Rotor,
	soundRing,
	spacingLoss,
	toothFrequencyHz,
	type Ring
} from './ring';

/** Turns a ring at a speed in steps of 10 ms and gathers the times of all pulses that were the last in their step. */
function turn(ring: Ring, mps: number, seconds: number, need = 0.01) {
	const rotor = new Rotor(0.37);
	let pulses = 0;
	const steps: number[] = [];
	for (let i = 0; i < seconds * 100; i++) {
		const passing = rotor.step(ring, mps, 2, need, i / 100, 0.01);
		pulses += passing.pulses;
		steps.push(passing.pulses);
	}
	return { pulses, steps };
}

describe('a turning ring', () => {
	it('gives N·v/C pulses a second', () => {
		expect(toothFrequencyHz(46, 10, 2)).toBe(230);
		expect(turn(soundRing(46, 1), 10, 10).pulses / 10).toBeCloseTo(230, 0);
	});

	it('counts the same whether teeth are looked at one by one or all at once, forwards or backwards', () => {
		fc.assert(
			fc.property(
				fc.double({ min: -40, max: 40, noNaN: true }),
				fc.integer({ min: 20, max: 96 }),
				(mps, teeth) => {
					const slow = soundRing(teeth, 1);
					slow.uniform = false;
					expect(turn(slow, mps, 1).steps).toEqual(turn(soundRing(teeth, 1), mps, 1).steps);
				}
			),
			{ numRuns: 60 }
		);
	});

	it('loses one pulse a turn for each tooth that is gone', () => {
		const ring = soundRing(40, 1);
		dropTooth(ring, 7);
		dropTooth(ring, 20);
		// 100 turns at 2 m each.
		expect(turn(ring, 20, 10).pulses).toBe(38 * 100);
	});

	it('a crack keeps the count and widens one gap', () => {
		const ring = soundRing(40, 1);
		crack(ring, 10, 0.8);
		expect(turn(ring, 20, 10).pulses).toBe(4000);
		const gaps = [...ring.at].map((at, i) => (ring.at[(i + 1) % 40] ?? 0) + (i === 39 ? 1 : 0) - at);
		expect(Math.max(...gaps) / Math.min(...gaps)).toBeCloseTo(1.8, 9);
		expect(gaps.reduce((a, b) => a + b)).toBeCloseTo(1, 9);
	});

	it('the moment of the last pulse lies where the tooth passes', () => {
		const rotor = new Rotor(0);
		const ring = soundRing(10, 1);
		// 0.15 turns in one step: the tooth at 0.1 passed after two thirds of it.
		expect(rotor.step(ring, 0.15 * 2, 2, 0.01, 0, 1)).toEqual({
			pulses: 1,
			lastAgoS: expect.closeTo(1 / 3, 9)
		});
	});

	it('a ring that turns on its seat loses its share', () => {
		const ring = soundRing(40, 1);
		ring.creep = 0.1;
		expect(turn(ring, 20, 10).pulses).toBe(3600);
	});
});

describe('the field at the sensor', () => {
	it('falls by 54.6 dB for each pitch of gap', () => {
		const pitchMm = (2 * Math.PI * 45) / 46;
		expect(20 * Math.log10(spacingLoss(pitchMm, 46))).toBeCloseTo(-54.6, 1);
	});

	it('swells once a turn with run-out', () => {
		const ring = soundRing(46, 1);
		ring.runOutMm = 0.3;
		const pitchMm = (2 * Math.PI * 45) / 46;
		expect(fieldOf(ring, 23, 5, 0) / fieldOf(ring, 0, 5, 0)).toBeCloseTo(
			Math.exp((2 * Math.PI * 0.6) / pitchMm),
			9
		);
	});

	it('a loose ring opens the gap with the square of speed', () => {
		const ring = soundRing(46, 1);
		ring.wobbleMmAt100 = 4;
		const worst = (kmh: number) =>
			Math.max(...Array.from({ length: 200 }, (_, i) => gapAt(ring, 0, kmh / 3.6, i / 100)));
		expect(worst(50) - 1).toBeCloseTo(1, 2);
		expect(worst(100) - 1).toBeCloseTo(4, 1);
	});

	it('dust covers an arc and nothing else', () => {
		const ring = soundRing(40, 1);
		cover(ring, 0.89, 0.2, 0.1);
		expect([...ring.strength].filter((s) => s < 1)).toHaveLength(8);
	});
});
