import { mateOf } from '../../../../library/positions';
import { describe, expect, it } from 'vitest';
import { caseCodes } from '../codes/caseCodes';
import { describeEntry } from '../thread/describe';
import type { PayloadOf } from '../entries/entry';
import { exposedAt, familyAt, linksAt, suspectCorners } from './measured';
import { cornerChain, offeredMeasurements, unsuitedMeasurements } from './measureView';
import { projectCase } from '../progress/project';
import { BRAKE, OPEN, ThreadMaker } from '../thread/threads.fixture';
import { vehicleTypes } from '../../../../library';

const MINIBUS = vehicleTypes.get('brindle-marlow-16') ?? null;
const opened = () => {
	const maker = new ThreadMaker();
	maker.add('case-opened', {
		vehicleId: 'v',
		typeId: 'brindle-marlow-16',
		name: 'Brindle Marlow 16',
		plate: 'TP 16'
	});
	return maker.listen();
};
const reading = (over: Partial<PayloadOf<'meter-reading'>> = {}): PayloadOf<'meter-reading'> => ({
	position: 'rear-left',
	typeId: 'brindle-marlow-16',
	measurement: 'feed-at-sensor',
	name: 'Feed at the open sensor plug',
	red: 'feed wire',
	black: 'body',
	quantity: 'V',
	value: 12.1,
	judgedValue: 12.1,
	temperatureC: null,
	accuracy: 0.06,
	window: { low: 10.9, high: 12.7, source: 'library', because: 'from the supply' },
	judged: 'in',
	by: 'hand',
	opened: ['rear-left'],
	hiddenOhms: null,
	knownGood: false,
	says: 'The feed reaches the sensor.',
	proves: ['module-supply', 'module-connector'],
	implicates: [],
	...over
});
const substitution = (over: Partial<PayloadOf<'substitution'>> = {}): PayloadOf<'substitution'> => ({
	position: 'rear-left',
	method: 'generator-current',
	name: 'Current levels from a generator at the open plug',
	hertz: 120,
	ohms: null,
	expectedKmh: 20,
	seenKmh: { low: 19.9, high: 20.2 },
	outcome: 'follows',
	opened: ['rear-left'],
	says: 'The module follows.',
	proves: ['harness', 'module-connector', 'module-input', 'configuration'],
	implicates: ['ring', 'gap', 'sensor'],
	...over
});

describe('the links of a corner', () => {
	it('are proven and made suspect by what the bench says of that corner, the latest word counting', () => {
		const maker = opened();
		maker.add('meter-reading', reading({ judged: 'out', proves: [], implicates: ['harness'] }));
		expect(linksAt(maker.thread, 'rear-left').harness).toBe('suspect');
		expect(linksAt(maker.thread, 'rear-right').harness).toBe('open');
		maker.add('substitution', substitution());
		const after = linksAt(maker.thread, 'rear-left');
		expect(after).toMatchObject({
			harness: 'good',
			'module-input': 'good',
			ring: 'suspect',
			'module-supply': 'open'
		});
		expect(cornerChain(maker.thread, 'rear-left').map(({ state }) => state)).toEqual([
			'suspect',
			'suspect',
			'suspect',
			'open',
			'good',
			'good',
			'good',
			'open'
		]);
	});

	it('a capture speaks for each wheel by its own channel', () => {
		const maker = opened();
		const channel = (position: 'rear-left' | 'rear-right', bad: boolean) => ({
			name: position.replace('-', '_'),
			position,
			probe: '',
			at: 'module' as const,
			kind: 'active' as const,
			lowV: 0.8,
			highV: 1.6,
			peakToPeakV: 0.8,
			pulses: 400,
			medianHz: 100,
			teethPerRev: 46,
			voltsPerHz: null,
			findings: [],
			proves: bad ? [] : (['ring', 'gap'] as const).slice(),
			implicates: bad ? (['ring'] as const).slice() : []
		});
		maker.add('scope-capture', {
			name: '',
			typeId: '',
			source: { kind: 'instrument' },
			rateHz: 50_000,
			durationS: 2,
			samples: 100_000,
			teeth: 46,
			channels: [channel('rear-left', true), channel('rear-right', false)],
			comparison: null,
			verdict: 'rear left: a gap in the ring.',
			knownGood: false
		});
		expect(linksAt(maker.thread, 'rear-left').ring).toBe('suspect');
		expect(linksAt(maker.thread, 'rear-right').ring).toBe('good');
	});

	it('what was identified here beats the vehicle’s data, for one wheel or for all', () => {
		const maker = opened();
		expect(familyAt(maker.thread, 'rear-left')).toEqual({ family: 'two-wire', from: 'vehicle' });
		maker.add('sensor-identified', {
			position: 'rear-left',
			family: 'passive',
			answers: { body: 'large' },
			probability: 0.97
		});
		expect(familyAt(maker.thread, 'rear-left')).toEqual({ family: 'passive', from: 'identified' });
		expect(familyAt(maker.thread, 'rear-right')?.from).toBe('vehicle');
		expect(familyAt([], 'rear-left')).toBeNull();
	});

	it('mates are across the axle, on cars and trailers', () => {
		expect(mateOf('rear-left')).toBe('rear-right');
		expect(mateOf('axle2-right')).toBe('axle2-left');
	});

	it('suspects are named by codes, live data and rounds, the most named first', () => {
		const maker = opened();
		maker.scan([[BRAKE, OPEN, 0x2f]]);
		maker.add('wheel-round', {
			mode: 'hand',
			rateHz: 20,
			corners: [
				{ position: 'front-left', result: 'dead', topKmh: 0, text: 'Front left is dead.' },
				{ position: 'rear-right', result: 'turns-mate', topKmh: 8, text: 'Its mate turns with it.' }
			]
		});
		const codes = caseCodes(maker.thread);
		expect(suspectCorners(maker.thread, codes)).toEqual(['rear-left', 'front-left']);
		maker.add('meter-reading', reading({ position: 'front-right', judged: 'out' }));
		maker.add('meter-reading', reading({ position: 'rear-right' }));
		expect(suspectCorners(maker.thread, codes)).toEqual(['rear-left', 'front-left', 'front-right']);
	});
});

describe('what to measure next', () => {
	it('costs less once a plug is open, and goes to the end once it is done', () => {
		const maker = opened();
		const offered = () => offeredMeasurements(maker.thread, MINIBUS, 'rear-left', 'two-wire');
		const find = (id: string) => offered().find(({ measurement }) => measurement.id === id);
		const before = find('signal-unplugged')?.minutes ?? 0;
		const [first] = offered();
		maker.add('meter-reading', reading({ measurement: first?.measurement.id ?? '', opened: ['rear-left'] }));
		expect(find('signal-unplugged')?.minutes).toBe(before - 3);
		expect(offered()[0]?.measurement.id).not.toBe(first?.measurement.id);
		expect(find(first?.measurement.id ?? '')?.reading?.payload.value).toBe(12.1);
		// The module of this bus is buried: what needs it is not asked for first.
		expect(first?.minutes).toBeLessThan(10);
	});

	it('holds a reading against the mate’s latest of the same measurement', () => {
		const maker = opened();
		maker.add('meter-reading', reading({ position: 'rear-right', value: 11.9 }));
		maker.add('meter-reading', reading({ position: 'rear-right', value: 12 }));
		const one = offeredMeasurements(maker.thread, MINIBUS, 'rear-left', 'two-wire').find(
			({ measurement }) => measurement.id === 'feed-at-sensor'
		);
		expect(one?.mateReading?.payload.value).toBe(12);
		expect(one?.reading).toBeNull();
	});

	it('offers no family what misleads it', () => {
		for (const family of ['two-wire', 'two-wire-direction', 'three-wire'] as const) {
			const ids = offeredMeasurements([], null, 'rear-left', family).map(({ measurement }) => measurement.id);
			expect(ids).not.toContain('coil-ohms');
			expect(unsuitedMeasurements(family).map(({ name }) => name)).toContain('Coil resistance');
		}
		expect(unsuitedMeasurements('passive')).toEqual([]);
	});

	it('knows what is open already, from every kind of test', () => {
		const maker = opened();
		maker.add('substitution', substitution({ opened: ['rear-left', 'rear-right'] }));
		maker.add('harness-search', {
			position: 'rear-left',
			wire: 'feed',
			fault: 'open',
			exposed: ['X21'],
			readings: [],
			between: ['module', 'sensor'],
			found: false,
			contradiction: null,
			says: 'Between.',
			proves: [],
			implicates: ['harness']
		});
		expect([...exposedAt(maker.thread, 'rear-left')].sort()).toEqual(['X21', 'rear-left', 'rear-right']);
		expect([...exposedAt(maker.thread, 'front-left')]).toEqual([]);
	});
});

describe('codes that our own tests set', () => {
	it('are those that are new in the circuit that a test opened since the last reading', () => {
		const maker = opened();
		maker.scan([]);
		maker.add('substitution', substitution());
		maker.scan([[BRAKE, OPEN, 0x2f]]);
		expect(caseCodes(maker.thread)[0]?.madeByUs).toBe(maker.thread.at(-2)?.id);
	});

	it('are none that were there before, belong to another wheel, or came with the first reading', () => {
		const before = opened();
		before.scan([[BRAKE, OPEN, 0x2f]]);
		before.add('substitution', substitution());
		before.scan([[BRAKE, OPEN, 0x2f]]);
		expect(caseCodes(before.thread)[0]?.madeByUs).toBeNull();
		const other = opened();
		other.scan([]);
		other.add('substitution', substitution({ position: 'front-right', opened: ['front-right'] }));
		other.scan([[BRAKE, OPEN, 0x2f]]);
		expect(caseCodes(other.thread)[0]?.madeByUs).toBeNull();
		const first = opened();
		first.add('substitution', substitution());
		first.scan([[BRAKE, OPEN, 0x2f]]);
		expect(caseCodes(first.thread)[0]?.madeByUs).toBeNull();
	});

	it('a reading with nothing opened sets no code, and an old test none after a reading in between', () => {
		const plugged = opened();
		plugged.scan([]);
		plugged.add('meter-reading', reading({ opened: [] }));
		plugged.scan([[BRAKE, OPEN, 0x2f]]);
		expect(caseCodes(plugged.thread)[0]?.madeByUs).toBeNull();
		const old = opened();
		old.scan([]);
		old.add('substitution', substitution());
		old.scan([]);
		old.scan([[BRAKE, OPEN, 0x2f]]);
		expect(caseCodes(old.thread)[0]?.madeByUs).toBeNull();
	});

	describe('of a wheel that stood while another was turned on stands', () => {
		const NO_SIGNAL = '404531';
		const right = { position: 'rear-right', does: 'move', label: 'lead', seconds: 9, changes: 0 } as const;
		const after = (between: (maker: ReturnType<typeof opened>) => void, dtc = NO_SIGNAL) => {
			const maker = opened();
			maker.scan([]);
			between(maker);
			maker.scan([[BRAKE, dtc, 0x2c]]);
			return caseCodes(maker.thread)[0]?.madeByUs ?? null;
		};
		const round = (mode: 'hand' | 'gear') => (maker: ReturnType<typeof opened>) =>
			maker.add('wheel-round', {
				mode,
				rateHz: 10,
				corners: [{ position: 'front-left', result: 'answers', topKmh: 9, text: 'answers' }]
			});

		it('are ours: by hand each wheel stands in its turn, in gear those that are not driven', () => {
			expect(after(round('hand'))).not.toBeNull();
			expect(after((maker) => maker.provoked(right))).not.toBeNull();
			// The rear is driven.
			expect(after(round('gear'))).toBeNull();
			expect(after((maker) => maker.provoked({ ...right, position: 'rear-left' }))).toBeNull();
		});

		it('are not where they tell of wires, or where it was driven since', () => {
			expect(after(round('hand'), OPEN)).toBeNull();
			expect(
				after((maker) => {
					round('hand')(maker);
					maker.drive();
				})
			).toBeNull();
		});
	});

	it('need no repair to be proven clear, and are not chased', () => {
		const maker = opened();
		maker.scan([]);
		maker.add('substitution', substitution());
		maker.scan([[BRAKE, OPEN, 0x2f]]);
		expect(projectCase(maker.thread).next?.title).toBe('Clear the codes');
		maker.clear().cycleKey().lamps();
		maker.scan([]);
		expect(caseCodes(maker.thread)[0]?.proof.verdict).toBe('proven-clear');
	});
});

describe('the thread says of the bench', () => {
	it.each([
		[reading({ judged: 'out', value: 0.02 }), 'rear left: 20 mV', 'outside its window'],
		[reading(), 'rear left: 12.1 V', null]
	])('a reading as value and window', (payload, title, shows) => {
		const entry = opened().add('meter-reading', payload);
		expect(describeEntry(entry)).toMatchObject({ title, shows });
		expect(describeEntry(entry).detail).toContain('expected 10.9 V to 12.7 V');
	});

	it('a substitution by what followed, a look by what was seen', () => {
		expect(describeEntry(opened().add('substitution', substitution({ outcome: 'nothing' }))).shows).toBe(
			'does not follow'
		);
		const look = opened().add('inspection', {
			position: 'rear-left',
			inspection: 'ring',
			name: 'Ring, tooth by tooth',
			result: 'bad',
			found: ['cracked'],
			gapMm: null,
			note: '',
			photos: [{ id: '01JD0000000000000000000001', sha256: 'a'.repeat(64) }],
			says: 'Ring: cracked.',
			proves: [],
			implicates: ['ring']
		});
		expect(describeEntry(look)).toEqual({
			title: 'rear left: ring, tooth by tooth',
			detail: 'cracked, 1 photo',
			shows: 'bad'
		});
	});

	it('the station counts what is out', () => {
		const maker = opened();
		maker.scan([[BRAKE, OPEN, 0x2f]]);
		const state = () => projectCase(maker.thread).stations.find(({ id }) => id === 'measure');
		expect(state()).toMatchObject({ state: 'open', lacks: null });
		maker.add('meter-reading', reading());
		maker.add('meter-reading', reading({ judged: 'out', proves: [], implicates: ['harness'] }));
		expect(state()).toMatchObject({ state: 'done', lacks: '1 out' });
	});
});
