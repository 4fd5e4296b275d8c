/** Each end of a bus is closed by this (ISO 11898-2). */
const TERMINATOR_OHMS = 120;
const TOLERANCE = 0.12;
const SHORT_OHMS = 12;
const OPEN_OHMS = 2_000;

export type BusFinding = 'two' | 'one' | 'three' | 'short' | 'none' | 'between';

/** What the resistance between the two lines, key off, says of the terminators: n of them are 120/n Ω. */
export function busResistance(ohms: number): { finding: BusFinding; text: string } {
	const near = (count: number) => Math.abs(ohms / (TERMINATOR_OHMS / count) - 1) < TOLERANCE;
	if (ohms < SHORT_OHMS)
		return { finding: 'short', text: 'The two lines touch, or nearly: divide the bus and measure again.' };
	if (near(2))
		return { finding: 'two', text: 'Both terminators are there and the lines between them are whole.' };
	if (near(1))
		return { finding: 'one', text: 'One terminator is missing, or a line is open between here and it.' };
	if (near(3))
		return {
			finding: 'three',
			text: 'One terminator too many: a module of another variant, or a tool left in.'
		};
	if (ohms > OPEN_OHMS)
		return {
			finding: 'none',
			text: 'No terminator is seen from here: both lines, or the stub to this plug, are open.'
		};
	return {
		finding: 'between',
		text: `${ohms.toFixed(0)} Ω is no whole number of terminators: a corroded joint, or somebody is still awake.`
	};
}
