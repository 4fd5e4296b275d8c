import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { tellsOfFault } from '../codes/status';
import { proveCode } from './codeVerdict';
import { residualOf } from './exposure';
import { WAIVABLE, type CodeEvent, type Origin, type ProofContext, type Verdict } from './proof';

const read = (
	at: number,
	status: number | null,
	snapshotKmh: number | null = null,
	availabilityMask = 0xff
): CodeEvent => ({
	at,
	kind: 'read',
	status,
	availabilityMask,
	snapshotKmh
});
const did = (at: number, kind: 'mended' | 'cleared' | 'key-cycled' | 'driven'): CodeEvent => ({ at, kind });
const lamps = (at: number, bad: string | null = null): CodeEvent => ({ at, kind: 'lamps', bad });
const live = (at: number, found: string | null = null): CodeEvent => ({ at, kind: 'live', found });
const met = (at: number, metS: number): CodeEvent => ({ at, kind: 'conditions', metS });
const waived = (at: number, mark: (typeof WAIVABLE)[number]): CodeEvent => ({
	at,
	kind: 'waived',
	mark,
	words: `Let go by Marit: ${mark}.`
});
const RECORDED = read(1, 0x2f);
const REPAIRED = [RECORDED, did(2, 'mended'), did(3, 'cleared'), did(4, 'key-cycled'), lamps(4.5)];
const CLEAN = [...REPAIRED, did(6, 'driven'), read(7, 0)];

const context = (change: Partial<ProofContext> = {}): ProofContext => ({
	origin: { kind: 'own' },
	exposure: null,
	provoked: [],
	calibrationsDue: null,
	seenLive: false,
	...change
});
const verdictOf = (events: CodeEvent[], change: Partial<ProofContext> = {}) =>
	proveCode(events, context(change)).verdict;

describe('what may be called proven', () => {
	const table: [string, CodeEvent[], Verdict][] = [
		['recorded only', [RECORDED], 'never-cleared'],
		['recorded and mended', [RECORDED, did(2, 'mended')], 'never-cleared'],
		['cleared, nothing since', [RECORDED, did(2, 'mended'), did(3, 'cleared')], 'test-not-run'],
		[
			'key not cycled, though its test ran',
			[RECORDED, did(2, 'mended'), did(3, 'cleared'), read(5, null)],
			'test-not-run'
		],
		[
			'read before the key cycle only',
			[...REPAIRED.slice(0, 3), read(3.5, 0x00), did(4, 'key-cycled'), lamps(4.5)],
			'test-not-run'
		],
		['module says not completed', [...REPAIRED, read(5, 0x50)], 'test-not-run'],
		['module cannot say', [...REPAIRED, read(5, null, null, 0x2f)], 'test-not-run'],
		['completed and away', [...REPAIRED, read(5, 0x50), did(6, 'driven'), read(7, 0x00)], 'proven-clear'],
		['completed, no longer listed', [...REPAIRED, did(6, 'driven'), read(7, null)], 'proven-clear'],
		['completed this time, not yet in this key cycle', [...REPAIRED, read(7, 0x40)], 'proven-clear'],
		[
			'away, but nothing was mended',
			[RECORDED, did(3, 'cleared'), did(4, 'key-cycled'), lamps(4.5), read(5, 0)],
			'quiet-nothing-mended'
		],
		['lamps not watched', [...REPAIRED.slice(0, 4), read(7, 0)], 'not-all-shown'],
		[
			'lamps watched before the key cycle',
			[...REPAIRED.slice(0, 4), lamps(3.5), read(7, 0)],
			'not-all-shown'
		],
		[
			'a lamp stays on',
			[...REPAIRED.slice(0, 4), lamps(4.5, 'The brake lamp stays on.'), read(7, 0)],
			'not-all-shown'
		],
		['back standing still', [...REPAIRED, read(5, 0x2f, 0)], 'back-at-key-on'],
		['back with a snapshot at speed', [...REPAIRED, read(5, 0x2f, 58)], 'back-while-driving'],
		['back after a drive, no snapshot', [...REPAIRED, did(5, 'driven'), read(6, 0x28)], 'back-while-driving'],
		['back before the drive, no snapshot', [...REPAIRED, read(5, 0x28), did(6, 'driven')], 'back-at-key-on'],
		['failed since the clear, though quiet now', [...REPAIRED, read(5, 0x20, 0)], 'back-at-key-on'],
		['not there before', [did(3, 'cleared'), did(4, 'key-cycled'), read(5, 0x2f, 0)], 'new'],
		[
			'came back, mended again, cleared again, proven',
			[
				...REPAIRED,
				read(5, 0x2f, 0),
				did(6, 'mended'),
				did(7, 'cleared'),
				did(8, 'key-cycled'),
				lamps(8.5),
				read(9, 0)
			],
			'proven-clear'
		],
		[
			'came back, cleared again without another repair',
			[...REPAIRED, read(5, 0x2f, 0), did(7, 'cleared'), did(8, 'key-cycled'), read(9, 0)],
			'quiet-nothing-mended'
		],
		[
			'first seen between two clears, then mended and proven',
			[did(0, 'cleared'), ...REPAIRED, read(9, 0)],
			'proven-clear'
		],
		[
			'module cannot say, but a recorded drive met what its test needs',
			[...REPAIRED, met(5, 14), read(7, null, null, 0x2f)],
			'proven-clear'
		],
		[
			'module cannot say, and the drive did not meet it',
			[...REPAIRED, met(5, 0), read(7, null, null, 0x2f)],
			'test-not-run'
		],
		[
			'module says not completed: a drive that met the conditions does not outdo its word',
			[...REPAIRED, met(5, 14), read(7, 0x50)],
			'test-not-run'
		],
		[
			'a drive before the clear proves nothing',
			[met(2.5, 14), ...REPAIRED, read(7, null, null, 0x2f)],
			'test-not-run'
		],
		[
			'repaired after the clear, and stored but not failing when it is read: that may be from before',
			[RECORDED, did(2, 'cleared'), did(3, 'mended'), read(4, 0x2c)],
			'never-cleared'
		],
		[
			'back before a repair, and read again after it though its test has not run in this key cycle',
			[
				RECORDED,
				did(2, 'cleared'),
				read(3, 0x2f, 0),
				did(4, 'mended'),
				did(4.5, 'key-cycled'),
				read(5, 0xed)
			],
			'never-cleared'
		],
		[
			'back before a repair, and failing after it',
			[
				RECORDED,
				did(2, 'cleared'),
				read(3, 0x2c),
				did(4, 'mended'),
				did(4.5, 'key-cycled'),
				read(5, 0x2f, 0)
			],
			'back-at-key-on'
		],
		['back, and nothing was done since', [RECORDED, did(2, 'cleared'), read(3, 0xed, 0)], 'back-at-key-on'],
		[
			'repaired after the clear, and failing in the key cycle in which it was repaired',
			[RECORDED, did(2, 'cleared'), did(3, 'mended'), read(4, 0x2f, 0)],
			'never-cleared'
		],
		[
			'repaired after the clear, and failing after the key was turned',
			[RECORDED, did(2, 'cleared'), did(3, 'mended'), did(3.5, 'key-cycled'), read(4, 0x2f, 0)],
			'back-at-key-on'
		],
		['live data since still show it', [...CLEAN, live(8, 'rear left drops out')], 'not-all-shown'],
		['found in live data, then clean', [...CLEAN, live(8, 'rear left drops out'), live(9)], 'proven-clear']
	];
	it.each(table)('%s', (_name, events, verdict) => {
		expect(proveCode(events).verdict).toBe(verdict);
	});

	it('every combination of status byte, what the module can tell, key, repair, lamps, drive and snapshot', () => {
		const expected = (
			status: number | null,
			mask: number,
			was: { cycled: boolean; mended: boolean; lamps: 'none' | 'good' | 'bad'; driven: boolean },
			snapshot: number | null
		): Verdict => {
			if (status !== null && tellsOfFault(status))
				return (snapshot === null ? was.driven : snapshot > 0) ? 'back-while-driving' : 'back-at-key-on';
			const completed = (mask & 0x10) !== 0 && (status === null || (status & 0x10) === 0);
			if (!was.cycled || !completed) return 'test-not-run';
			if (!was.mended) return 'quiet-nothing-mended';
			return was.lamps === 'good' ? 'proven-clear' : 'not-all-shown';
		};
		let cases = 0;
		for (const status of [null, ...Array.from({ length: 256 }, (_, byte) => byte)])
			for (const mask of [0xff, 0xef, 0x2f])
				for (const cycled of [true, false])
					for (const mended of [true, false])
						for (const lamp of ['none', 'good', 'bad'] as const)
							for (const driven of [true, false])
								for (const snapshot of [null, 0, 58]) {
									const events = [
										RECORDED,
										...(mended ? [did(2, 'mended')] : []),
										did(3, 'cleared'),
										...(cycled ? [did(4, 'key-cycled')] : []),
										...(lamp === 'none' ? [] : [lamps(5, lamp === 'bad' ? 'It stays on.' : null)]),
										...(driven ? [did(6, 'driven')] : []),
										read(7, status, snapshot, mask)
									];
									const wanted = expected(status, mask, { cycled, mended, lamps: lamp, driven }, snapshot);
									cases += 1;
									if (proveCode(events).verdict !== wanted)
										expect.fail(
											`${JSON.stringify({ status, mask, cycled, mended, lamp, driven, snapshot })}: ${proveCode(events).verdict}, not ${wanted}`
										);
								}
		expect(cases).toBe(257 * 3 * 2 * 2 * 3 * 2 * 3);
	});
});

describe('what else is known of a code', () => {
	const expectedOne: Origin = { kind: 'expected', because: 'the module was replaced' };
	it.each<[string, CodeEvent[], Partial<ProofContext>, Verdict]>([
		['made by our own test', [RECORDED], { origin: { kind: 'made-by-us' } }, 'made-by-us'],
		['expected after a replacement', [RECORDED], { origin: expectedOne }, 'expected'],
		[
			'expected and back until it is taught',
			[...REPAIRED, read(5, 0x2f, 0)],
			{ origin: expectedOne, calibrationsDue: 2 },
			'expected'
		],
		[
			'expected, taught, and back all the same',
			[...REPAIRED, read(5, 0x2f, 0)],
			{ origin: expectedOne, calibrationsDue: 0 },
			'back-at-key-on'
		],
		[
			'follows from another',
			[RECORDED],
			{ origin: { kind: 'consequence', because: 'the gateway is silent', now: true } },
			'consequence'
		],
		[
			'follows from another, and back with it',
			[...REPAIRED, read(5, 0x2f, 0)],
			{ origin: { kind: 'consequence', because: 'the gateway is silent', now: true } },
			'consequence'
		],
		[
			'followed from another that is gone now',
			[...REPAIRED, read(5, 0x2f, 0)],
			{ origin: { kind: 'consequence', because: 'the gateway is silent', now: false } },
			'back-at-key-on'
		],
		[
			'follows from another, cleared and away',
			CLEAN,
			{ origin: { kind: 'consequence', because: 'x', now: true } },
			'proven-clear'
		],
		['seen live before, not recorded since', CLEAN, { seenLive: true }, 'not-all-shown'],
		['seen live before, clean since', [...CLEAN, live(8)], { seenLive: true }, 'proven-clear'],
		['a calibration is due', CLEAN, { calibrationsDue: 1 }, 'not-all-shown'],
		['all is taught', CLEAN, { calibrationsDue: 0 }, 'proven-clear'],
		[
			'comes and goes, nobody said how often',
			CLEAN,
			{ exposure: { before: null, afterKm: 99, target: 0.05 } },
			'not-far-enough'
		],
		[
			'comes and goes, 5 km is not 19',
			CLEAN,
			{ exposure: { before: { returns: 1, km: 1 }, afterKm: 5, target: 0.05 } },
			'not-far-enough'
		],
		[
			'comes and goes, driven far enough',
			CLEAN,
			{ exposure: { before: { returns: 1, km: 1 }, afterKm: 19, target: 0.05 } },
			'proven-clear'
		],
		[
			'let go by a lead, short of the distance',
			[...CLEAN, waived(8, 'exposure')],
			{ exposure: { before: { returns: 1, km: 1 }, afterKm: 5, target: 0.05 } },
			'released'
		],
		[
			'let go before it was cleared again: that holds no more',
			[waived(2.5, 'live-clean'), ...CLEAN],
			{ seenLive: true },
			'not-all-shown'
		],
		['its test never ran, let go', [...REPAIRED, read(7, 0x50), waived(8, 'test-ran')], {}, 'released'],
		['let go, but back', [...REPAIRED, read(7, 0x2f, 0), waived(8, 'test-ran')], {}, 'back-at-key-on'],
		[
			'let go, but nothing was mended',
			[RECORDED, ...REPAIRED.slice(2), read(7, 0x50), waived(8, 'test-ran')],
			{},
			'quiet-nothing-mended'
		]
	])('%s', (_name, events, change, verdict) => {
		expect(verdictOf(events, change)).toBe(verdict);
	});

	it('every line of the checklist says what shows it, and where', () => {
		const { marks } = proveCode([...CLEAN, live(8)], context({ seenLive: true, calibrationsDue: 0 }));
		expect(
			Object.fromEntries(Object.entries(marks).map(([mark, { state, at }]) => [mark, [state, at]]))
		).toEqual({
			recorded: ['good', 1],
			mended: ['good', 2],
			cleared: ['good', 3],
			'key-cycled': ['good', 4],
			lamps: ['good', 4.5],
			'test-ran': ['good', 7],
			'stayed-away': ['good', 7],
			'live-clean': ['good', 8],
			calibrated: ['good', null]
		});
	});

	it('nothing is proven with a mark that is not good, and nothing is released without a waiver', () => {
		const kinds = ['mended', 'cleared', 'key-cycled', 'driven'] as const;
		const event = fc.oneof(
			fc
				.record({
					at: fc.nat(50),
					status: fc.option(fc.constantFrom(0, 0x10, 0x2f, 0x50)),
					kmh: fc.option(fc.nat(90)),
					mask: fc.constantFrom(0xff, 0x2f)
				})
				.map((r) => read(r.at, r.status, r.kmh, r.mask)),
			fc.tuple(fc.nat(50), fc.constantFrom(...kinds)).map(([at, kind]) => did(at, kind)),
			fc.tuple(fc.nat(50), fc.boolean()).map(([at, bad]) => lamps(at, bad ? 'It stays on.' : null)),
			fc.tuple(fc.nat(50), fc.boolean()).map(([at, bad]) => live(at, bad ? 'drops out' : null)),
			fc.tuple(fc.nat(50), fc.nat(20)).map(([at, s]) => met(at, s)),
			fc.tuple(fc.nat(50), fc.constantFrom(...WAIVABLE)).map(([at, mark]) => waived(at, mark))
		);
		const around = fc.record({
			origin: fc.constantFrom<Origin>({ kind: 'own' }, { kind: 'made-by-us' }, expectedOne),
			calibrationsDue: fc.option(fc.nat(2)),
			seenLive: fc.boolean(),
			exposure: fc.option(
				fc.record({
					before: fc.option(
						fc.record({ returns: fc.integer({ min: 1, max: 9 }), km: fc.integer({ min: 1, max: 90 }) })
					),
					afterKm: fc.nat(200),
					target: fc.constantFrom(0.1, 0.05, 0.01)
				})
			)
		});
		// Half of the stories begin as a case does.
		const story = fc
			.tuple(fc.boolean(), fc.array(event, { maxLength: 16 }))
			.map(([usual, events]) => (usual ? [...REPAIRED, ...events] : events));
		const seen = new Set<Verdict>();
		fc.assert(
			fc.property(story, around, (events, change) => {
				const { verdict, marks, because } = proveCode(events, context(change));
				seen.add(verdict);
				const states = Object.values(marks).map(({ state }) => state);
				expect(because).not.toBe('');
				if (verdict === 'proven-clear') {
					const madeByUs = change.origin.kind === 'made-by-us';
					expect(
						Object.entries(marks).every(
							([mark, { state }]) => state === 'good' || (madeByUs && mark === 'mended')
						)
					).toBe(true);
				}
				if (verdict === 'released') {
					expect(states).toContain('suspect');
					expect(events.some(({ kind }) => kind === 'waived')).toBe(true);
				}
			}),
			{ numRuns: 2000, seed: 7 }
		);
		expect(seen.size).toBeGreaterThan(6);
	});
});

describe('what made it show before the repair', () => {
	const tried = (seconds: number, changes = 0) => [
		{ words: 'the lead moved', before: { changes: 3, seconds: 10 }, since: { changes, seconds } }
	];
	const comes = { before: null, afterKm: 0, target: 0.05 };

	it('is done again, long enough, before anything is proven', () => {
		expect(verdictOf(CLEAN, { provoked: tried(0) })).toBe('not-all-shown');
		expect(proveCode(CLEAN, context({ provoked: tried(5) })).because).toContain('more');
		expect(verdictOf(CLEAN, { provoked: tried(18) })).toBe('proven-clear');
	});

	it('changed again, it is not mended', () => {
		const proof = proveCode(CLEAN, context({ provoked: tried(60, 1) }));
		expect(proof.verdict).toBe('not-all-shown');
		expect(proof.marks.provoked?.state).toBe('bad');
	});

	it('stands for kilometres that nobody counted, and shortens those that somebody did', () => {
		expect(verdictOf(CLEAN, { exposure: comes })).toBe('not-far-enough');
		expect(verdictOf(CLEAN, { exposure: { ...comes, provoked: 0.03 }, provoked: tried(30) })).toBe(
			'proven-clear'
		);
		const told = { before: { returns: 2, km: 20 }, afterKm: 0, target: 0.05 };
		const km = (provoked: number) => residualOf({ ...told, provoked })?.furtherKm;
		// 20 · (0.05^(−1/2) − 1), and with half of the doubt taken away 20 · (0.1^(−1/2) − 1)
		expect(km(1)).toBeCloseTo(69.44, 1);
		expect(km(0.5)).toBeCloseTo(43.25, 1);
		expect(km(0.04)).toBe(0);
	});

	it('is not asked for before anything was mended, and a lead may let it go', () => {
		const unmended = [RECORDED, did(3, 'cleared'), did(4, 'key-cycled'), lamps(4.5), read(5, 0)];
		expect(proveCode(unmended, context({ provoked: tried(0) })).marks.provoked).toBeUndefined();
		expect(verdictOf([...CLEAN, waived(8, 'provoked')], { provoked: tried(0) })).toBe('released');
	});
});
