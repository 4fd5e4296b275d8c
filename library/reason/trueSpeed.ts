import type { Fault } from '../faults';

/**
 * The speed that each wheel tells against a speed from elsewhere: satellites, or the roller of a dyno. Two axles of different tyres
 * do not say which is wrong; this does. The chances follow from what a fault does to circumference, teeth and coding.
 */

export const TRUE_SPEED = 'true-speed';
export const TRUE_SPEED_OUTCOMES = ['right', 'fast', 'slow'] as const;
export type TrueSpeed = (typeof TRUE_SPEED_OUTCOMES)[number];

/** Wear, pressure and the source itself make up to this much. */
const RIGHT_WITHIN = 0.015;
export const trueSpeedOf = (ownKmh: number, trueKmh: number): TrueSpeed => {
	const off = ownKmh / trueKmh - 1;
	return Math.abs(off) <= RIGHT_WITHIN ? 'right' : off > 0 ? 'fast' : 'slow';
};

type Chances = Record<TrueSpeed, number>;
const RIGHT: Chances = { right: 0.96, fast: 0.02, slow: 0.02 };
const FAST: Chances = { right: 0.04, fast: 0.94, slow: 0.02 };
const SLOW: Chances = { right: 0.04, fast: 0.02, slow: 0.94 };
/** Another number of teeth, and nobody says which way. */
const OFF: Chances = { right: 0.04, fast: 0.48, slow: 0.48 };

/** Circumference and teeth that a module is coded with. */
const CODED = { circumference: 'D150', teeth: 'D151' };

/**
 * @param fault of the wheel itself or of its axle, or of the module that reads it; null = of neither
 */
export function trueSpeedChance(outcome: string, fault: Pick<Fault, 'effects'> | null): number {
	return chancesOf(fault)[outcome as TrueSpeed];
}

function chancesOf(fault: Pick<Fault, 'effects'> | null): Chances {
	for (const effect of fault?.effects ?? []) {
		if (effect.do === 'tyre') return meanOf(effect.scale) < 1 ? FAST : SLOW;
		if (effect.do === 'ring' && effect.what === 'teeth') return OFF;
		if (effect.do === 'keep' && effect.what === 'scale') {
			const bigger = meanOf(effect.amount) > 1;
			if (effect.id === CODED.circumference) return bigger ? FAST : SLOW;
			if (effect.id === CODED.teeth) return bigger ? SLOW : FAST;
		}
	}
	return RIGHT;
}

const meanOf = ([a, b]: readonly [number, number]): number => (a + b) / 2;
