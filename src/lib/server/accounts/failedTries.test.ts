import { describe, expect, it } from 'vitest';
import { FailedTries } from './failedTries';

const tries = () => {
	let now = 0;
	const one = new FailedTries(() => now);
	return { one, later: (ms: number) => (now += ms) };
};

describe('tries to sign in that failed', () => {
	it('slow down one place, and one account from many places', () => {
		const { one } = tries();
		for (let i = 0; i < 8; i++) one.failedOnce('here', `person ${i}`);
		expect(one.waitS('here', 'somebody else')).toBeGreaterThan(0);
		expect(one.waitS('elsewhere', 'somebody else')).toBe(0);
		for (let i = 0; i < 8; i++) one.failedOnce(`place ${i}`, 'marit');
		expect(one.waitS('far away', 'marit')).toBeGreaterThan(0);
	});

	it('are forgotten after a minute', () => {
		const { one, later } = tries();
		for (let i = 0; i < 20; i++) one.failedOnce('here', 'marit');
		expect(one.waitS('here', 'marit')).toBe(60);
		later(59_000);
		expect(one.waitS('here', 'marit')).toBe(1);
		later(1_000);
		expect(one.waitS('here', 'marit')).toBe(0);
	});

	it('leave whoever signs in rightly alone: a shop of fifty behind one address comes in', () => {
		const { one } = tries();
		for (let i = 0; i < 50; i++) {
			expect(one.waitS('shop', `person ${i}`)).toBe(0);
			one.succeeded(`person ${i}`);
		}
		for (let i = 0; i < 7; i++) one.failedOnce(`p${i}`, 'ana');
		one.succeeded('ana');
		one.failedOnce('p9', 'ana');
		expect(one.waitS('p9', 'ana')).toBe(0);
	});
});
