import { describe, expect, it } from 'vitest';
import type { Condition } from '../conditions/condition';
import { crossingSentence, thresholdOf } from './codeThreshold';
import { tyreReport, whatIfs, type FittedTyre } from './tyreReport';

const car = (fl: string, fr: string, rl: string, rr: string): FittedTyre[] =>
	[fl, fr, rl, rr].map((size, i) => ({
		position: ['front-left', 'front-right', 'rear-left', 'rear-right'][i] ?? '',
		axle: i < 2 ? 1 : 2,
		side: i % 2 === 0 ? 'left' : 'right',
		size,
		treadMm: null,
		pressureShare: null
	}));
const OPTIONS = { loadFactor: 0.96, thresholdKmh: null, drive: 'rear' as const };
const reportOf = (tyres: FittedTyre[]) => {
	const made = tyreReport(tyres, OPTIONS);
	if (!made.ok) throw new Error(JSON.stringify(made.error));
	return made.value;
};

describe('tyres of a vehicle', () => {
	it('two to six wheels, each with its own size', () => {
		const trailer: FittedTyre[] = [1, 2, 3].flatMap((axle) =>
			(['left', 'right'] as const).map((side) => ({
				position: `axle${axle}-${side}`,
				axle,
				side,
				size: axle === 3 ? '185R14C' : '195R14C',
				treadMm: null,
				pressureShare: null
			}))
		);
		expect(reportOf(trailer).comparison.frontToRear).toBeGreaterThan(1.01);
		expect(reportOf(trailer.slice(0, 2)).comparison.spreadPercent).toBeCloseTo(0, 9);
	});

	it('a size that cannot be read is told at its wheel', () => {
		const made = tyreReport(car('205/55R16', 'round', '205/55R16', ''), OPTIONS);
		expect(made.ok ? [] : Object.keys(made.error)).toEqual(['front-right', 'rear-right']);
	});

	it('ratings that differ and a spare are cautions', () => {
		const { cautions } = reportOf(car('205/55R16 91V', '205/55R16 91V', '205/55R16 94H', 'T125/70D16'));
		expect(cautions.join(' ')).toMatch(/temporary spare.*Load ratings.*Speed ratings/);
		expect(reportOf(car('205/55R16 91V', '205/55R16 91V', '205/55R16', '205/55R16')).cautions).toEqual([]);
	});

	it('what if the axles are swapped: the other axle reads faster, and the symptom changes', () => {
		const tyres = car('205/55R16', '205/55R16', '205/60R16', '205/60R16');
		expect(reportOf(tyres).believes).toMatch(/front axle is not driven/);
		const swapped = whatIfs(tyres).find(({ name }) => name.startsWith('front and rear'));
		expect(reportOf(swapped?.tyres ?? []).believes).toMatch(/driven rear axle reads faster.*cuts power/);
	});

	it('what if the odd one is made like the rest: nothing is left', () => {
		const odd = whatIfs(car('205/55R16', '205/55R16', '205/55R16', 'T125/70D16')).find(
			({ name }) => name === 'all 205/55R16'
		);
		expect(reportOf(odd?.tyres ?? []).comparison.spreadPercent).toBeCloseTo(0, 9);
		expect(whatIfs(car('205/55R16', '205/55R16', '205/55R16', '205/55R16'))).toEqual([]);
	});
});

describe('what a code allows', () => {
	const difference: Condition = {
		kind: 'held',
		forS: 2,
		of: {
			kind: 'all',
			of: [
				{
					kind: 'compare',
					left: { kind: 'signal', signal: 'vehicle' },
					is: 'above',
					right: { kind: 'value', value: 20 },
					hysteresis: 0
				},
				{
					kind: 'compare',
					left: { kind: 'difference', between: ['front_left', 'rear_left'] },
					is: 'above',
					right: { kind: 'value', value: 6 },
					hysteresis: 0
				}
			]
		}
	};
	const share: Condition = {
		kind: 'compare',
		left: { kind: 'signal', signal: 'rear_left' },
		is: 'below',
		right: { kind: 'share', percent: 85, of: 'vehicle' },
		hysteresis: 0
	};

	it('is read off its set conditions, as km/h or as a share', () => {
		expect(thresholdOf(difference)).toEqual({ kind: 'kmh', kmh: 6 });
		expect(thresholdOf(share)).toEqual({ kind: 'percent', percent: 15 });
		expect(thresholdOf({ kind: 'not', of: { ...share, right: { kind: 'value', value: 3 } } })).toBeNull();
	});

	it('is crossed from threshold over spread on', () => {
		expect(crossingSentence({ kind: 'kmh', kmh: 6 }, 5)).toMatch(/from 120 km\/h on/);
		expect(crossingSentence({ kind: 'kmh', kmh: 6 }, 1)).toMatch(/not crossed/);
		expect(crossingSentence({ kind: 'kmh', kmh: 6 }, 0)).toMatch(/never/);
		expect(crossingSentence({ kind: 'percent', percent: 15 }, 16)).toMatch(/any speed/);
		expect(crossingSentence({ kind: 'percent', percent: 15 }, 11.5)).toMatch(/3\.5 % are left/);
	});
});
