import { describe, expect, it } from 'vitest';
import { vehicleTypes } from '../../../../library';
import { wheelsTogether } from './wheelsTogether';

const minibus = vehicleTypes.get('brindle-marlow-16');
if (!minibus) throw new Error('no minibus');

describe('wheels that fail at once', () => {
	it('are told with what they share, the cheapest look first, and its minutes', () => {
		const [told] = wheelsTogether(minibus, ['rear-left', 'rear-right']) ?? [];
		expect(told?.title).toBe('Rear left and rear right fail at once: look first at what they share');
		expect(told?.todo).toMatch(/^Look at plug X\d+ \(.+\), \d+ min; then /);
		expect(told?.todo).toContain('the plug of brake control');
	});

	it('leave out what somebody has looked at, until nothing is left of it', () => {
		const looked = new Set(['shared-plug@X20', 'shared-plug@X3']);
		expect(wheelsTogether(minibus, ['rear-left', 'rear-right'], looked)?.[0].todo).not.toContain('plug X');
		const all = new Set([
			...looked,
			'module-plug@brake',
			'meter:module-supply@brake',
			'meter:ground-drop@brake'
		]);
		expect(wheelsTogether(minibus, ['rear-left', 'rear-right'], all)).toBeNull();
		expect(wheelsTogether(minibus, ['rear-left'])).toBeNull();
	});
});
