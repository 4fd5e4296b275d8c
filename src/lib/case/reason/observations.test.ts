import { describe, expect, it } from 'vitest';
import { vehicleTypes } from '../../../../library';
import { shippedBook } from '../../../../library/codes';
import { caseCodes } from '../codes/caseCodes';
import type { PayloadOf } from '../entries/entry';
import { standing } from '../thread/thread';
import { BRAKE, CLUSTER, OPEN, ThreadMaker } from '../thread/threads.fixture';
import { observationsOf } from './observations';

const MINIBUS = vehicleTypes.get('brindle-marlow-16');
if (!MINIBUS) throw new Error('no minibus in the library');
const INVALID = 'C41581';
const FAILS = 0x2f;

const opened = () => {
	const maker = new ThreadMaker();
	maker.add('case-opened', { vehicleId: 'v', typeId: MINIBUS.id, name: 'Marlow', plate: 'TP 16' });
	return maker.listen();
};
/** What was seen, as `sign@place outcome (epoch)`, of the signs named. */
const seen = (maker: ThreadMaker, ...only: string[]) =>
	observationsOf(standing(maker.thread), MINIBUS, shippedBook, caseCodes(maker.thread))
		.filter(({ sign }) => only.some((one) => sign.startsWith(one)))
		.map(({ sign, outcome, epoch }) => `${sign} ${outcome} (${epoch})`);

const found = (
	channel: string,
	type: PayloadOf<'live-recording'>['findings'][number]['type'],
	value = 0
) => ({
	type,
	channel,
	startS: 3,
	endS: 4,
	count: 2,
	value,
	text: 'It does.'
});
const recording = (over: Partial<PayloadOf<'live-recording'>> = {}): PayloadOf<'live-recording'> => ({
	name: 'drive',
	source: { kind: 'vehicle' },
	durationS: 90,
	rows: 900,
	rateHz: 10,
	channels: ['front_left', 'front_right', 'rear_left', 'rear_right'],
	marks: [],
	endedBecause: null,
	findings: [],
	common: [],
	notes: [],
	verdict: 'Something.',
	shortestVisibleS: 0.1,
	...over
});
const channel = (
	over: Partial<PayloadOf<'scope-capture'>['channels'][number]> = {}
): PayloadOf<'scope-capture'>['channels'][number] => ({
	name: 'rear_left_v',
	position: 'rear-left',
	probe: 'at the sensor',
	at: 'sensor',
	kind: 'active',
	lowV: 0.8,
	highV: 1.6,
	peakToPeakV: 0.8,
	pulses: 90,
	medianHz: 120,
	teethPerRev: 47,
	voltsPerHz: null,
	findings: [],
	proves: [],
	implicates: [],
	...over
});
const capture = (channels: PayloadOf<'scope-capture'>['channels']): PayloadOf<'scope-capture'> => ({
	name: '',
	typeId: MINIBUS.id,
	source: { kind: 'instrument' },
	rateHz: 20_000,
	durationS: 2,
	samples: 40_000,
	teeth: 47,
	channels,
	comparison: null,
	verdict: 'Whole.',
	knownGood: false
});

describe('what an entry says in signs', () => {
	it('a scan: the wheel’s code by its kind, who is called invalid, who is silent', () => {
		const maker = opened();
		maker.scan([
			[BRAKE, OPEN, FAILS],
			[CLUSTER, INVALID, FAILS]
		]);
		expect(seen(maker, 'wheel-code@rear', 'accused@brake', 'silent@cluster')).toEqual([
			'silent@cluster answers (0)',
			'accused@brake invalid (0)',
			'wheel-code@rear-left open (0)',
			'wheel-code@rear-right none (0)'
		]);
	});

	it('a silent reader leaves the wheels untold', () => {
		const maker = opened();
		maker.scan([], {}, [BRAKE]);
		expect(seen(maker, 'wheel-code')).toEqual([]);
		expect(seen(maker, 'silent@brake')).toEqual(['silent@brake silent (0)']);
	});

	it('read again standing after a clear and a key cycle, a code says only whether it is back', () => {
		const maker = opened();
		maker.scan([[BRAKE, OPEN, FAILS]]);
		maker
			.clear()
			.cycleKey()
			.scan([[BRAKE, OPEN, 0x40]]);
		expect(seen(maker, 'wheel-code@rear-left', 'back@rear-left')).toEqual([
			'wheel-code@rear-left open (0)',
			'back@rear-left no (0)'
		]);
		const back = opened();
		back.scan([[BRAKE, OPEN, FAILS]]);
		back
			.clear()
			.cycleKey()
			.scan([[BRAKE, OPEN, FAILS]]);
		expect(seen(back, 'back@rear-left')).toEqual(['back@rear-left yes (0)']);
	});

	it('after a repair, codes speak again only when cleared and driven', () => {
		const maker = opened();
		maker.scan([[BRAKE, OPEN, FAILS]]);
		maker.repair().scan([[BRAKE, OPEN, 0x08]]);
		expect(seen(maker, 'wheel-code@rear-left')).toEqual(['wheel-code@rear-left open (0)']);
		maker
			.clear()
			.drive()
			.scan([[BRAKE, OPEN, 0x00]]);
		expect(seen(maker, 'wheel-code@rear-left')).toEqual([
			'wheel-code@rear-left open (0)',
			'wheel-code@rear-left none (1)'
		]);
	});

	it('a recording of a drive: one word for each wheel; one on stands says nothing of the road', () => {
		const maker = opened();
		maker.add(
			'live-recording',
			recording({ findings: [found('rear_left', 'dropout'), found('front', 'ratio-offset', 1.04)] })
		);
		expect(seen(maker, 'road')).toEqual([
			'road@front-left faster (0)',
			'road@front-right faster (0)',
			'road@rear-left drops (0)',
			'road@rear-right clean (0)'
		]);
		const stands = opened();
		stands.add(
			'live-recording',
			recording({
				notes: [{ channel: 'front_left', text: 'The wheels turn one by one: taken for a round on stands.' }]
			})
		);
		expect(seen(stands, 'road')).toEqual([]);
	});

	it('a second drive is another look, a second measurement corrects the first', () => {
		const maker = opened();
		maker.add('live-recording', recording({ findings: [found('rear_left', 'dropout')] }));
		maker.add('live-recording', recording());
		expect(seen(maker, 'road@rear-left')).toEqual([
			'road@rear-left drops (0)',
			'road@rear-left~drops clean (0)'
		]);
		for (const outcome of ['flat', 'whole'])
			maker.add('test-step', {
				test: 'scope-sensor',
				place: 'rear-left',
				name: 'scope',
				station: 'measure',
				from: 'own',
				how: 'done',
				seen: { 'scope-sensor@rear-left': outcome },
				because: '',
				minutes: null
			});
		expect(seen(maker, 'scope-sensor')).toEqual(['scope-sensor@rear-left whole (0)']);
		maker.repair();
		maker.add('live-recording', recording());
		expect(seen(maker, 'road@rear-left').at(-1)).toBe('road@rear-left clean (1)');
	});

	it('a round: a wheel that turned its mate answers', () => {
		const maker = opened();
		maker.add('wheel-round', {
			mode: 'hand',
			rateHz: 10,
			corners: [
				{ position: 'rear-left', result: 'dead', topKmh: 0, lowestKmh: null, text: '', noticed: true },
				{ position: 'rear-right', result: 'turns-mate', topKmh: 9, lowestKmh: 1, text: '', noticed: true }
			]
		} as never);
		expect(seen(maker, 'spin')).toEqual(['spin@rear-left dead (0)', 'spin@rear-right answers (0)']);
	});

	it('a capture: the finding that tells most, another rate than its mate, levels that lie elsewhere', () => {
		const gap = {
			type: 'missing-tooth' as const,
			perRev: true,
			times: [0.4],
			count: 4,
			value: 2,
			text: 'A gap.',
			teeth: [31]
		};
		const maker = opened();
		maker.add('scope-capture', capture([channel({ findings: [gap] })]));
		maker.add(
			'scope-capture',
			capture([channel({ at: 'module', medianHz: 90 }), channel({ position: 'rear-right', at: 'module' })])
		);
		maker.add('scope-capture', capture([channel({ position: 'front-left', lowV: 0.3 })]));
		expect(seen(maker, 'scope')).toEqual([
			'scope-sensor@rear-left gap (0)',
			'scope-module@rear-left rate (0)',
			'scope-module@rear-right rate (0)',
			'scope-sensor@front-left level (0)'
		]);
	});

	it('prior work that did not help, and what the customer felt', () => {
		const maker = opened();
		maker.add('complaint', { words: 'It shakes', symptoms: [], conditions: [], felt: ['pedal-pulses'] });
		maker.add('prior-work', {
			works: [{ part: 'Wheel speed sensor', work: 'wheel-sensor', when: '', by: '', grade: 'no-name' }]
		});
		expect(seen(maker, 'felt', 'replaced')).toEqual([
			'felt-pulses@vehicle yes (0)',
			'replaced:renew-sensor@vehicle did-not-help (0)'
		]);
	});

	it('words alone are no evidence, whatever they sound like', () => {
		const maker = opened();
		maker.add('complaint', {
			words: 'After heavy rain the pedal pulses, it slides and loses power, the speedometer is dead',
			symptoms: ['heavy load on the roof'],
			conditions: ['in heavy rain']
		});
		const work = (part: string, id?: string) => ({
			part,
			...(id ? { work: id } : {}),
			when: '',
			by: '',
			grade: 'unknown' as const
		});
		maker.add('prior-work', {
			works: [
				work('Wheel speed sensor, hub, ring and lead renewed'),
				work('Yaw sensor renewed', 'yaw-sensor')
			]
		});
		maker.add('repair', {
			title: 'Yaw sensor renewed, wheel sensor cleaned',
			position: 'rear-left',
			parts: [{ name: 'sensor', number: '', grade: 'unknown' }],
			temporary: false,
			note: ''
		});
		expect(seen(maker, 'felt', 'replaced')).toEqual([]);
	});

	it('tyres: another size, a soft one and a bald one, each against the rest', () => {
		const maker = opened();
		const tyre = (
			position: 'front-left' | 'front-right' | 'rear-left' | 'rear-right',
			size: string,
			treadMm: number,
			pressureKpa: number
		) => ({
			position,
			size,
			brand: '',
			treadMm,
			pressureKpa
		});
		maker.add('tyres-fitted', {
			tyres: [
				tyre('front-left', '195/70R15', 6, 300),
				tyre('front-right', '195/70R15', 6, 180),
				tyre('rear-left', '155/70R15', 6, 300),
				tyre('rear-right', '195/70R15', 1, 300)
			]
		});
		expect(seen(maker, 'tyre')).toEqual([
			'tyre@front-left right (0)',
			'tyre@front-right soft (0)',
			'tyre@rear-left other-size (0)',
			'tyre@rear-right bald (0)'
		]);
	});

	it('a worksheet step says what was seen, and of a sign seen twice the latest counts', () => {
		const maker = opened();
		const step = (outcome: string): PayloadOf<'test-step'> => ({
			test: 'fuse',
			place: 'F14',
			name: 'Look at the fuse',
			station: 'measure',
			from: 'suggested',
			how: 'done',
			seen: { 'fuse@F14': outcome, 'nobody-knows@F14': 'x' },
			because: '',
			minutes: 2
		});
		maker.add('test-step', step('whole'));
		maker.add('test-step', step('blown'));
		expect(seen(maker, 'fuse', 'nobody')).toEqual(['fuse@F14 blown (0)']);
	});

	it('codes that our own test set are no evidence', () => {
		const maker = opened();
		maker.scan([]);
		maker.add('meter-reading', {
			position: 'rear-left',
			typeId: MINIBUS.id,
			measurement: 'feed-at-sensor',
			name: 'Feed',
			red: 'feed',
			black: 'body',
			quantity: 'V',
			value: 4,
			judgedValue: 4,
			temperatureC: null,
			accuracy: 0.1,
			window: { low: 10, high: 13, source: 'library', because: 'supply' },
			judged: 'out',
			by: 'hand',
			opened: ['rear-left'],
			hiddenOhms: null,
			knownGood: false,
			says: 'Too low.',
			proves: [],
			implicates: []
		});
		maker.scan([[BRAKE, OPEN, FAILS]]);
		expect(seen(maker, 'wheel-code@rear-left', 'meter')).toEqual([
			'wheel-code@rear-left none (0)',
			'meter:feed-at-sensor@rear-left low (0)'
		]);
	});
});
