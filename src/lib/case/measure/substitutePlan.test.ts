import { describe, expect, it } from 'vitest';
import { substituteMethods, type SubstituteMethod } from '../../../../library/measure';
import { Substitution } from '../entries/substitution/payload';
import { aimOf, judgeSeen, openedBy, substitutionOf, type SubstituteSeen } from './substitutePlan';

const wheel = { teeth: 48, circumferenceM: 1.93, senseResistorOhms: 115 };
const method = (expects: SubstituteMethod['expects']): SubstituteMethod => {
	const found = substituteMethods.find((one) => one.expects === expects);
	if (!found) throw new Error(expects);
	return found;
};
const unseen: SubstituteSeen = { kmh: null, watched: false, volts: null, clearedSince: false };

describe('a signal in place of the sensor', () => {
	it('is aimed at a speed by the ring, at a level by the resistor', () => {
		// 48 teeth at 30 km/h on 1.93 m: 48 · 8.333 / 1.93.
		expect(aimOf(method('speed'), 30, wheel).hertz).toBeCloseTo(207.25, 2);
		// 12.1 V / 14 mA − 115 Ω.
		expect(aimOf(method('level'), 30, wheel)).toEqual({ expectedKmh: 0, hertz: null, ohms: 749 });
		expect(aimOf(method('something'), 30, wheel).expectedKmh).toBe(0);
	});

	it('has no aim where the ring or the resistor is not known', () => {
		const unknown = { teeth: null, circumferenceM: null, senseResistorOhms: null };
		expect(aimOf(method('speed'), 30, unknown)).toEqual({ expectedKmh: 30, hertz: null, ohms: null });
		expect(aimOf(method('level'), 30, unknown).ohms).toBeNull();
	});

	it('is judged by what was seen, and not before anybody has looked', () => {
		const [speed, level] = [method('speed'), method('level')];
		const aim = aimOf(speed, 30, wheel);
		expect(judgeSeen(speed, aim, unseen, 115)).toBeNull();
		const kmh = { low: 29.8, high: 30.2 };
		expect(judgeSeen(speed, aim, { ...unseen, kmh, watched: true }, 115)?.outcome).toBe('follows');
		// No value after a hard fault means nothing until the code was cleared with the signal on.
		expect(judgeSeen(speed, aim, { ...unseen, watched: true }, 115)).toBeNull();
		expect(judgeSeen(speed, aim, { ...unseen, watched: true, clearedSince: true }, 115)?.outcome).toBe(
			'nothing'
		);
		// 14 mA through 115 Ω stands at 1.61 V.
		expect(judgeSeen(level, aim, { ...unseen, volts: 1.6 }, 115)?.outcome).toBe('follows');
		expect(judgeSeen(level, aim, { ...unseen, volts: 0.8 }, 115)?.outcome).toBe('nothing');
		expect(judgeSeen(level, aim, { ...unseen, volts: 1.6 }, null)).toBeNull();
	});

	it('opens the plugs that its codes are laid at', () => {
		expect(openedBy('steel', 'rear-left', 'rear-right')).toEqual([]);
		expect(openedBy('mate', 'rear-left', 'rear-right')).toEqual(['rear-left', 'rear-right']);
		expect(openedBy('resistor', 'rear-left', 'rear-right')).toEqual(['rear-left']);
	});

	it.each(substituteMethods.map((one) => [one.id, one] as const))('%s becomes an entry', (_, one) => {
		const aim = aimOf(one, 30, wheel);
		const seen = { ...unseen, kmh: { low: 30, high: 30 }, watched: true, volts: 1.6 };
		const said = judgeSeen(one, aim, seen, 115);
		if (!said) throw new Error('not judged');
		const entry = substitutionOf(one, { at: 'rear-left', mate: 'rear-right' }, aim, seen, said);
		expect(Substitution.parse(entry)).toEqual(entry);
		expect(entry.seenKmh === null).toBe(one.expects === 'level');
	});
});
