import { fromUnit, toUnit } from '../units/units';

export const poundFeet = (newtonMetres: number): number => toUnit(newtonMetres, 'lb·ft');
export const newtonMetres = (pounds: number): number => fromUnit(pounds, 'lb·ft');

/** What a hand wrench is good for (ISO 6789-1: ±4 % to ±6 %), and a little for the hand. */
const TOLERANCE = 0.08;

/** Whether a fastener was drawn to what was asked. Both in N·m. */
export const torqueIsRight = (asked: number, drawn: number): boolean =>
	Math.abs(drawn - asked) <= asked * TOLERANCE + 1e-9;

export interface TorqueStep {
	newtonMetres: readonly number[];
	backOffDeg?: number | undefined;
	angleDeg?: number | undefined;
}

/** The stages of a torque in words: "70 N·m (52 lb·ft), back off 180°, 200 N·m (148 lb·ft)". */
export function torqueWords({ newtonMetres: stages, backOffDeg, angleDeg }: TorqueStep): string {
	const words = stages.map((one) => `${one} N·m (${Math.round(poundFeet(one))} lb·ft)`);
	if (backOffDeg !== undefined) words.splice(1, 0, `back off ${backOffDeg}°`);
	if (angleDeg !== undefined) words.push(`then ${angleDeg}° on`);
	return words.join(', ');
}
