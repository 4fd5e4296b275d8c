import { describe, expect, it } from 'vitest';
import { measurements } from '../../../../library/measure';
import { captureLinks } from './captureLinks';
import { judgeMeasurement, type MeterContext } from './meterJudgement';
import { valueWords, windowWords } from './measureWords';

const measurement = (id: string) => {
	const found = measurements.find((one) => one.id === id);
	if (!found) throw new Error(`no ${id}`);
	return found;
};
const context = (over: Partial<MeterContext> = {}): MeterContext => ({
	family: 'two-wire',
	vehicle: { senseResistorOhms: 115, supplyVolts: 12.5 },
	mate: null,
	shop: [],
	temperatureC: 20,
	openFeedVolts: null,
	...over
});

describe('a meter reading', () => {
	it('says what a good one proves, and proves nothing when it is bad', () => {
		const good = judgeMeasurement(measurement('feed-at-sensor'), 12.1, context());
		expect(good).toMatchObject({
			judged: 'in',
			proves: ['module-supply', 'module-connector'],
			implicates: []
		});
		const bad = judgeMeasurement(measurement('feed-at-sensor'), 0.2, context());
		expect(bad).toMatchObject({
			judged: 'out',
			proves: [],
			implicates: ['harness', 'module-connector', 'module-input']
		});
	});

	it('corrects a coil to 20 °C before it judges: 2600 Ω in the heat are 2247 Ω', () => {
		const hot = context({ family: 'passive', temperatureC: 60 });
		expect(judgeMeasurement(measurement('coil-ohms'), 2600, hot)?.judgedValue).toBeCloseTo(2246.8, 1);
		expect(judgeMeasurement(measurement('coil-ohms'), 2600, hot)?.judged).toBe('in');
		expect(judgeMeasurement(measurement('coil-ohms'), 2600, context({ family: 'passive' }))?.judged).toBe(
			'out'
		);
		expect(judgeMeasurement(measurement('coil-ohms'), Infinity, hot)?.judged).toBe('out');
	});

	it('finds the resistance that hides in a loaded feed', () => {
		const sagging = judgeMeasurement(measurement('feed-loaded'), 9.3, context({ openFeedVolts: 12.1 }));
		expect(sagging?.hiddenOhms).toBeCloseTo(400, 6);
		expect(sagging?.says).toContain('400 Ω hidden');
	});

	it('has no window for a family that must not be measured so', () => {
		expect(judgeMeasurement(measurement('coil-ohms'), 1200, context())).toBeNull();
	});

	it('reads terminators and the coil off their numbers', () => {
		expect(judgeMeasurement(measurement('bus-ohms'), 119, context())?.says).toContain(
			'One terminator is missing'
		);
		const bias = judgeMeasurement(measurement('bias-across'), 0.26, context({ family: 'passive' }));
		expect(bias?.says).toContain('1097 Ω');
	});

	it('every measurement has a window for every family that it names, and only for those', () => {
		for (const { id, families, windows } of measurements)
			expect(Object.keys(windows).sort(), id).toEqual([...families].sort());
	});
});

describe('words for values', () => {
	it.each([
		[0.0123, 'V', '12 mV'],
		[12.13, 'V', '12.1 V'],
		[749.3, 'Ω', '749 Ω'],
		[0.31, 'Ω', '0.310 Ω'],
		[27_000, 'Ω', '27.0 kΩ'],
		[2.7e6, 'Ω', '2.70 MΩ'],
		[null, 'Ω', 'over the range']
	] as const)('%s %s', (value, quantity, words) => expect(valueWords(value, quantity)).toBe(words));

	it('windows without an end say so', () => {
		expect(windowWords({ low: 1e6, high: null }, 'Ω')).toBe('above 1.00 MΩ');
		expect(windowWords({ low: 0, high: 2 }, 'Ω')).toBe('below 2.00 Ω');
		expect(windowWords({ low: 0.644, high: 1.932 }, 'V')).toBe('0.64 V to 1.93 V');
	});
});

describe('what a capture says of the path', () => {
	it('whole at the module it proves everything up to there, at the sensor only what makes the signal', () => {
		expect(captureLinks([], 'module').proves).toContain('harness');
		expect(captureLinks([], 'sensor').proves).toEqual(['ring', 'gap', 'sensor']);
		expect(captureLinks([], 'elsewhere').proves).toEqual([]);
	});

	it('a gap in the ring leaves sensor and harness proven: the signal came through', () => {
		const { proves, implicates } = captureLinks([{ type: 'missing-tooth' }], 'module');
		expect(implicates).toEqual(['ring']);
		expect(proves).toEqual(['sensor', 'sensor-connector', 'harness', 'module-connector']);
	});

	it('a dead line at the sensor does not blame the module’s plug', () => {
		expect(captureLinks([{ type: 'flat' }], 'sensor').implicates).toEqual([
			'ring',
			'gap',
			'sensor',
			'harness'
		]);
		expect(captureLinks([{ type: 'flat' }], 'sensor').proves).toEqual([]);
	});
});
