import { describe, expect, it } from 'vitest';
import { vehicleTypes } from './index';
import { bleedOrder, fittingCaution, fittingSheets, sheetFor } from './fittingSheets';

describe('fitting sheets', () => {
	it('say something at every caution, and name no step twice', () => {
		for (const { id, cautions, steps } of fittingSheets.values()) {
			for (const caution of cautions) expect(fittingCaution(caution), `${id} ${caution}`).not.toBe('');
			expect(new Set(steps.map((step) => step.id)).size, id).toBe(steps.length);
		}
	});

	it('belong to repairs, and hydraulics warn of pressure and fluid', () => {
		expect(sheetFor('renew-hub')?.id).toBe('hub');
		expect(sheetFor('renew-module')?.id).toBe('module');
		expect(sheetFor('inflate-tyre')).toBeNull();
		expect(fittingSheets.get('hydraulics')?.cautions).toEqual(
			expect.arrayContaining(['pressure', 'fluid', 'gas'])
		);
	});

	it.each([
		['brindle-marlow-16', 'rear-right rear-left front-right front-left'],
		['hexley-drover', 'axle2-right axle2-left axle1-right axle1-left']
	])('%s is bled with the farthest wheel first', (id, order) => {
		const type = vehicleTypes.get(id);
		expect(type && bleedOrder(type).join(' ')).toBe(order);
	});
});
