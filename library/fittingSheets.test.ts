import { describe, expect, it } from 'vitest';
import { vehicleTypes } from './index';
import { exposedBySheet } from './exposedBySteps';
import { bleedOrder, fittingSheets, sheetFor, sheetOn } from './fittingSheets';
import { cautionsOf } from './safety';

const stepsOf = (id: string) => (fittingSheets.get(id)?.steps ?? []).map((step) => step.id);
const type = (id: string) => {
	const found = vehicleTypes.get(id);
	if (!found) throw new Error(id);
	return found;
};

describe('fitting sheets', () => {
	it('have cautions before the first step, on every vehicle and at every place, and name no step twice', () => {
		for (const sheet of fittingSheets.values())
			for (const vehicle of vehicleTypes.values())
				for (const place of [null, ...vehicle.wheels.map(({ position }) => position)]) {
					const { steps } = sheetOn(sheet, vehicle, place);
					expect(cautionsOf(exposedBySheet(sheet, vehicle, place)), sheet.id).not.toEqual([]);
					expect(new Set(steps.map((step) => step.id)).size, sheet.id).toBe(steps.length);
				}
	});

	it('belong to repairs, each repair to one', () => {
		expect(sheetFor('renew-hub')?.id).toBe('hub');
		expect(sheetFor('renew-module')?.id).toBe('module');
		expect(sheetFor('renew-unit')?.id).toBe('unit');
		expect(sheetFor('inflate-tyre')).toBeNull();
		const all = [...fittingSheets.values()].flatMap(({ repairs }) => repairs);
		expect(new Set(all).size).toBe(all.length);
	});

	it('a hydraulic unit goes through pressure, module, unions, bleeding, leaks and pedal, in that order, before it moves', () => {
		const order = ['discharge', 'plug', 'unions', 'order', 'bleeders', 'firm', 'pedal', 'pedal-first'];
		const steps = stepsOf('unit');
		expect(steps.filter((id) => order.includes(id))).toEqual(order);
		expect(steps.at(-1)).toBe('pedal-first');
		for (const id of [...stepsOf('hydraulics'), ...stepsOf('module')]) expect(steps).toContain(id);
		const cautions = cautionsOf(fittingSheets.get('unit')?.exposes ?? []).map(({ id }) => id);
		expect(cautions).toEqual(expect.arrayContaining(['pressure', 'fluid', 'gas', 'power', 'pedal-first']));
	});

	it('whatever had a caliper, pipe or unit off ends with the pedal, before the vehicle moves', () => {
		const apart = [...fittingSheets.values()].filter(({ exposes }) => exposes.includes('brakes-apart'));
		expect(apart.map(({ id }) => id)).toEqual(expect.arrayContaining(['hub', 'hydraulics', 'unit']));
		for (const { id } of apart) expect(stepsOf(id).at(-1), id).toBe('pedal-first');
		// Nobody bleeds or opens a brake on a sheet that does not say so.
		for (const { steps, exposes, id } of fittingSheets.values())
			if (steps.some((step) => step.do === 'bleed')) expect(exposes, id).toContain('brakes-apart');
	});

	it('a brake that a motor clamps is retracted first and let go last, at its own axle only', () => {
		const hub = fittingSheets.get('hub');
		if (!hub) throw new Error('no sheet');
		const at = (place: string) => sheetOn(hub, type('norvane-heath'), place).steps.map(({ id }) => id);
		expect([at('rear-left')[0], at('rear-left').at(-1)]).toEqual(['service-position', 'service-left']);
		expect(at('front-left')[0]).not.toBe('service-position');
		expect(exposedBySheet(hub, type('norvane-heath'), 'rear-left')).toContain('parking-brake-motor');
		expect(sheetOn(hub, type('norvane-wold'), 'rear-left')).toBe(hub);
	});

	it.each([
		['brindle-marlow-16', 'rear-right rear-left front-right front-left'],
		['hexley-drover', 'axle2-right axle2-left axle1-right axle1-left']
	])('%s is bled with the farthest wheel first', (id, order) => {
		expect(bleedOrder(type(id)).join(' ')).toBe(order);
	});
});
