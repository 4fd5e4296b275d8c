import { describe, expect, it } from 'vitest';
import { analyseLive } from './analyse';
import { madeDrive, randomFrom, spoiled } from './drives.fixture';
import type { FindingType } from './findings';

const FOUR = ['front_left', 'front_right', 'rear_left', 'rear_right'];
const TRAILER = ['axle1_left', 'axle1_right', 'axle2_left', 'axle2_right', 'axle3_left', 'axle3_right'];
const RATES = [5, 10, 20, 50];
const of = <T>(list: readonly T[], n: number): T => list[n % list.length] as T;

type Change = (kmh: number, timeS: number, vehicleKmh: number) => number;
const LATE_S = 110;

/** Each way a signal goes wrong, drawn anew for each seed. */
const WAYS: Record<
	string,
	{ finds: FindingType; also?: FindingType; make: (random: () => number) => Change }
> = {
	'falls to zero and returns': {
		finds: 'dropout',
		make: (random) => {
			const starts = [40, 70, 100, 130].map((s) => s + random() * 15);
			const forS = 0.25 + random() / 2;
			return (kmh, t) => (starts.some((s) => t >= s && t < s + forS) ? 0 : kmh);
		}
	},
	'jumps far above the others': {
		finds: 'spike',
		make: (random) => {
			const starts = [40, 70, 100, 130].map((s) => s + random() * 15);
			return (kmh, t) => (starts.some((s) => t >= s && t < s + 0.21) ? kmh + 60 + 30 * random() : kmh);
		}
	},
	'never reads': { finds: 'stuck-zero', make: () => () => 0 },
	'goes for good': { finds: 'stuck-zero', make: () => (kmh, t) => (t > LATE_S ? 0 : kmh) },
	'is never available': { finds: 'stuck-invalid', make: () => () => 255 },
	'goes out of reach for good': {
		finds: 'stuck-invalid',
		make: () => (kmh, t) => (t > LATE_S ? 655.35 : kmh)
	},
	'jumps about': {
		finds: 'erratic',
		make: (random) => (kmh, _, v) => (v > 8 ? kmh * (0.3 + 1.6 * random()) : kmh)
	},
	'is weak': { finds: 'late-pickup', also: 'early-loss', make: () => (kmh, _, v) => (v < 14 ? 0 : kmh) }
};

describe('drives made from kinematics', () => {
	it('healthy ones, with bends, slip, lurches, noise, coarse steps and gaps, have no finding at any rate', () => {
		for (let seed = 1; seed <= 80; seed++) {
			const recording = madeDrive({
				seed,
				rateHz: of(RATES, seed),
				durationS: 180,
				noiseKmh: of([0.03, 0.1, 0.3], seed),
				stepKmh: of([0.01, 0.1, 1], seed),
				slip: true,
				gaps: seed % 2 === 0,
				positions: seed % 7 === 0 ? TRAILER : FOUR
			});
			if (seed % 2) recording.channels.delete('vehicle');
			const { findings, common } = analyseLive(recording);
			expect(
				[...findings, ...common].map(({ text }) => text),
				`seed ${seed}`
			).toEqual([]);
		}
	});

	it.each(Object.entries(WAYS))(
		'a signal that %s is found, at its wheel and nowhere else',
		(_, { finds, also, make }) => {
			for (let seed = 1; seed <= 16; seed++) {
				const wheel = of(FOUR, seed);
				const healthy = madeDrive({
					seed: seed + 700,
					rateHz: of(RATES.slice(1), seed),
					durationS: 160,
					noiseKmh: 0.1,
					stepKmh: 0.1,
					gaps: seed % 3 === 0
				});
				const recording = spoiled(healthy, wheel, make(randomFrom(seed * 7919)));
				if (seed % 2) recording.channels.delete('vehicle');
				const findings = analyseLive(recording).findings.map(({ type, channel }) => `${type} ${channel}`);
				expect(findings, `seed ${seed}`).toContain(`${finds} ${wheel}`);
				const allowed = [`${finds} ${wheel}`, ...(also ? [`${also} ${wheel}`] : [])];
				expect(
					findings.filter((one) => !allowed.includes(one)),
					`seed ${seed}`
				).toEqual([]);
			}
		}
	);

	it('two wheels that drop out at the same moments are told as one cause, and neither drags the others along', () => {
		const healthy = madeDrive({ seed: 5, rateHz: 20, durationS: 180, noiseKmh: 0.1, stepKmh: 0.1 });
		healthy.channels.delete('vehicle');
		const gone: Change = (kmh, t) => ([50, 80, 110, 140].some((s) => t >= s && t < s + 0.4) ? 0 : kmh);
		const { findings, common } = analyseLive(
			spoiled(spoiled(healthy, 'front_left', gone), 'front_right', gone)
		);
		expect(new Set(findings.map(({ channel }) => channel))).toEqual(new Set(['front_left', 'front_right']));
		expect(common.map(({ channels }) => channels)).toEqual([['front_left', 'front_right']]);
		expect(common[0]?.text).toMatch(/share/);
	});

	it('a frozen reading is no speed', () => {
		const healthy = madeDrive({ seed: 8, rateHz: 20, durationS: 120, noiseKmh: 0.05, stepKmh: 0.01 });
		let held = 0;
		const frozen = spoiled(healthy, 'rear_left', (kmh, t) => (t < 60 ? (held = kmh) : Math.max(held, 31.27)));
		const [finding] = analyseLive(frozen).findings;
		expect(finding).toMatchObject({ type: 'stuck-invalid', channel: 'rear_left' });
		expect(finding?.text).toMatch(/frozen at/);
	});
});
