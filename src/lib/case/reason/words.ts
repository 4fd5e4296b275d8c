import { isSwap, type SwapOutcome } from '../../../../library/reason/swaps';
import { TRUE_SPEED, type TrueSpeed } from '../../../../library/reason/trueSpeed';
import type { VehicleType } from '../../../../library';
import { isOfAxle } from '../../../../library/faults';
import { POSITIONS } from '../../../../library';
import type { ReasonModel } from '../../../../library/reason/placed';
import { signs, splitKey } from '../../../../library/reason/signs';
import type { TestStep } from '../entries/test-step/payload';
import { lowerFirst, positionWords } from '../words';

export const STEP_WORDS: Record<TestStep['how'], string> = {
	done: 'done',
	skipped: 'Skipped',
	cannot: 'Cannot be done here',
	'not-available': 'Not at hand'
};

const SWAP_WORDS: Record<SwapOutcome, string> = {
	moved: 'the fault went with the part',
	stayed: 'the fault stayed where it was',
	gone: 'the fault is gone since the swap'
};

const TRUE_SPEED_WORDS: Record<TrueSpeed, string> = {
	right: 'it tells the true speed',
	fast: 'it tells more than the true speed',
	slow: 'it tells less than the true speed'
};

/** Of an outcome, in words; what only one maker has, or an older library had, is told as it is. */
export function seenWords(key: string, outcome: string): string {
	const { sign } = splitKey(key);
	if (sign === 'search')
		return outcome === 'none' ? 'nothing found' : `ended at ${outcome.replaceAll('-', ' ')}`;
	if (isSwap(sign)) return SWAP_WORDS[outcome as SwapOutcome] ?? outcome;
	if (sign === 'level')
		return outcome === 'arrives'
			? 'a resistor’s level arrives at the module'
			: 'a resistor’s level does not arrive';
	if (sign === TRUE_SPEED) return TRUE_SPEED_WORDS[outcome as TrueSpeed] ?? outcome;
	if (sign.startsWith('replaced:')) return 'replaced before, and it did not help';
	const known = signs.get(sign)?.outcomes ?? {};
	return (Object.hasOwn(known, outcome) && known[outcome]) || outcome.replaceAll('-', ' ');
}

/** `rear-left` → rear left; `brake` → brake control; `F14` → fuse F14. */
export function placeWords(place: string, type: VehicleType): string {
	const position = POSITIONS.find((one) => one === place);
	if (position) return lowerFirst(positionWords(position));
	const module = type.modules.find(({ role }) => role === place);
	if (module) return lowerFirst(module.name);
	const { fuses, grounds, splices, plugs } = type.harness;
	if (fuses.some(({ name }) => name === place)) return `fuse ${place}`;
	if (grounds.some(({ name }) => name === place)) return `ground point ${place}`;
	if (splices.some(({ name }) => name === place)) return `splice ${place}`;
	if (plugs.some(({ name }) => name === place)) return `plug ${place}`;
	return 'the vehicle';
}

/** `rear-left` → rear axle; `axle2-left` → axle 2. */
export function axleWords(position: string): string {
	const [axle = ''] = position.split('-');
	return /^axle\d$/.test(axle) ? axle.replace('axle', 'axle ') : `${axle} axle`;
}

/** What is wrong, with its place: "rear left: brake dust is packed on the encoder". */
export function faultWords(model: ReasonModel, faults: readonly number[]): string {
	return faults
		.map((index) => {
			const one = model.faults[index];
			if (!one) return '';
			if (one.place === 'vehicle' && model.background.has(index)) return one.fault.name;
			const place = isOfAxle(one.fault) ? axleWords(one.place) : placeWords(one.place, model.type);
			return `${place}: ${one.fault.name}`;
		})
		.join('; and ');
}

export type Tells = 'a lot' | 'some' | 'little';
const A_LOT_BITS = 0.5;
const SOME_BITS = 0.12;
/** What a test tells, in words: bits of what is to be repaired are nobody's unit. */
export const tellsWords = (bits: number): Tells =>
	bits >= A_LOT_BITS ? 'a lot' : bits >= SOME_BITS ? 'some' : 'little';
