import { upperFirst } from '$lib/case/words';
import type { Show } from '$lib/case/progress/floorPlan';

/** What each part of the floor is called. */
export const SHOW_NAMES: readonly { show: Show; name: string }[] = [
	{ show: 'all', name: 'All' },
	{ show: 'mine', name: 'Mine' },
	{ show: 'late', name: 'Late or back' },
	{ show: 'waits', name: 'Waiting' },
	{ show: 'sign', name: 'To sign' },
	{ show: 'call', name: 'To call' }
];

const WORDS = [
	'no',
	'one',
	'two',
	'three',
	'four',
	'five',
	'six',
	'seven',
	'eight',
	'nine',
	'ten',
	'eleven',
	'twelve'
];
const spell = (n: number): string => WORDS[n] ?? String(n);

/** The floor in one sentence. @param today how many are finished today, all together */
export function floorHeading(counts: Record<Show, number>, today: number): string {
	const parts = [
		`${spell(counts.all)} ${counts.all === 1 ? 'case' : 'cases'} open`,
		...(counts.late > 0 ? [`${spell(counts.late)} late or back`] : []),
		...(today > 0 ? [`${spell(today)} can be finished today`] : []),
		...(counts.sign > 0 ? [`${spell(counts.sign)} to sign`] : [])
	];
	return upperFirst(parts.join(', '));
}
