/**
 * What two-wire sensors say besides their teeth. Figures as they are usual in the trade; a maker's sheet decides.
 *
 * The current-pulse kind rests at its low level, marks a tooth by a short pulse of four times that, and after half a pulse's
 * pause sends nine bits at twice the low level, each as long as the pulse, in Manchester code: low then high is 1.
 *
 * The pulse-width kind rises from its low level to twice that for one pulse a tooth, and its length is what it says.
 */

/** Length of the pulse that marks a tooth, and of each bit after it, s. */
export const BIT_S = 50e-6;
/** From the end of that pulse to the first bit, in lengths of a bit. */
export const PAUSE_BITS = 0.5;
/** A current-pulse sensor at which no tooth passes says so this often, with a pulse no higher than its bits, s. */
export const STANDING_EACH_S = 0.15;

export const TELEGRAM_BITS = 9;
/** Strengths of the field that three bits tell, 0 to 7. */
export const MOST_STRENGTH = 7;

export interface Telegram {
	/** The field's reserve is used up: it still switches, and only just. */
	weak: boolean;
	/** Whether it knows which way it turns. */
	directionKnown: boolean;
	forwards: boolean;
	/** Of the field, 0 to {@link MOST_STRENGTH}. */
	strength: number;
}

/** Bits in the order in which they are sent: reserve, two of the maker's own, direction known, direction, strength (lowest first), parity. */
export function encodeTelegram({ weak, directionKnown, forwards, strength }: Telegram): boolean[] {
	const bits = [
		weak,
		false,
		false,
		directionKnown,
		directionKnown && forwards,
		(strength & 1) > 0,
		(strength & 2) > 0,
		(strength & 4) > 0
	];
	return [...bits, bits.filter(Boolean).length % 2 === 1];
}

/** What nine bits say; null where their parity is odd. */
export function decodeTelegram(bits: readonly boolean[]): Telegram | null {
	if (bits.length !== TELEGRAM_BITS || bits.filter(Boolean).length % 2 === 1) return null;
	const [weak = false, , , directionKnown = false, forwards = false, one, two, four] = bits;
	return { weak, directionKnown, forwards, strength: Number(one) + 2 * Number(two) + 4 * Number(four) };
}

/** Level of a telegram at a moment after the start of its first pulse. @returns `pulse`, `bit` or `low` */
export function telegramLevel(bits: readonly boolean[], sinceS: number): 'pulse' | 'bit' | 'low' {
	if (sinceS < 0) return 'low';
	if (sinceS < BIT_S) return 'pulse';
	const at = sinceS / BIT_S - 1 - PAUSE_BITS;
	const bit = at < 0 ? undefined : bits[Math.floor(at)];
	if (bit === undefined) return 'low';
	return at % 1 >= 0.5 === bit ? 'bit' : 'low';
}

/** Lengths of the pulses of the other kind, s. */
export const PULSE_WIDTHS_S = { weak: 45e-6, backwards: 90e-6, forwards: 180e-6, standing: 1.44e-3 } as const;
export type PulseSays = keyof typeof PULSE_WIDTHS_S;
/** Where no tooth passes it pulses this often, s. */
export const STANDING_PULSE_EACH_S = 0.74;
