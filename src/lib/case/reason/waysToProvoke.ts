import type { Position } from '../../../../library/positions';
import { onceMore, testsFor, type PlacedTest } from '../../../../library/reason/tests';
import { decide, minutesOf } from '../../core/path/nextTest';
import type { Moved, Provoking } from '../entries/live-recording/payload';
import type { Reasoning } from './reasoning';
import { tellsWords, type Tells } from './words';

/** What makes a fault show that comes and goes, in the order of what it tells a minute. */

/** Tests of the library that provoke, and what is done in each. */
const PROVOKES: Record<string, { does: Provoking | 'clear' | 'spin' | 'road'; is?: Moved; words: string }> = {
	recheck: { does: 'clear', words: 'Clear, key off and on, read again standing' },
	spin: { does: 'spin', words: 'Turn each wheel and watch' },
	road: { does: 'road', words: 'Drive it and record' },
	'in-gear': { does: 'in-gear', words: 'Run it in gear on stands' },
	'wiggle-sensor': { does: 'move', is: 'sensor', words: 'Press and twist the sensor' },
	'wiggle-plug': { does: 'move', is: 'sensor-plug', words: 'Move the sensor’s plug' },
	'wiggle-lead': { does: 'move', is: 'lead', words: 'Move the lead, clip by clip' },
	'wiggle-far': { does: 'move', is: 'module-plug', words: 'Move the module’s plug' },
	spray: { does: 'wet', words: 'Spray water on plug and lead' },
	warm: { does: 'warm', words: 'Warm sensor and plug with hot air' },
	lock: { does: 'lock', words: 'Turn the steering slowly from lock to lock' }
};
export const isProvoking = (test: string): boolean => Object.hasOwn(PROVOKES, test);

export interface WayToProvoke {
	/** Of the library's test. */
	test: string;
	does: (typeof PROVOKES)[string]['does'];
	is: Moved | null;
	/** In few words: on a page where it is plain that the wheel is turned. */
	name: string;
	why: string;
	/** With what it takes to get there from here. */
	minutes: number;
	bits: number;
	tells: Tells;
	exposes: PlacedTest;
}

/** Every way at a wheel; those that tell nothing more come last. */
export function waysToProvoke(
	{ model, situation, candidates, policy, accessGained, observations, epoch }: Reasoning,
	position: Position
): WayToProvoke[] {
	const open = new Map(candidates.map((one) => [one.id, one]));
	const seen = new Map(
		observations.filter((one) => one.epoch === epoch).map((one) => [one.sign.split('~')[0], one.outcome])
	);
	// What was tried without result may be tried again: that it then shows is told by how it was before.
	const ways = testsFor(model.type)
		.filter(({ kind, place }) => isProvoking(kind.id) && (place === position || kind.about === 'vehicle'))
		.map((test) => open.get(test.id) ?? onceMore(test, (sign) => seen.get(sign)));
	const { ranked } = decide(model, situation, ways, policy, accessGained, { ahead: 0, ranked: ways.length });
	const bitsOf = new Map(ranked.map(({ test, bits }) => [test.id, bits]));
	return ways
		.map((test): WayToProvoke => {
			const { kind } = test;
			const bits = bitsOf.get(test.id) ?? 0;
			const what = PROVOKES[kind.id] ?? { does: 'road' as const, words: kind.name };
			return {
				test: kind.id,
				does: what.does,
				is: what.is ?? null,
				name: what.words,
				why: kind.why,
				minutes: minutesOf(test, accessGained),
				bits,
				tells: tellsWords(bits),
				exposes: test
			};
		})
		.sort((a, b) => b.bits / b.minutes - a.bits / a.minutes || a.minutes - b.minutes);
}
