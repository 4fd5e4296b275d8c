import type { Condition } from '../conditions/condition';
import { isWheel } from '../live/recording';

/** How far two wheel speeds may be apart before a code minds. */
export type CodeThreshold = { kind: 'kmh'; kmh: number } | { kind: 'percent'; percent: number };

/**
 * The limit that a set condition puts on the difference of wheels: a difference of two speeds in km/h, or a wheel's share
 * of the vehicle's speed. Null where it speaks of neither.
 */
export function thresholdOf(condition: Condition): CodeThreshold | null {
	if (condition.kind === 'compare') {
		const { left, right, is } = condition;
		if (left.kind === 'difference' && left.between.some(isWheel) && right.kind === 'value')
			return { kind: 'kmh', kmh: right.value };
		if (left.kind === 'signal' && isWheel(left.signal) && right.kind === 'share') {
			const percent = is === 'above' || is === 'at-least' ? right.percent - 100 : 100 - right.percent;
			return percent > 0 && percent < 100 ? { kind: 'percent', percent } : null;
		}
		return null;
	}
	const parts = Array.isArray(condition.of) ? condition.of : [condition.of];
	for (const part of parts) {
		const found = thresholdOf(part);
		if (found) return found;
	}
	return null;
}

/** When tyres as different as these make a code, in a sentence. @param spreadPercent largest over smallest, less one */
export function crossingSentence(threshold: CodeThreshold, spreadPercent: number): string {
	if (threshold.kind === 'percent') {
		const limit = `it allows ${threshold.percent.toFixed(0)} %`;
		return spreadPercent >= threshold.percent
			? `${limit}: crossed at any speed at which it looks.`
			: `${limit}: not reached, ${(threshold.percent - spreadPercent).toFixed(1)} % are left for wear and pressure.`;
	}
	const limit = `it allows ${threshold.kmh.toFixed(1)} km/h`;
	if (spreadPercent < 0.05) return `${limit}: never crossed.`;
	const at = (threshold.kmh / spreadPercent) * 100;
	return at > 250
		? `${limit}: not crossed at any speed it drives.`
		: `${limit}: crossed from ${at.toFixed(0)} km/h on.`;
}
