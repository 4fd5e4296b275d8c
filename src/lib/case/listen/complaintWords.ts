import { symptoms } from '../../../../library/vocabulary';
import type { ComplaintAnswer, ComplaintAnswered } from '../entries/complaint-answered/payload';

export const ANSWER_WORDS: Record<ComplaintAnswer, string> = {
	'shows-again': 'it shows again',
	'does-not-show': 'tried the same way, it does not show',
	gone: 'gone since the repair, tried the same way',
	explained: 'explained: it is as it should be, or follows from what was found'
};

/** The answers as somebody chooses among them, and what is then asked for. */
export const ANSWER_CHOICES: readonly { how: ComplaintAnswer; label: string; asks: string }[] = [
	{ how: 'shows-again', label: 'shows again', asks: 'When: speed, road, load' },
	{ how: 'does-not-show', label: 'does not show', asks: 'How it was tried: speed, road, load' },
	{ how: 'gone', label: 'is gone since the repair', asks: 'How it was tried: speed, road, load' },
	{ how: 'explained', label: 'is explained', asks: 'By what' }
];

/** One thing that the customer said, as it was said. */
export function thingWords({ what, thing }: Pick<ComplaintAnswered, 'what' | 'thing'>): string {
	if (what === 'felt') return symptoms.get(thing)?.words ?? thing;
	return what === 'lamp' ? `${thing} lamp` : thing;
}
