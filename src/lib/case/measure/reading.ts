import { valueWords } from './measureWords';

/** The display shows that there is more than the meter can measure: a reading too, and no number. */
export const OVER_RANGE = 'over-range';
/** What a meter shows, V or Ω. */
export type MeterReading = number | typeof OVER_RANGE;

export const readingWords = (reading: MeterReading, quantity: 'V' | 'Ω'): string =>
	valueWords(reading === OVER_RANGE ? null : reading, quantity);
