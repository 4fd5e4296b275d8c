import { describe, expect, it } from 'vitest';
import { vehicleTypes } from '../../../../library';
import { shippedBook } from '../../../../library/codes';
import { reasonModel } from '../../../../library/reason/model';
import { PROVE_FIRST } from '../../core/path/policy';
import { caseCodes } from '../codes/caseCodes';
import type { PayloadOf } from '../entries/entry';
import { standing } from '../thread/thread';
import { BRAKE, CLUSTER, OPEN, ThreadMaker } from '../thread/threads.fixture';
import { notWithdrawn } from '../thread/withdrawal';
import { frozenWheels, observationsOf } from './observations';
import { reasonAbout } from './reasoning';

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

	it('after a repair that no clear followed only what fails in a key cycle since is surely there', () => {
		const read = (status: number, cycled: boolean) => {
			const maker = opened();
			maker.scan([[BRAKE, OPEN, FAILS]]);
			maker.repair();
			if (cycled) maker.cycleKey();
			maker.scan([[BRAKE, OPEN, status]]);
			return seen(maker, 'back@rear-left');
		};
		const NOT_TESTED = 0x40;
		expect(read(FAILS, true)).toEqual(['back@rear-left yes (1)']);
		expect(read(FAILS, false)).toEqual([]);
		expect(read(FAILS | NOT_TESTED, true)).toEqual([]);
		expect(read(0x2c, true)).toEqual([]);
	});

	it('back without a key cycle is back; away without one says nothing yet', () => {
		const cleared = (status: number) => {
			const maker = opened();
			maker.scan([[BRAKE, OPEN, FAILS]]);
			maker.repair();
			maker.scan([[BRAKE, OPEN, FAILS]]);
			maker.clear().scan([[BRAKE, OPEN, status]]);
			return seen(maker, 'back@rear-left');
		};
		expect(cleared(FAILS)).toEqual(['back@rear-left yes (1)']);
		expect(cleared(0x40)).toEqual([]);
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
			works: [
				{ part: 'Wheel speed sensor', work: 'wheel-sensor', when: '', by: '', grade: 'no-name', stayed: true }
			]
		});
		expect(seen(maker, 'felt', 'replaced')).toEqual([
			'felt-pulses@vehicle yes (0)',
			'replaced:renew-sensor:poor@vehicle did-not-help (0)'
		]);
	});

	it('a part that others renewed did not help only where somebody says that the fault stayed, and counts by grade and wheel', () => {
		const of = (change: object) => {
			const maker = opened();
			const sensor = { part: 'Sensor', work: 'wheel-sensor', when: '', by: '', grade: 'branded' as const };
			maker.add('prior-work', { works: [{ ...sensor, ...change }] });
			return seen(maker, 'replaced');
		};
		expect(of({})).toEqual([]);
		expect(of({ stayed: false })).toEqual([]);
		expect(of({ stayed: true })).toEqual(['replaced:renew-sensor:usual@vehicle did-not-help (0)']);
		expect(of({ stayed: true, seen: true, position: 'rear-left' })).toEqual([
			'replaced:renew-sensor:sound@rear-left did-not-help (0)'
		]);
		expect(of({ stayed: true, seen: false })).toEqual([
			'replaced:renew-sensor:poor@vehicle did-not-help (0)'
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
			'tyre-axles@vehicle same (0)',
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

describe('our own signals, values that stand still and wheels at rest are no evidence', () => {
	const held = (maker: ThreadMaker, on: boolean) =>
		maker.add('signal-held', { position: 'rear-left', method: 'generator', name: 'A generator', on });
	const round = (maker: ThreadMaker, result: 'dead' | 'answers') =>
		maker.add('wheel-round', {
			mode: 'hand',
			rateHz: 10,
			corners: [{ position: 'rear-left', result, topKmh: 0, text: '' }]
		});
	const flat = (over = {}) =>
		channel({ kind: 'flat', pulses: 0, medianHz: null, findings: [{ ...FLAT }], ...over });
	const FLAT = {
		type: 'flat' as const,
		perRev: false,
		times: [],
		count: 1,
		value: 0.8,
		text: 'Stays.',
		teeth: []
	};

	it('while a signal is held, a drive says nothing, nor does a code or a capture of that wheel; after it, all does', () => {
		const maker = opened();
		held(maker, true);
		maker.add('live-recording', recording());
		maker.add('scope-capture', capture([channel(), channel({ position: 'front-left' })]));
		maker.scan([[BRAKE, OPEN, FAILS]]);
		expect(seen(maker, 'road', 'scope', 'wheel-code@rear')).toEqual([
			'scope-sensor@front-left whole (0)',
			'wheel-code@rear-right none (0)'
		]);
		held(maker, false);
		maker.add('live-recording', recording());
		expect(seen(maker, 'road@rear')).toEqual(['road@rear-left clean (0)', 'road@rear-right clean (0)']);
	});

	it('a recording that was made for a substituted signal is no drive', () => {
		const maker = opened();
		maker.add('live-recording', recording({ purpose: { what: 'substitution', position: 'rear-left' } }));
		expect(seen(maker, 'road')).toEqual([]);
	});

	it('a value that stands still while its code fails says nothing, also after a repair, until it is cleared', () => {
		const maker = opened();
		maker.scan([[BRAKE, OPEN, FAILS]]);
		const still = recording({ findings: [found('rear_left', 'stuck-invalid')] });
		maker.add('live-recording', still);
		round(maker, 'dead');
		maker.repair();
		maker.add('live-recording', still);
		expect(seen(maker, 'road@rear-left', 'spin')).toEqual([]);
		expect(seen(maker, 'road@rear-right')).toEqual([
			'road@rear-right clean (0)',
			'road@rear-right clean (1)'
		]);
		expect(frozenWheels(standing(maker.thread), MINIBUS, shippedBook, caseCodes(maker.thread))).toEqual([
			'rear-left'
		]);
		// One that answers does not stand still.
		round(maker, 'answers');
		expect(seen(maker, 'spin')).toEqual(['spin@rear-left answers (1)']);
		maker.clear();
		maker.add('live-recording', still);
		expect(seen(maker, 'road@rear-left')).toEqual(['road@rear-left not-available (1)']);
		expect(frozenWheels(standing(maker.thread), MINIBUS, shippedBook, caseCodes(maker.thread))).toEqual([]);
	});

	it('a capture on which nothing pulses says nothing of a wheel, unless it turned', () => {
		const maker = opened();
		maker.add('scope-capture', capture([flat()]));
		maker.add('scope-capture', capture([flat(), flat({ position: 'rear-right' })]));
		expect(seen(maker, 'scope')).toEqual([]);
		maker.add('scope-capture', { ...capture([flat()]), turned: true });
		expect(seen(maker, 'scope')).toEqual(['scope-sensor@rear-left flat (0)']);
		const beside = opened();
		beside.add('scope-capture', capture([flat(), channel({ position: 'rear-right' })]));
		expect(seen(beside, 'scope')).toEqual([
			'scope-sensor@rear-left flat (0)',
			'scope-sensor@rear-right whole (0)'
		]);
	});

	it('what is withdrawn says nothing any more, and only what was measured or looked at can be', () => {
		const maker = opened();
		maker.scan([[BRAKE, OPEN, FAILS]]);
		maker.add('scope-capture', capture([channel()]));
		const ids = (kind: string) => maker.thread.find((entry) => entry.kind === kind)?.id ?? '';
		const before = [...maker.thread];
		expect(notWithdrawn(ids('scope-capture'), before)).toBeNull();
		expect(notWithdrawn(ids('network-scan'), before)).toMatch(/was read, done or said stays/);
		expect(notWithdrawn('01KZZZZZZZZZZZZZZZZZZZZZZZ', before)).toMatch(/no such entry/);
		maker.add('withdrawn', { entryId: ids('scope-capture'), what: 'Capture', because: 'The tip was loose.' });
		expect(seen(maker, 'scope')).toEqual([]);
		expect(notWithdrawn(ids('scope-capture'), maker.thread)).toMatch(/already/);
	});
});

describe('what moved it', () => {
	const PLACES = [
		{ label: 'module plug', is: 'module-plug' as const },
		{ label: 'plug X20', is: 'lead' as const },
		{ label: 'lead', is: 'lead' as const },
		{ label: 'sensor plug', is: 'sensor-plug' as const }
	];
	const wiggle = (marks: [number, string][], startS: number[], type: 'dropout' | 'stuck-zero' = 'dropout') =>
		recording({
			purpose: { what: 'wiggle', position: 'rear-left', places: PLACES },
			channels: ['rear_left'],
			marks: marks.map(([atS, label]) => ({ atS, label })),
			findings: startS.map((at) => ({ ...found('rear_left', type), startS: at }))
		});

	it('the place at which it changed is told, and those at which it did not', () => {
		const maker = opened();
		maker.add(
			'live-recording',
			wiggle(
				[
					[2, 'module plug'],
					[10, 'plug X20'],
					[20, 'lead'],
					[30, 'sensor plug']
				],
				[31, 33]
			)
		);
		expect(seen(maker, 'wiggle', 'road')).toEqual([
			'wiggle-far@rear-left steady (0)',
			'wiggle-lead@rear-left steady (0)',
			'wiggle-plug@rear-left changes (0)'
		]);
	});

	it('a wheel that stood says nothing; a place that no hand was on neither', () => {
		const maker = opened();
		maker.add('live-recording', wiggle([[2, 'lead']], [2], 'stuck-zero'));
		expect(seen(maker, 'wiggle')).toEqual([]);
		maker.add('live-recording', wiggle([[2, 'lead']], [3]));
		expect(seen(maker, 'wiggle')).toEqual(['wiggle-lead@rear-left changes (0)']);
	});

	it('a resistor whose level arrives speaks for what lies between, one that does not against it', () => {
		const model = reasonModel(MINIBUS);
		const harness = (outcome: 'follows' | 'nothing' | null) => {
			const maker = opened();
			maker.scan([[BRAKE, OPEN, FAILS]]);
			if (outcome)
				maker.add('substitution', {
					position: 'rear-left',
					method: 'resistor',
					name: 'A resistor',
					hertz: null,
					ohms: 400,
					expectedKmh: 0,
					seenKmh: null,
					outcome,
					opened: ['rear-left'],
					proves: [],
					implicates: [],
					says: ''
				});
			const { belief } = reasonAbout(standing(maker.thread), model, {
				book: shippedBook,
				codes: caseCodes(maker.thread),
				policy: PROVE_FIRST
			});
			return model.faults.reduce(
				(sum, { fault, place }, i) =>
					sum + (place === 'rear-left' && fault.link === 'harness' ? (belief.present[i] ?? 0) : 0),
				0
			);
		};
		expect(harness('follows')).toBeLessThan(harness(null) / 2);
		expect(harness('nothing')).toBeGreaterThan(1.3 * harness(null));
	});
});
