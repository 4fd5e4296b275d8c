import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fromUnit, inUnits, KINDS, quantity, SI, toUnit, UNITS, type Units } from './units';

const OURS: Units = {
	distance: 'mi',
	speed: 'mph',
	pressure: 'psi',
	torque: 'lb·ft',
	temperature: '°F',
	length: 'in'
};

describe('a quantity', () => {
	it.each([
		[100, 'mph', 62.137119],
		[84_210, 'mi', 52_325.668],
		[230, 'psi', 33.358679],
		[230, 'bar', 2.3],
		[120, 'lb·ft', 88.507457],
		[-40, '°F', -40],
		[20, '°F', 68],
		[25.4, 'in', 1]
	])('%f in %s is what tables of conversion say', (kept, unit, shown) => {
		expect(toUnit(kept, unit)).toBeCloseTo(shown, 3);
	});

	it('typed in any unit and shown again is what was typed', () => {
		fc.assert(
			fc.property(
				fc.constantFrom(...KINDS.flatMap((kind) => [...UNITS[kind]])),
				fc.double({ min: -1e6, max: 1e6, noNaN: true }),
				(unit, typed) => {
					expect(toUnit(fromUnit(typed, unit), unit)).toBeCloseTo(typed, 6);
				}
			)
		);
	});

	it('is shown about as fine as it was measured', () => {
		expect(quantity(84_210, 'distance', OURS)).toBe('52,326 mi');
		expect(quantity(230, 'pressure', OURS)).toBe('33.4 psi');
		expect(quantity(230, 'pressure', { ...OURS, pressure: 'bar' })).toBe('2.30 bar');
		expect(quantity(0.8, 'length', OURS, 1)).toBe('0.03 in');
		expect(quantity(0.8, 'length', SI, 1)).toBe('0.8 mm');
	});
});

describe('a sentence in a person’s units', () => {
	it.each([
		['Rear left reads 65 km/h, the others 40 km/h.', 'Rear left reads 40 mph, the others 25 mph.'],
		[
			'Straight and even at 40 to 60 km/h for half a minute.',
			'Straight and even at 25 to 37 mph for half a minute.'
		],
		['between 20 and 40 km/h', 'between 12 and 25 mph'],
		['84,210 km, then 3.5 km more', '52,326 mi, then 2.2 mi more'],
		['Gap 0.8 mm; 230 kPa; coil 1,040 Ω at −10 °C', 'Gap 0.03 in; 33.4 psi; coil 1,040 Ω at 14 °F'],
		['Tighten to 120 N·m (89 lb·ft)', 'Tighten to 120 N·m (89 lb·ft)'],
		['205/55 R16, 48 teeth, 12.1 V, 500 kbit/s', '205/55 R16, 48 teeth, 12.1 V, 500 kbit/s'],
		['C0045-13 km', 'C0045-13 km'],
		['Said: “from 60 km/h on”, heard at 60 km/h', 'Said: “from 60 km/h on”, heard at 37 mph'],
		['3 km/hours', '3 km/hours'],
		['2 kmh', '2 kmh']
	])('%s', (kept, shown) => {
		expect(inUnits(kept, OURS)).toBe(shown);
	});

	it('is the same sentence for whoever reads what is kept', () => {
		fc.assert(fc.property(fc.string(), (text) => inUnits(text, SI) === text));
	});
});
