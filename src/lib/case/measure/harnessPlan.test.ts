import { describe, expect, it } from 'vitest';
import { vehicleTypes } from '../../../../library';
import { nodeOf, wheelReaderOf, wirePath } from '../../../../library/measurePoints';
import { foundAt, planSearch, readsAs, searchOf } from './harnessPlan';
import { OVER_RANGE } from './reading';
import { judgeLevel, judgeSubstitution, upperLevelVolts } from './substituteJudgement';
import { substituteMethods } from '../../../../library/measure';

const type = vehicleTypes.get('norvane-lichen');
if (!type) throw new Error('no norvane-lichen');
const feed = wirePath(type, 'rear-left', 'feed');

describe('a wire as a search sees it', () => {
	it('is walked from the module for the feed, from the wheel for the signal that a substitute makes', () => {
		expect(searchOf(feed, 'feed', 'open').places[0]?.node).toBe('brake.15');
		const signal = wirePath(type, 'rear-left', 'signal');
		expect(searchOf(signal, 'signal', 'open').places[0]?.node).toBe('rear-left.2');
		expect(searchOf(signal, 'signal', 'short').places[0]?.node).toBe('brake.16');
	});

	it('gives a contact more than a short wire, and the moving end most', () => {
		const { places, weights } = searchOf(feed, 'feed', 'open');
		const at = (node: string) => weights[places.findIndex((place) => place.node === node)] ?? 0;
		// 0.9 m at the wheel, against 0.8 m behind the dashboard and the contacts of a plug.
		expect(at('X21.1:b')).toBeGreaterThan(at('X20.1:a'));
		expect(at('X20.1:a')).toBeGreaterThan(at('brake.15:w'));
	});

	it('divides a short at plugs only', () => {
		const { points } = searchOf(feed, 'feed', 'short');
		expect(points.filter(({ probed }) => probed).map(({ id }) => id)).toEqual([
			'X3.5:a',
			'X20.1:a',
			'X21.1:a'
		]);
	});

	it('avoids the buried module while something nearer tells as much', () => {
		const plan = planSearch(feed, 'feed', 'open', {}, []);
		expect(plan.next[0]?.point).toMatch(/^X21/);
		expect(plan.next.at(-1)?.point).toBe('brake.15:w');
	});

	it('is found in a plug, or in a wire with its colour', () => {
		expect(foundAt(feed, ['X20.1:a', 'X20.1:b']).says).toContain(
			'in the plug itself: X20, under the left sill trim'
		);
		expect(foundAt(feed, ['X21.1:b', 'rear-left.1:w'])).toEqual({
			says: 'The fault is in the orange wire between plug X21, wheel side and wire at the sensor’s plug.',
			todo: 'Repair the lead there, or renew it.',
			implicates: ['harness']
		});
		// Nobody has told its colour.
		const untold = feed.map((place) => ({ ...place, colour: null }));
		expect(foundAt(untold, ['X21.1:b', 'rear-left.1:w']).says).toMatch(/^The fault is in the wire between/);
		expect(foundAt(feed, ['rear-left.1:w', 'rear-left.1']).implicates).toEqual(['sensor-connector']);
		expect(foundAt(feed, ['brake.15', 'brake.15:w']).implicates).toEqual(['module-connector']);
	});
});

describe('what a reading at a place means', () => {
	it.each([
		['open', 12.0, 12.1, 'good'],
		['open', 0.1, 12.1, 'bad'],
		['open', 7, 12.1, null],
		['resistance', 12.0, 12.1, 'good'],
		['resistance', 8, 12.1, 'bad'],
		['resistance', 11.3, 12.1, null],
		['short', 0.4, 0, 'bad'],
		['short', OVER_RANGE, 0, 'good'],
		['short', 20_000, 0, null],
		['open', null, 12.1, null]
	] as const)('%s: %s of %s is %s', (fault, value, fed, reads) => {
		expect(readsAs(fault, value, fed)).toBe(reads);
	});
});

describe('a signal in place of the sensor’s', () => {
	const method = (id: string) => {
		const found = substituteMethods.find((one) => one.id === id);
		if (!found) throw new Error(`no ${id}`);
		return found;
	};

	it('that is followed proves the way to the module and leaves the wheel', () => {
		const said = judgeSubstitution(method('generator-current'), 20, { low: 19.8, high: 20.3 }, false);
		expect(said).toMatchObject({ outcome: 'follows', implicates: ['ring', 'gap', 'sensor'] });
		expect(said?.proves).toContain('module-input');
	});

	it('made with the sensor itself proves the sensor too', () => {
		const said = judgeSubstitution(method('steel'), 0, { low: 0, high: 4 }, false);
		expect(said?.proves).toContain('sensor');
		expect(said?.implicates).toEqual(['ring', 'gap']);
	});

	it('that shows another speed points at the coding, one that comes and goes at a contact', () => {
		expect(
			judgeSubstitution(method('generator-current'), 20, { low: 22, high: 22.4 }, false)?.implicates
		).toEqual(['configuration']);
		const unsteady = judgeSubstitution(method('generator-current'), 20, { low: 0, high: 20 }, false);
		expect(unsteady?.outcome).toBe('not-steady');
		expect(unsteady?.implicates).not.toContain('module-input');
		expect(judgeSubstitution(method('mate'), 12, null, true)?.proves).toEqual([]);
	});

	it('condemns nothing while the module shows no value: a hard fault freezes it until the code is cleared', () => {
		expect(judgeSubstitution(method('generator-current'), 20, null, false)).toBeNull();
		expect(judgeSubstitution(method('generator-current'), 20, null, true)?.outcome).toBe('nothing');
		expect(judgeSubstitution(method('generator-current'), 20, { low: 0, high: 0 }, false)?.outcome).toBe(
			'nothing'
		);
	});

	it('made by a resistor is a level: 14 mA through 115 Ω are 1.61 V', () => {
		expect(upperLevelVolts(115)).toBeCloseTo(1.61, 9);
		expect(judgeLevel(method('resistor'), 1.6, 115).outcome).toBe('follows');
		expect(judgeLevel(method('resistor'), 0.02, 115).outcome).toBe('nothing');
	});

	it('is offered gently first, and never by a lamp to a current loop', () => {
		const order = substituteMethods.map(({ gentle }) => gentle);
		expect(order).toEqual([...order].sort((a, b) => a - b));
		expect(method('lamp').unsuited.find(({ families }) => families.includes('two-wire'))?.can).toBe('harm');
	});
});

describe('points of a vehicle', () => {
	it.each([...vehicleTypes.values()].map((one) => [one.id, one] as const))(
		'%s: the reader’s pins and both wires of every wheel are found',
		(_, one) => {
			expect(wheelReaderOf(one)).not.toBeNull();
			for (const { position } of one.wheels) {
				for (const point of [
					'module:feed',
					'module:signal',
					'reader:supply',
					'reader:ground',
					...(one.tells === 'link' ? (['bus:high'] as const) : [])
				] as const)
					expect(nodeOf(one, position, point), `${position} ${point}`).toMatch(/\.\d+$/);
				for (const wire of ['feed', 'signal'] as const)
					expect(wirePath(one, position, wire).length, `${position} ${wire}`).toBeGreaterThanOrEqual(4);
			}
		}
	);
});
