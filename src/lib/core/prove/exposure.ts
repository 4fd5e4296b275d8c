import { exposureNeeded, silentChance } from './silentChance';

/** How often a fault that comes and goes came before the repair, and how far it has stayed away since. */
export interface Exposure {
	/** Returns over `beforeKm`; null where nobody has said. */
	before: { returns: number; km: number } | null;
	/** Driven since the clear, in the conditions in which it used to show. */
	afterKm: number;
	/** How it has to be driven for a distance to count, in words; empty where any counts. */
	drivenSo?: string;
	/** Residual chance that the shop asks for: 0.1, 0.05, 0.01. */
	target: number;
	/** Chance that it would have stayed silent unrepaired while it was provoked as before; 1, or absent, where it was not. */
	provoked?: number;
}

/** Residual chance that is asked for where nobody has said. */
export const USUAL_TARGET = 0.05;

export interface Residual {
	/** That an unrepaired fault would have stayed silent all the same. */
	chance: number;
	/** Still to be driven until it is down to the target; 0 once it is. */
	furtherKm: number;
}

/** Null where it is not known how often it came, nor was it provoked. @throws RangeError for a count or distance that cannot be */
export function residualOf({ before, afterKm, target, provoked = 1 }: Exposure): Residual | null {
	if (!before) return provoked <= target ? { chance: provoked, furtherKm: 0 } : null;
	const neededKm = provoked <= target ? 0 : exposureNeeded(before.returns, before.km, target / provoked);
	return {
		chance: provoked * silentChance(before.returns, before.km, afterKm),
		furtherKm: Math.max(0, neededKm - afterKm)
	};
}

const percent = (share: number): string => {
	const value = share * 100;
	return `${Number(value.toFixed(value >= 10 ? 0 : 1))} %`;
};
const km = (distance: number): string => `${distance.toFixed(distance < 10 ? 1 : 0)} km`;

/** One sentence for the checklist. */
export function exposureWords(exposure: Exposure): string {
	const residual = residualOf(exposure);
	const { before, afterKm, target } = exposure;
	const so = exposure.drivenSo ? ` ${exposure.drivenSo}` : '';
	if (!residual) return 'It comes and goes: say how often it came before.';
	if (!before)
		return `Provoked as before, it stayed away: unrepaired, it would have with a chance of ${percent(residual.chance)}.`;
	const came = `It came ${before.returns === 1 ? 'once' : `${before.returns} times`} in ${km(before.km)}; ${km(afterKm)}${so} without it since.`;
	const chance = `Unrepaired, it would have stayed silent that far with a chance of ${percent(residual.chance)}`;
	return residual.furtherKm > 0
		? `${came} ${chance}: ${km(residual.furtherKm)} more${so} for ${percent(target)}.`
		: `${came} ${chance}, below the ${percent(target)} this shop asks for.`;
}
