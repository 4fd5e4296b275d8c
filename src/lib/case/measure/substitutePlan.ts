import type { SubstituteMethod } from '../../../../library/measure';
import type { Position } from '../../../../library/positions';
import { frequencyForSpeedHz, resistorForCurrent } from '../../core/electrical/substitute';
import { HIGH_A, USUAL_FEED_V } from '../../core/electrical/twoWire';
import type { Substitution } from '../entries/substitution/payload';
import { judgeLevel, judgeSubstitution, type SubstituteSaid } from './substituteJudgement';

/** What is known of the wheel whose sensor a signal takes the place of; null = not known. */
export interface WheelKnown {
	teeth: number | null;
	circumferenceM: number | null;
	senseResistorOhms: number | null;
}

/** What is to be produced, and what the module should make of it. */
export interface SubstituteAim {
	/** Shown by live data; 0 where only *something* is expected, or a level instead of a speed. */
	expectedKmh: number;
	hertz: number | null;
	ohms: number | null;
}

type Method = Pick<
	SubstituteMethod,
	'id' | 'name' | 'source' | 'expects' | 'proves' | 'implicates' | 'volts'
>;

/** @param wantedKmh speed that somebody wants to see; null = none was said */
export function aimOf(
	{ expects }: Pick<Method, 'expects'>,
	wantedKmh: number | null,
	{ teeth, circumferenceM, senseResistorOhms }: WheelKnown
): SubstituteAim {
	const bySpeed = expects === 'speed' || expects === 'mate';
	return {
		expectedKmh: bySpeed ? (wantedKmh ?? 0) : 0,
		hertz:
			expects === 'speed' && wantedKmh && teeth && circumferenceM
				? frequencyForSpeedHz(teeth, wantedKmh, circumferenceM)
				: null,
		ohms:
			expects === 'level' && senseResistorOhms
				? Math.round(resistorForCurrent(USUAL_FEED_V, HIGH_A, senseResistorOhms))
				: null
	};
}

/** What was seen while the signal was held. */
export interface SubstituteSeen {
	/** Lowest and highest of the live value; null = none was shown. */
	kmh: { low: number; high: number } | null;
	/** Whether anybody has watched long enough for no value to mean something. */
	watched: boolean;
	/** At the module's signal pin. */
	volts: number | null;
	/** The code was cleared with the signal on: only then does no value mean that nothing arrives. */
	clearedSince: boolean;
}

/** @returns null where nothing can be said yet */
export function judgeSeen(
	method: Method,
	aim: SubstituteAim,
	{ kmh, watched, volts, clearedSince }: SubstituteSeen,
	senseResistorOhms: number | null
): SubstituteSaid | null {
	if (method.expects === 'level')
		return volts === null || senseResistorOhms === null ? null : judgeLevel(method, volts, senseResistorOhms);
	return watched ? judgeSubstitution(method, aim.expectedKmh, kmh, clearedSince) : null;
}

/** Plugs that are open while a signal is held: codes of their circuits are made by us. */
export function openedBy(source: Method['source'], at: Position, mate: Position): Position[] {
	if (source === 'steel') return [];
	return source === 'mate' ? [at, mate] : [at];
}

/** The entry of a substitution that was judged. */
export const substitutionOf = (
	method: Method,
	{ at, mate }: { at: Position; mate: Position },
	aim: SubstituteAim,
	seen: Pick<SubstituteSeen, 'kmh'>,
	said: SubstituteSaid
): Substitution => ({
	position: at,
	method: method.id,
	name: method.name,
	hertz: aim.hertz,
	ohms: aim.ohms,
	expectedKmh: aim.expectedKmh,
	seenKmh: method.expects === 'level' ? null : seen.kmh,
	...said,
	opened: openedBy(method.source, at, mate)
});
