/** Minutes that a case still takes: the mean, and the two ends between which eight in ten such cases stay. */
export interface StillTakes {
	mean: number;
	low: number;
	high: number;
}

/** An open case as the day is planned by it. */
export interface DayCase {
	id: string;
	/** Null where nobody knows. */
	minutes: StillTakes | null;
	/** Whoever has it; null = whoever is free first. */
	with: string | null;
	/** Nobody can work on it now: it waits for something, or only for a signature. */
	rests: boolean;
}

/** When a case is finished, minutes from now, with all that is done before it. */
export interface Finish {
	by: string;
	mean: number;
	low: number;
	high: number;
}

/** Of a normal distribution eight in ten lie within so many standard deviations of the mean. */
const EIGHT_IN_TEN = 1.2815515655446004;

interface Hand {
	id: string;
	mean: number;
	/** Variance of what it has before it, minutes². */
	variance: number;
}

/**
 * Who does what in which order, and when each case is finished: whoever is free first takes the first case in the list that is
 * theirs or nobody's. What cases take is added up as independent times: means add, and so do variances.
 *
 * @param cases the most urgent first
 * @param people who is at work; whoever has a case is, too
 * @returns by case; those that rest, of which nobody knows what they take, or that nobody is there for are not in it
 */
export function planDay(cases: readonly DayCase[], people: readonly string[]): Map<string, Finish> {
	const planned = new Map<string, Finish>();
	/** Places in the list of what is whose; null = nobody's. Each is taken from its front. */
	const waiting = new Map<string | null, number[]>();
	cases.forEach(({ rests, minutes, with: owner }, at) => {
		if (rests || minutes === null) return;
		const theirs = waiting.get(owner) ?? [];
		theirs.push(at);
		waiting.set(owner, theirs);
	});
	const owners = [...waiting.keys()].filter((owner) => owner !== null);
	let hands: Hand[] = [...new Set([...people, ...owners])].map((id) => ({ id, mean: 0, variance: 0 }));
	const takeFirst = (hand: Hand): DayCase | undefined => {
		const [own, free] = [waiting.get(hand.id) ?? [], waiting.get(null) ?? []];
		const from = (own[0] ?? Infinity) < (free[0] ?? Infinity) ? own : free;
		const at = from.shift();
		return at === undefined ? undefined : cases[at];
	};
	for (;;) {
		const hand = hands.reduce<Hand | null>((best, one) => (best && best.mean <= one.mean ? best : one), null);
		if (!hand) return planned;
		const next = takeFirst(hand);
		if (!next?.minutes) {
			hands = hands.filter((one) => one !== hand);
			continue;
		}
		const { mean, low, high } = next.minutes;
		hand.mean += mean;
		hand.variance += ((high - low) / (2 * EIGHT_IN_TEN)) ** 2;
		const reach = EIGHT_IN_TEN * Math.sqrt(hand.variance);
		planned.set(next.id, {
			by: hand.id,
			mean: hand.mean,
			low: Math.max(0, hand.mean - reach),
			high: hand.mean + reach
		});
	}
}
