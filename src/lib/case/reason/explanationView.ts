import { smallestExplanations } from '../../core/path/explanations';
import { signs, splitKey } from '../../../../library/reason/signs';
import type { Reasoning } from './reasoning';
import { faultWords } from './words';

/** Explanations less likely than this are not told. */
const TOLD_FROM = 0.02;

const isToExplain = (key: string): boolean => signs.get(splitKey(key).sign)?.toExplain ?? false;

/** "One fault alone explains all that was read": the smallest sets of faults for the codes and the silence. */
export function explanationsShown({ model, observations, belief }: Reasoning): {
	words: string;
	sets: { words: string; p: number }[];
} | null {
	const epoch = observations.reduce((most, one) => Math.max(most, one.epoch), 0);
	const read = observations.filter((one) => one.epoch === epoch && isToExplain(one.sign));
	const found = smallestExplanations(model, read, belief);
	const [first] = found;
	if (!first) return null;
	const size = first.faults.length;
	const words =
		size === 1
			? 'One fault alone explains all that was read.'
			: `No single fault explains all that was read; ${size === 2 ? 'two' : 'three'} do.`;
	return {
		words,
		sets: found
			.filter(({ p }) => p > TOLD_FROM)
			.slice(0, 2)
			.map(({ faults, others, p }) => ({
				words: `${faultWords(model, faults)}${others > 0 ? ', or one like it' : ''}`,
				p
			}))
	};
}
