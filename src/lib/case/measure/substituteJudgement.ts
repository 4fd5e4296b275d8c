import { HIGH_A } from '../../core/electrical/twoWire';
import type { SubstituteMethod } from '../../../../library/measure';
import type { Link } from '../../../../library/links';
import { judgeSubstitute, type SubstituteOutcome } from '../../core/electrical/substitute';

/** Half-width of what counts as the upper level. */
const LEVEL_SHARE = 0.2;

/** What a signal in place of the sensor's has shown. */
export interface SubstituteSaid {
	outcome: SubstituteOutcome;
	says: string;
	proves: Link[];
	implicates: Link[];
}

/**
 * @param seenKmh null where the module showed no value at all
 * @param clearedSince whether its code was cleared with the signal in place: before that a module that has seen a hard fault
 *   shows no value whatever arrives
 * @returns null where nothing can be told yet
 */
export function judgeSubstitution(
	method: Pick<SubstituteMethod, 'expects' | 'proves' | 'implicates'>,
	expectedKmh: number,
	seenKmh: { low: number; high: number } | null,
	clearedSince: boolean
): SubstituteSaid | null {
	if (seenKmh === null && !clearedSince) return null;
	return said(method, judgeSubstitute(method.expects === 'something' ? 0 : expectedKmh, seenKmh));
}

/** A resistor makes a level instead of a speed. @param volts at the module's signal pin */
export function judgeLevel(
	method: Pick<SubstituteMethod, 'proves' | 'implicates' | 'expects'>,
	volts: number,
	senseOhms: number
): SubstituteSaid {
	const expected = HIGH_A * senseOhms;
	return said(method, Math.abs(volts - expected) <= LEVEL_SHARE * expected ? 'follows' : 'nothing');
}

export const upperLevelVolts = (senseOhms: number): number => HIGH_A * senseOhms;

function said(
	{ proves, implicates, expects }: Pick<SubstituteMethod, 'proves' | 'implicates' | 'expects'>,
	outcome: SubstituteOutcome
): SubstituteSaid {
	const wires = 'harness, plugs and module input';
	switch (outcome) {
		case 'follows':
			return {
				outcome,
				says: proves.includes('sensor')
					? `The module follows: sensor, ${wires} work. What is left is ring and gap.`
					: expects === 'level'
						? 'The level arrives: harness and plugs carry it. Whether the module counts is another question.'
						: `The module follows: ${wires} work. The fault is at the wheel: sensor, gap or ring.`,
				proves: [...proves],
				implicates: proves.includes('sensor') ? ['ring', 'gap'] : ['ring', 'gap', 'sensor']
			};
		case 'nothing':
			return {
				outcome,
				says: `Nothing arrives: the fault is between here and the module’s logic. Halve the harness next.`,
				proves: [],
				implicates: [...implicates]
			};
		case 'not-steady':
			return {
				outcome,
				says: 'It comes and goes while the signal is steady: a contact or a wire on the way. Wiggle along it.',
				proves: [],
				implicates: implicates.filter((link) => link !== 'module-input')
			};
		case 'another-value':
			return {
				outcome,
				says: 'It follows, but with another speed: the module is set for another ring or tyre, or the frequency was not what was meant.',
				proves: proves.filter((link) => link !== 'configuration'),
				implicates: ['configuration']
			};
	}
}
