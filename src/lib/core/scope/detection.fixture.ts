import { analyseChannel } from './analyseChannel';
import type { ChannelAnalysis } from './findings';
import { evenNumbers, makeSignal, type SignalPlan } from './signals.fixture';

/** A kind of signal that is tried over many seeds, and what the analysis must say of it. */
export interface Trial {
	name: string;
	/** What is done to a sound signal. */
	change: (plan: SignalPlan) => Partial<SignalPlan>;
	right: (analysis: ChannelAnalysis, plan: SignalPlan) => boolean;
}

const RATE_HZ = 20_000;
const LEAST_TURNS = 2.6;

/**
 * A sound signal drawn from a seed: either family, 29–99 teeth, 60–560 Hz changing by up to ±40 % during the capture, as
 * long as two turns and a half at least.
 */
export function drawnPlan(seed: number, snrDb?: number): SignalPlan {
	const even = evenNumbers(seed * 7919);
	const kind = even() < 0.5 ? 'active' : 'passive';
	const teeth = 29 + Math.floor(even() * 71);
	const hz = 60 + even() * 500;
	const endHz = hz * (0.6 + 0.8 * even());
	return {
		kind,
		rateHz: RATE_HZ,
		durationS: Math.max(1, (LEAST_TURNS * teeth) / Math.min(hz, endHz)),
		teeth,
		hz,
		endHz,
		startTurn: even(),
		duty: kind === 'active' ? 0.25 + 0.5 * even() : 0.5,
		biasV: kind === 'passive' && even() < 0.3 ? 2.2 : 0,
		seed,
		...(snrDb === undefined ? {} : { snrDb })
	};
}

const only = (type: string) => (analysis: ChannelAnalysis) =>
	analysis.findings.length === 1 && analysis.findings[0]?.type === type;
const ofRing = (type: string) => (analysis: ChannelAnalysis, plan: SignalPlan) =>
	only(type)(analysis) && analysis.findings[0]?.perRev === true && analysis.teethPerRev === plan.teeth;

export const SOUND: Trial = {
	name: 'sound: nothing may be found',
	change: () => ({}),
	right: (analysis, plan) => analysis.findings.length === 0 && analysis.kind === plan.kind
};
export const TRIALS: Trial[] = [
	SOUND,
	{
		name: 'one tooth missing',
		change: ({ teeth }) => ({ missing: [teeth >> 2] }),
		right: ofRing('missing-tooth')
	},
	{
		name: 'two teeth missing, apart',
		change: ({ teeth }) => ({ missing: [3, 3 + Math.floor(teeth / 3)] }),
		right: ofRing('missing-tooth')
	},
	{
		name: 'seven teeth covered',
		change: () => ({ missing: [5, 6, 7, 8, 9, 10, 11] }),
		right: ofRing('missing-tooth')
	},
	{
		name: 'run-out of 30 %; teeth counted within one',
		change: () => ({ runOut: 0.3, duty: 0.5 }),
		right: (analysis, plan) =>
			only('run-out')(analysis) && Math.abs((analysis.teethPerRev ?? 0) - plan.teeth) <= 1
	},
	{
		name: 'signal lost twice, for 70 and 40 ms',
		change: () => ({
			dead: [
				[0.4, 0.47],
				[0.7, 0.74]
			]
		}),
		right: (analysis) => only('dropout')(analysis) && analysis.findings[0]?.count === 2
	},
	{
		name: 'two spikes of 200 µs',
		change: ({ kind, hz }) => ({
			spikes: [0.4, 0.7],
			spikeV: kind === 'active' ? 3 : (2.6 * 1.4 * hz) / 100
		}),
		right: (analysis) => only('spike')(analysis) && analysis.findings[0]?.count === 2
	}
];

/** How many of so many seeds come out right, and the seeds that do not. */
export function tryOver(
	{ change, right }: Trial,
	seeds: number,
	snrDb: number | undefined
): { right: number; wrong: number[] } {
	const wrong: number[] = [];
	for (let seed = 1; seed <= seeds; seed++) {
		const plan = drawnPlan(seed, snrDb);
		const changed = { ...plan, ...change(plan) };
		if (!right(analyseChannel('x', makeSignal(changed), RATE_HZ, 0), changed)) wrong.push(seed);
	}
	return { right: seeds - wrong.length, wrong };
}
