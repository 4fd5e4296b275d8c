import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { vehicleTypes } from '../../../library';
import { Motion, slipFor, wheelSpeedMps } from './motion';

const type = vehicleTypes.get('brindle-marlow-16')!;
const STEP_S = 0.01;
const run = (motion: Motion, seconds: number) => {
	for (let i = 0; i < Math.round(seconds / STEP_S); i++) motion.step(STEP_S);
	return motion;
};
const driving = (legs: Parameters<Motion['drive']>[0]) => {
	const motion = new Motion(type, 0);
	motion.drive(legs);
	return motion;
};

describe('turning', () => {
	it('rear wheels run on R ∓ t/2, steered ones on √((R ∓ t/2)² + L²)', () => {
		const [v, R, L, t] = [8, 20, 3.66, 1.72];
		const speed = (x: number, y: number, steered: boolean) =>
			wheelSpeedMps({ xM: x, yM: y, steered }, v, v / R);
		expect(speed(0, t / 2, false) / v).toBeCloseTo((R - t / 2) / R, 9);
		expect(speed(0, -t / 2, false) / v).toBeCloseTo((R + t / 2) / R, 9);
		expect(speed(L, t / 2, true) / v).toBeCloseTo(Math.hypot(R - t / 2, L) / R, 9);
	});

	it('left and right of an axle differ by yaw rate times track', () => {
		fc.assert(
			fc.property(
				fc.double({ min: 1, max: 40, noNaN: true }),
				fc.double({ min: -0.5, max: 0.5, noNaN: true }),
				(v, r) => {
					const right = wheelSpeedMps({ xM: 0, yM: -0.86, steered: false }, v, r);
					const left = wheelSpeedMps({ xM: 0, yM: 0.86, steered: false }, v, r);
					expect(right - left).toBeCloseTo(r * 1.72, 9);
				}
			)
		);
	});

	it('a slow steady turn has the radius L / tan δ', () => {
		const motion = run(
			driving([
				{ toKmh: 10, overS: 0.01 },
				{ toKmh: 10, overS: 30, steeringDeg: 175 }
			]),
			10
		);
		const radius = motion.speedMps / motion.yawRadps;
		expect(radius).toBeCloseTo(3.66 / Math.tan((10 * Math.PI) / 180), 0);
	});

	it('never turns faster than the grip allows', () => {
		const motion = run(
			driving([
				{ toKmh: 80, overS: 5, grip: 0.15 },
				{ toKmh: 80, overS: 20, steeringDeg: 300 }
			]),
			20
		);
		expect(Math.abs(motion.lateralG)).toBeLessThanOrEqual(0.15 + 1e-9);
	});
});

describe('slip', () => {
	it('grows with the grip used and stays small in everyday driving', () => {
		expect(slipFor(0)).toBe(0);
		expect(slipFor(0.1)).toBeLessThan(0.005);
		expect(slipFor(1)).toBeGreaterThan(slipFor(0.5));
	});

	it('under drive only the driven wheels run ahead; under braking all fall behind', () => {
		const pulling = run(driving([{ toKmh: 60, overS: 8 }]), 4);
		const [fl, , rl] = pulling.wheelMps;
		expect(rl).toBeGreaterThan(pulling.speedMps);
		expect(fl).toBeCloseTo(pulling.speedMps, 9);
		const braking = run(
			driving([
				{ toKmh: 60, overS: 0.01 },
				{ toKmh: 0, overS: 5 }
			]),
			2
		);
		for (const wheel of braking.wheelMps) expect(wheel).toBeLessThan(braking.speedMps);
		expect(braking.pedal).toBe(true);
		expect(braking.brakeBar).toBeCloseTo((60 / 3.6 / 5 / 9.81) * 110, 0);
	});
});

describe('on stands', () => {
	it('a driven wheel turned by hand turns its mate backwards, an undriven one does not', () => {
		const motion = new Motion(type, 0);
		expect(motion.spin(2, 12)).toBe(true);
		expect([...run(motion, 2).wheelMps].map((v) => v * 3.6)).toEqual(
			[0, 0, 12, -12].map((v) => expect.closeTo(v, 6))
		);
		motion.spin(0, 9);
		expect([...run(motion, 2).wheelMps].map((v) => v * 3.6)).toEqual(
			[9, 0, 0, 0].map((v) => expect.closeTo(v, 6))
		);
		expect(motion.odometerM).toBe(0);
	});

	it('in gear only the driven wheels turn, and the vehicle stays where it is', () => {
		const motion = new Motion(type, 0);
		motion.runInGear(10);
		expect([...run(motion, 2).wheelMps].map((v) => Math.round(v * 36) / 10)).toEqual([0, 0, 10, 10]);
		expect(motion.speedMps).toBe(0);
	});

	it('hands keep off a vehicle that drives', () => {
		const motion = run(driving([{ toKmh: 20, overS: 5 }]), 1);
		expect(motion.spin(0, 10)).toBe(false);
		expect(motion.runInGear(10)).toBe(false);
	});
});

it('the odometer is the integral of speed', () => {
	const motion = run(
		driving([
			{ toKmh: 72, overS: 10 },
			{ toKmh: 72, overS: 20 }
		]),
		30
	);
	expect(motion.odometerM).toBeCloseTo(100 + 400, 0);
});
