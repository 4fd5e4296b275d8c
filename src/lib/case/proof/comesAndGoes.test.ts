import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { DrivenBand } from '../../core/prove/drivenBands';
import { drivenIn } from '../../core/prove/odometer';
import { showsWhenWords } from './drivenKm';
import { begun, COMES_AND_GOES, ProofThread } from './proof.fixture';
import { projectCase } from '../progress/project';
import { caseReport } from '../paper/report';
import { DrivenBands } from '../entries/shapes';
import { type ShowsWhen } from '../entries/returns-told/payload';
import { BRAKE, OPEN } from '../thread/threads.fixture';

const ANY: ShowsWhen = { fromKmh: null, toKmh: null, turning: false, road: null };
const FAST: ShowsWhen = { ...ANY, fromKmh: 60 };
const bands: DrivenBand[] = [
	{ fromKmh: 15, turn: 'left', km: 1 },
	{ fromKmh: 40, turn: 'straight', km: 5 },
	{ fromKmh: 65, turn: 'straight', km: 4 }
];
/** Cleared, told so, then driven. */
const told = (showsWhen: ShowsWhen, ...drives: Parameters<ProofThread['driven']>[]) => {
	const thread = begun(COMES_AND_GOES).told(2, 20, 0.05, showsWhen).proving();
	for (const drive of drives) thread.driven(...drive);
	thread.scan([[BRAKE, OPEN, 0]]);
	return thread.code;
};

describe('kilometres without a fault count where they were driven as it used to show', () => {
	it('by the recorded speed and steering', () => {
		expect(told(ANY, [10, { bands }]).comes?.afterKm).toBe(10);
		expect(told(FAST, [10, { bands }]).comes?.afterKm).toBeCloseTo(4, 9);
		expect(told({ ...ANY, turning: true }, [10, { bands }]).comes?.afterKm).toBeCloseTo(1, 9);
		expect(told({ ...ANY, toKmh: 45 }, [10, { bands }]).comes?.afterKm).toBeCloseTo(6, 9);
	});

	it('on the road it needs', () => {
		const wet: ShowsWhen = { ...FAST, road: 'wet' };
		expect(told(wet, [10, { bands, road: 'dry' }]).comes?.afterKm).toBe(0);
		expect(told(wet, [10, { bands }], [10, { bands, road: 'dry' }]).comes?.afterKm).toBeCloseTo(4, 9);
		expect(told({ ...ANY, road: 'wet' }, [7], [9, { road: 'loose' }]).comes?.afterKm).toBe(7);
	});

	it('by the driver’s word where nothing was read, and never more than was driven', () => {
		expect(told(FAST, [10]).comes?.afterKm).toBe(0);
		expect(told(FAST, [10, { asShownKm: 3 }]).comes?.afterKm).toBe(3);
		expect(told(FAST, [10, { asShownKm: 30 }]).comes?.afterKm).toBe(10);
	});

	it('far enough on paper is not far enough where it was driven otherwise, and the reason says so', () => {
		// 20 · (0.05^(−1/2) − 1) = 69.4 km.
		const far: DrivenBand[] = [{ fromKmh: 40, turn: 'straight', km: 80 }];
		expect(told(ANY, [80, { bands: far }]).verdict).toBe('proven-clear');
		const slow = told(FAST, [80, { bands: far }]);
		expect(slow.verdict).toBe('not-far-enough');
		expect(slow.because).toMatch(/0\.0 km above 60 km\/h without it since\..* 69 km more above 60 km\/h/);
		expect(told(FAST, [80, { bands: far.map((band) => ({ ...band, fromKmh: 60 })) }]).verdict).toBe(
			'proven-clear'
		);
	});

	it('is said in words', () => {
		expect(showsWhenWords({ fromKmh: 40, toKmh: 60, turning: true, road: 'wet' })).toBe(
			'between 40 and 60 km/h, in bends, on a wet road'
		);
		expect(showsWhenWords(ANY)).toBe('');
	});
});

it('whatever speeds a recording tells, its bands are what an entry may hold', () => {
	const channel = fc.array(fc.oneof(fc.double(), fc.double({ min: -400, max: 700, noNaN: true })), {
		minLength: 2,
		maxLength: 60
	});
	fc.assert(
		fc.property(channel, channel, (speed, steering) => {
			const timeS = Float64Array.from(speed, (_, i) => i / 2);
			const driven = drivenIn({
				timeS,
				channels: new Map([
					['vehicle', Float64Array.from(speed)],
					['steering', timeS.map((_, i) => steering[i] ?? NaN)]
				])
			});
			expect(DrivenBands.safeParse(driven?.bands).success).toBe(true);
		})
	);
});

describe('how often it came, from what the case holds', () => {
	const dropouts = (count: number) => ({
		type: 'dropout' as const,
		channel: 'rear_left',
		startS: 1,
		endS: 2,
		count,
		value: 0,
		text: 'rear left drops out'
	});

	it('our own drives: drives that caught it, however often, over all that was driven while that wheel was recorded', () => {
		const thread = begun(COMES_AND_GOES);
		thread.recording({ findings: [dropouts(65)], bands: [{ fromKmh: 40, turn: 'straight', km: 3 }] });
		thread.recording({ bands: [{ fromKmh: 30, turn: 'left', km: 1 }] });
		thread.recording({ findings: [dropouts(2)], bands: [{ fromKmh: 40, turn: 'straight', km: 2 }] });
		thread.recording({ channels: ['vehicle', 'front_left'], bands: [{ fromKmh: 30, turn: 'left', km: 50 }] });
		thread.proving();
		expect(thread.code.comes).toMatchObject({
			before: { returns: 2, km: 6 },
			from: 'our own drives',
			known: [{ from: 'our own drives', returns: 2, km: 6 }]
		});
		// A person's word comes first; what the case holds stays to be seen.
		thread.told(5, 100);
		expect(thread.code.comes).toMatchObject({
			before: { returns: 5, km: 100 },
			from: 'the customer',
			known: [{ from: 'our own drives' }]
		});
	});

	it('what was driven since the clear is no exposure before it', () => {
		const thread = begun(COMES_AND_GOES).proving();
		thread.recording({ findings: [dropouts(2)], bands: [{ fromKmh: 40, turn: 'straight', km: 3 }] });
		expect(thread.code.comes).toMatchObject({ before: null, from: null, known: [] });
	});
});

describe('a code that comes back while it is recorded', () => {
	const heard = (status: number, kmh: number | null) => [{ atS: 61, address: BRAKE, dtc: OPEN, status, kmh }];

	it('fails there and then, though it has passed again when the modules are read', () => {
		const thread = begun().proving();
		thread.recording({ heard: heard(0x2f, 43) }).driven(5);
		expect(thread.code.verdict).toBe('back-while-driving');
		thread.scan([[BRAKE, OPEN, 0]]);
		expect(thread.code.verdict).toBe('back-while-driving');
	});

	it('at standstill it is an electrical fault', () => {
		expect(
			begun()
				.proving()
				.recording({ heard: heard(0x2f, 0) }).code.verdict
		).toBe('back-at-key-on');
	});

	it('that its test has run is heard too, but that it stays away takes a reading of all', () => {
		const thread = begun()
			.proving()
			.recording({ heard: heard(0, 43) })
			.driven(5);
		expect(thread.code.verdict).toBe('test-not-run');
		thread.scan([[BRAKE, OPEN, 0]]);
		expect(thread.code.verdict).toBe('proven-clear');
	});
});

it('what is left of the risk is said in cases, with how it was driven', () => {
	// (20 / 84)² = 5.7 % and (20 / 22.2)² = 81 %.
	const residual = (km: number) => {
		const thread = begun(COMES_AND_GOES).told(2, 20, 0.1, FAST).proving();
		thread.driven(km, { bands: [{ fromKmh: 60, turn: 'straight', km }] });
		thread.scan([[BRAKE, OPEN, 0]]);
		if (thread.code.verdict !== 'proven-clear') thread.letGo('exposure');
		return caseReport(thread.thread, projectCase(thread.thread)).residual;
	};
	expect(residual(64)).toEqual([
		expect.stringMatching(/driven 64\.0 km above 60 km\/h without it: .* in 6 of 100 cases\.$/)
	]);
	expect(residual(2.2)).toEqual([expect.stringMatching(/in 81 of 100 cases\.$/)]);
	expect(residual(2000)).toEqual([expect.stringMatching(/in 1 of 1000 cases\.$/)]);
});
