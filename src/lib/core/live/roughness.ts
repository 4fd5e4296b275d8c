import type { WheelTable } from './wheelTable';

/** Judged from here: below, pulses are few and every reading is a little rough. */
const FROM_KMH = 15;
const BLOCK_S = 2;
const FEWEST_SAMPLES = 6;
/** Mean change of the deviation from one sample to the next, as a share of the speed … */
const ROUGH_SHARE = 0.05;
/** … and so many times that of the other wheels, */
const ROUGHER_TIMES = 4;
/** in so large a part of the samples that it is no single event. */
const BUSY_SHARE = 0.3;
const JUMP_SHARE = 0.04;
/** Of the samples, so many lie above the others and so many below: a signal that only falls away drops out. */
const EACH_WAY_SHARE = 0.12;
const AWAY_SHARE = 0.05;
const BLOCKS_NEEDED = 2;

export interface RoughStretch {
	from: number;
	to: number;
	blocks: number;
}

/** What is counted of one wheel within a block. */
const newCount = () => ({ change: 0, samples: 0, busy: 0, above: 0, below: 0 });

/** Per wheel, the samples over which it jumps about all the time while the others run smooth; null where it does not. */
export function roughStretches({ timeS, kmh, expected }: WheelTable): (RoughStretch | null)[] {
	const counts = kmh.map(newCount);
	const found: (RoughStretch | null)[] = kmh.map(() => null);
	let begin = 0;
	const judge = (end: number) => {
		const rough = counts.map(({ change, samples }) => (samples > 0 ? change / samples : 0));
		for (const [k, { samples, busy, above, below }] of counts.entries()) {
			const mine = rough[k] ?? 0;
			const others = Math.max(0, ...rough.filter((_, j) => j !== k));
			if (samples < FEWEST_SAMPLES || mine < ROUGH_SHARE || mine < ROUGHER_TIMES * others) continue;
			if (busy < BUSY_SHARE * samples || Math.min(above, below) < EACH_WAY_SHARE * samples) continue;
			const before = found[k];
			found[k] = { from: before?.from ?? begin, to: end, blocks: (before?.blocks ?? 0) + 1 };
		}
		for (const count of counts) Object.assign(count, newCount());
	};
	for (let from = 1; from < timeS.length;) {
		let to = from;
		while (to < timeS.length && (timeS[to] ?? 0) - (timeS[begin] ?? 0) < BLOCK_S) to += 1;
		to = Math.max(to, from + 1);
		for (const [k, count] of counts.entries()) countBlock(count, kmh[k], expected[k], from, to);
		judge(to - 1);
		begin = to;
		from = to;
	}
	return found.map((stretch) => (stretch && stretch.blocks >= BLOCKS_NEEDED ? stretch : null));
}

function countBlock(
	count: ReturnType<typeof newCount>,
	own: Float64Array = new Float64Array(),
	should: Float64Array = new Float64Array(),
	from: number,
	to: number
): void {
	let before = (own[from - 1] ?? NaN) - (should[from - 1] ?? NaN);
	for (let i = from; i < to; i++) {
		const expected = should[i] ?? NaN;
		const now = (own[i] ?? NaN) - expected;
		const change = Math.abs(now - before) / expected;
		before = now;
		if (!(expected > FROM_KMH) || change !== change) continue;
		count.change += change;
		count.samples += 1;
		if (change > JUMP_SHARE) count.busy += 1;
		if (now > AWAY_SHARE * expected) count.above += 1;
		else if (now < -AWAY_SHARE * expected) count.below += 1;
	}
}
