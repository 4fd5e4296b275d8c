import { setTimeout as pause } from 'node:timers/promises';
import { identifiers } from '../../../../../library';
import { calibrationConditions } from '../../../../../library/calibrations';
import type { CalibrationTried } from '../../../case/entries/calibration/payload';
import { lowerFirst } from '../../../case/words';
import type { ModuleTalk } from './moduleTalk';
import type { CalibrationOrder } from './order';

const READINGS = 3;
const BETWEEN_MS = 250;

/** How each condition of a calibration stands; of one that is not met the value says why. */
export async function lookAtConditions(
	talk: ModuleTalk,
	{ placed, said, circuitCodes }: CalibrationOrder
): Promise<CalibrationTried['conditions']> {
	const looked: CalibrationTried['conditions'] = [];
	for (const id of placed.calibration.conditions) {
		const condition = calibrationConditions.get(id);
		if (!condition) continue;
		const { words } = condition;
		if (condition.how === 'asked')
			looked.push(
				said.has(id)
					? { id, words, state: 'said', value: '' }
					: { id, words, state: 'not-met', value: `nobody has confirmed: ${lowerFirst(words)}` }
			);
		else if (condition.how === 'no-codes') {
			const stands = circuitCodes.length > 0;
			const value = stands ? `${circuitCodes.join(', ')} stands in the module` : '';
			looked.push({ id, words, state: stands ? 'not-met' : 'met', value });
		} else {
			const readings: number[] = [];
			for (let i = 0; i < READINGS; i++) {
				const value = await talk.read(condition.identifier);
				if (typeof value === 'number') readings.push(value);
				if (i + 1 < READINGS) await pause(BETWEEN_MS);
			}
			const rule = identifiers.get(condition.identifier);
			const unit = rule?.as === 'text' ? '' : (rule?.unit ?? '');
			const value = readings.map((one) => `${Number(one.toFixed(2))} ${unit}`.trim()).join(', ');
			const { low, high, mostChange } = condition;
			const met =
				readings.length === READINGS &&
				readings.every((one) => (low === null || one >= low) && (high === null || one <= high)) &&
				(mostChange === null || (readings[0] ?? 0) - (readings.at(-1) ?? 0) <= mostChange);
			looked.push({
				id,
				words,
				state: met ? 'met' : 'not-met',
				value: met ? value : `${lowerFirst(words)} – read ${value || 'nothing'}`
			});
		}
	}
	return looked;
}
