import { describe, expect, it } from 'vitest';
import { isBadBenchTest } from '../measure/benchTests';
import { suspectCorners } from '../measure/measured';
import { begun, type ProofThread } from '../proof/proof.fixture';
import { drivenKm } from '../proof/drivenKm';
import { standingItems } from '../progress/standingItems';
import { BRAKE, OPEN } from './threads.fixture';
import { inTheWayNow, MODULE, undisturbed } from './inTheWay';
import { standing } from './thread';

/** What can be in the way of the rear left: put there, or taken away again. */
const WAYS = {
	'a signal in place of the sensor': (maker: ProofThread, there: boolean) =>
		maker.add('signal-held', { position: 'rear-left', method: 'resistor', name: 'A resistor', on: there }),
	'another wheel’s sensor': (maker: ProofThread, there: boolean) =>
		maker.add('swap', {
			what: 'sensors',
			position: 'rear-left',
			with: 'rear-right',
			...(there ? { state: 'swapped', outcome: null } : { state: 'back', outcome: 'moved' })
		} as never),
	'another module': (maker: ProofThread, there: boolean) =>
		maker.add('swap', {
			what: 'module',
			position: 'rear-left',
			with: null,
			...(there ? { state: 'swapped', outcome: null } : { state: 'back', outcome: 'stayed' })
		} as never)
};
/** Driven, looked at live and read again without its code. */
const shown = (maker: ProofThread): void => {
	maker
		.drive()
		.recording()
		.scan([[BRAKE, OPEN, 0]]);
};

describe.each(Object.entries(WAYS))('with %s in the way', (_, put) => {
	it('nothing that is read proves a code clear, and the case is not signed until all is back', () => {
		const maker = begun();
		maker.proving();
		put(maker, true);
		shown(maker);
		expect(maker.code.proven).toBe(false);
		expect(maker.code.open.join('\n')).toContain('still in place');
		put(maker, false);
		expect(maker.code.open.join('\n')).not.toContain('still in place');
		expect(maker.code.proven).toBe(false);
		// The same without anything in the way does.
		shown(maker);
		expect(maker.code).toMatchObject({ proven: true, open: [] });
	});

	it('no drive counts, and no finding made meanwhile has to be settled', () => {
		const maker = begun();
		maker.repair().clear();
		put(maker, true);
		maker.drive().dropsOut();
		const entries = standing(maker.thread);
		expect(drivenKm(entries)).toBe(0);
		expect(standingItems(entries).filter(({ subject }) => subject === 'finding')).toEqual([]);
		expect(suspectCorners(entries, [])).toEqual([]);
		expect(undisturbed(entries).length).toBe(entries.length - 2);
		put(maker, false);
		maker.drive().dropsOut();
		expect(drivenKm(standing(maker.thread))).toBe(3);
		expect(suspectCorners(standing(maker.thread), [])).toEqual(['rear-left']);
	});
});

describe('what is in the way now', () => {
	it('is what was put there and not taken away', () => {
		const maker = begun();
		for (const put of Object.values(WAYS)) put(maker, true);
		expect([...inTheWayNow(maker.thread).places].sort()).toEqual([MODULE, 'rear-left', 'rear-right']);
		for (const put of Object.values(WAYS)) put(maker, false);
		expect(inTheWayNow(maker.thread).places.size).toBe(0);
		expect(undisturbed(maker.thread)).toEqual(maker.thread);
	});
});

describe('a capture at rest', () => {
	const capture = (turned?: boolean) =>
		begun().add('scope-capture', {
			name: '',
			typeId: 'brindle-marlow-16',
			source: { kind: 'instrument' },
			rateHz: 1000,
			durationS: 1,
			samples: 1000,
			teeth: 46,
			channels: [
				{
					name: 'rear_left',
					position: 'rear-left',
					probe: '',
					at: 'module',
					kind: 'flat',
					lowV: 0,
					highV: 0,
					peakToPeakV: 0,
					pulses: 0,
					medianHz: null,
					teethPerRev: null,
					voltsPerHz: null,
					// As older ones have it.
					findings: [
						{ type: 'flat', perRev: false, times: [], count: 1, value: 0, text: 'Stays.', teeth: [] }
					],
					proves: [],
					implicates: []
				}
			],
			...(turned === undefined ? {} : { turned }),
			comparison: null,
			verdict: '',
			knownGood: false
		});

	it('makes nothing suspect, and nothing to be settled; one of a wheel that turned does', () => {
		const rest = capture();
		expect(isBadBenchTest(rest as never)).toBe(false);
		expect(suspectCorners([rest], [])).toEqual([]);
		expect(standingItems([rest])).toEqual([]);
		const dead = capture(true);
		expect(isBadBenchTest(dead as never)).toBe(true);
		expect(suspectCorners([dead], [])).toEqual(['rear-left']);
		expect(standingItems([dead])).toHaveLength(1);
	});
});
