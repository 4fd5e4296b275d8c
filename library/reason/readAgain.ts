import { outcomeIndex, type SignTable } from '../../src/lib/core/path/model';
import type { Fault } from '../faults';
import { mixBins } from './mixBins';
import type { OutcomeBin } from './outcomes';
import type { PlacedFault, ReasonModel } from './placed';
import { signOf, splitKey } from './signs';

/** Somebody who looks twice at what stays the same sees something else with this chance. */
const SEES_OTHERWISE = 0.03;

/** Two places at which a fault shows a sign so differently are not read alike. */
const APART = 0.1;

/** Whether a row shows a sign otherwise at one place than at another. */
export function differs({ outcomes, chance }: SignTable, there: SignTable | null, row: number): boolean {
	const width = outcomes.length;
	if (there?.outcomes.length !== width) return true;
	let apart = 0;
	for (let o = row * width; o < (row + 1) * width; o++)
		apart += Math.abs((chance[o] ?? 0) - (there.chance[o] ?? 0)) / 2;
	return apart > APART;
}

/**
 * A sign once more: what stays shows what it showed, what comes and goes shows what it likes.
 *
 * @param isOwn whether a row is seen anew whatever was seen before
 */
export function againTable(
	once: SignTable,
	key: string,
	placedFaults: readonly PlacedFault[],
	rows: ReasonModel['rows'],
	isOwn: (row: number) => boolean
): SignTable {
	const { outcomes } = once;
	// Eyes miss and imagine anew each time.
	if (signOf(splitKey(key).sign).byEye) return { ...once, key };
	const width = outcomes.length;
	const before = outcomeIndex(once, splitKey(key).before ?? '');
	const otherwise = Math.max(SEES_OTHERWISE, signOf(splitKey(key).sign).misread);
	const sound = Float64Array.from(outcomes, (_, o) =>
		o === before ? 1 - otherwise : otherwise / (width - 1)
	);
	const chance = new Float64Array(once.chance.length);
	const acts = new Uint8Array(once.acts.length);
	for (const [row, { fault, bin }] of rows.entries()) {
		const anew = (once.acts[row] === 1 && isFickle(placedFaults[fault]?.fault, bin)) || isOwn(row);
		chance.set(anew ? once.chance.subarray(row * width, (row + 1) * width) : sound, row * width);
		acts[row] = Number(anew);
	}
	mixBins(placedFaults.length, rows, width, chance, acts, sound);
	return { key, outcomes, good: once.good, sound, chance, acts };
}

const isFickle = (fault: Fault | undefined, bin: OutcomeBin): boolean =>
	bin === 'now-and-then' || fault?.when?.shaking !== undefined || fault?.when?.everyKm !== undefined;
