import { describe, expect, it } from 'vitest';
import { benchFault } from '../src/lib/bench/faults/benchFault';
import type { DriveLeg } from '../src/lib/bench/motion';
import { analyseLive } from '../src/lib/core/live/analyse';
import type { Recording } from '../src/lib/core/live/recording';
import { healthyRecordings } from '../scripts/healthyRecordings';
import { benchRecording } from './benchRecording';

const ROUND: DriveLeg[] = [
	{ toKmh: 0, overS: 2 },
	{ toKmh: 30, overS: 9 },
	{ toKmh: 30, overS: 8, steeringDeg: 120 },
	{ toKmh: 70, overS: 12 },
	{ toKmh: 70, overS: 25 },
	{ toKmh: 40, overS: 8 },
	{ toKmh: 40, overS: 6, steeringDeg: -90 },
	{ toKmh: 0, overS: 11 },
	{ toKmh: 0, overS: 2 }
];
const found = (recording: Recording) =>
	analyseLive(recording).findings.map(({ type, channel }) => `${type} ${channel}`);

/** Two hundred come with `npm run fuzz`. */
const HEALTHY_DRIVES = 18;

describe('live data of bench vehicles', () => {
	it.each([
		['brindle-marlow-16', benchFault('lead-open', 'rear-left'), 'stuck-invalid rear_left'],
		['brindle-marlow-16', benchFault('sensor-stuck-low', 'front-right'), 'stuck-zero front_right'],
		['brindle-marlow-16', benchFault('encoder-reversed', 'rear-right'), 'stuck-zero rear_right'],
		['brindle-marlow-16', benchFault('ring-loose', 'front-left', 0.46), 'dropout front_left'],
		['velmora-skiff', benchFault('gap-rust', 'front-left', 0.3), 'late-pickup front_left'],
		['velmora-skiff', benchFault('gap-rust', 'front-left', 0.3), 'early-loss front_left'],
		['brindle-marlow-16', benchFault('tyre-temporary-spare', 'rear-right', 0.2), 'ratio-offset rear_right'],
		['norvane-lichen', benchFault('tyre-soft', 'front-left', 1), 'ratio-offset front_left'],
		['ottaro-pip', benchFault('tyres-odd-axle', 'rear-left', 0.2), 'ratio-offset rear'],
		['brindle-marlow-16', benchFault('ring-wrong-count', 'front-right'), 'ratio-offset front_right'],
		['brindle-marlow-16', benchFault('lead-picks-up-noise', 'rear-left'), 'erratic rear_left'],
		['brindle-marlow-16', benchFault('lead-beside-relay', 'rear-left', 0.6, 0.1), 'spike rear_left'],
		['norvane-lichen', benchFault('tyre-bald', 'front-right'), 'slip front_right'],
		['hexley-drover', benchFault('lead-open', 'axle2-left'), 'stuck-invalid axle2_left']
	])('%s with %o: %s', (id, fault, expected) => {
		expect(found(benchRecording(id, [fault], ROUND))).toContain(expected);
	});

	it('names the ratio of a spare, and the speed at which a weak sensor begins', () => {
		const spare = analyseLive(
			benchRecording('brindle-marlow-16', [benchFault('tyre-temporary-spare', 'rear-right', 0)], ROUND)
		);
		expect(spare.findings.find(({ type }) => type === 'ratio-offset')?.value).toBeCloseTo(1 / 0.9, 2);
		const weak = analyseLive(
			benchRecording('velmora-skiff', [benchFault('gap-rust', 'front-left', 0.3)], ROUND)
		);
		const pickup = weak.findings.find(({ type }) => type === 'late-pickup')?.value ?? 0;
		expect(pickup).toBeGreaterThan(8);
		expect(pickup).toBeLessThan(30);
	});

	it('sound vehicles of every type: nothing on random drives with bends, braking and slip', () => {
		expect(healthyRecordings(HEALTHY_DRIVES, 7)).toEqual([]);
	}, 60_000);
});
