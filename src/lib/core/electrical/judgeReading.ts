/** What a value may be, both ends included. */
export interface Window {
	low: number;
	high: number;
}

export type Judgement = 'in' | 'out' | 'borderline';

export type Quantity = 'V' | 'Ω' | 'A';

/** Of the reading, and of the range's last digits in the quantity's unit: what hand-held meters state. */
const ACCURACY: Record<Quantity, { share: number; plus: number }> = {
	V: { share: 0.005, plus: 0.003 },
	Ω: { share: 0.008, plus: 0.2 },
	A: { share: 0.012, plus: 0.002 }
};

/** By how much a reading of a hand-held meter may be wrong, in its unit. A reading over the range has no such number. */
export const meterAccuracy = (quantity: Quantity, value: number): number =>
	Number.isFinite(value) ? Math.abs(value) * ACCURACY[quantity].share + ACCURACY[quantity].plus : 0;

/**
 * A reading against its window: *borderline* where the meter's own accuracy spans an end of the window.
 *
 * @param value Infinity = over the range
 * @param accuracy half of the span within which the true value lies
 */
export function judgeReading(value: number, { low, high }: Window, accuracy: number): Judgement {
	if (value === Infinity) return high === Infinity ? 'in' : 'out';
	// Nothing is below nothing: a window that begins at 0 has no lower end to miss.
	const floor = low === 0 ? -Infinity : low;
	if (value - accuracy >= floor && value + accuracy <= high) return 'in';
	if (value + accuracy < floor || value - accuracy > high) return 'out';
	return 'borderline';
}
