import type { ColumnGuess } from './columnMapping';
import { isWheel } from './recording';
import {
	carByBends,
	clockStep,
	couldBeSpeed,
	largestAlike,
	middleOne,
	swingsWithBends,
	type NumberColumns
} from './columnLikeness';

/** What can be offered for columns whose headers do not say what they are: told from unit and behaviour, never taken unasked. */

const FEWEST_ROWS = 30;
/** From here on a step of whole numbers is one of milliseconds. */
const MILLISECONDS_FROM = 5;
/** Swings with the bends so surely is steering. */
const SWINGS = 0.85;
const SUPPLY_V = { least: 6, most: 34, spread: 0.35 };
const CAR = ['front_left', 'front_right', 'rear_left', 'rear_right'];
/** Names that mean something here; any other is kept as it is written. */
const KNOWN = new Set(['vehicle', 'steering', 'yaw', 'lateral', 'brake_switch', 'brake_pressure', 'supply']);
const NO_NUMBERS = new Float64Array();

/**
 * Fills in what can be offered for columns that nobody knows by name, each with its question.
 *
 * @param guesses what the headers say
 * @param columns numbers of each column, as many as there are guesses
 * @param wheels channels of the vehicle's wheels, in the order in which tools write them
 */
export function offersByBehaviour(
	guesses: readonly ColumnGuess[],
	columns: NumberColumns,
	wheels: readonly string[]
): ColumnGuess[] {
	if ((columns[0]?.length ?? 0) < FEWEST_ROWS) return [...guesses];
	const offers = new Offers(guesses, columns);
	offerClock(offers);
	if (!wheels.some((wheel) => offers.has(wheel))) offerWheels(offers, wheels);
	offerSteering(offers);
	offerSupply(offers);
	return offers.guesses;
}

/** Columns and what is offered for them so far. */
class Offers {
	readonly guesses: ColumnGuess[];
	constructor(
		guesses: readonly ColumnGuess[],
		private readonly columns: NumberColumns
	) {
		this.guesses = [...guesses];
	}
	/** Places of columns that are nothing yet which is known here. */
	get open(): number[] {
		return this.guesses.flatMap(({ header, as, question }, at) =>
			header !== '' && question === null && (as === null || (as !== 'time' && !KNOWN.has(as) && !isWheel(as)))
				? [at]
				: []
		);
	}
	has = (as: string): boolean => this.guesses.some((guess) => guess.as === as);
	numbers = (at: number): Float64Array => this.columns[at] ?? NO_NUMBERS;
	of = (as: string): Float64Array => this.numbers(this.guesses.findIndex((guess) => guess.as === as));
	get all(): NumberColumns {
		return this.columns;
	}
	/** @param factor of its unit, where the header names none */
	offer(at: number, as: string | null, says: string, factor: number | null = null): void {
		const guess = this.guesses[at];
		if (guess)
			this.guesses[at] = {
				...guess,
				as,
				factor: guess.unit === null && factor !== null ? factor : guess.factor,
				question: `“${guess.header}” ${says}`
			};
	}
}

function offerClock(offers: Offers): void {
	if (offers.has('time')) return;
	const clocks = offers.open.flatMap((at) => {
		const step = clockStep(offers.numbers(at));
		return step === null ? [] : [{ at, step }];
	});
	// A number of the row rises by one; a clock seldom does.
	const clock = clocks.find(({ step }) => step !== 1) ?? clocks[0];
	if (!clock) return;
	const inMs = Number.isInteger(clock.step) && clock.step >= MILLISECONDS_FROM;
	offers.offer(clock.at, 'time', 'rises evenly: is it the time?', inMs ? 0.001 : 1);
}

function offerWheels(offers: Offers, wheels: readonly string[]): void {
	const speeds = offers.open.filter((at) => couldBeSpeed(offers.numbers(at)));
	const group = largestAlike(offers.all, speeds);
	const own =
		offers.has('vehicle') || group.length !== wheels.length + 1 ? null : middleOne(offers.all, group);
	const found = group.filter((at) => at !== own);
	if (found.length !== wheels.length) {
		for (const at of group) offers.offer(at, null, 'moves like a wheel: which one?');
		return;
	}
	if (own !== null)
		offers.offer(own, 'vehicle', 'runs in the middle of the wheels: is it the vehicle’s speed?');
	const isCar = CAR.every((wheel, n) => wheels[n] === wheel) && wheels.length === CAR.length;
	const turning = [offers.of('steering'), offers.of('yaw')].find(({ length }) => length > 0);
	const byBends = isCar && turning ? carByBends(offers.all, found, turning) : null;
	for (const [n, at] of (byBends ?? found).entries())
		offers.offer(
			at,
			wheels[n] ?? null,
			byBends
				? 'moves like a wheel, and in bends like this one: is it?'
				: 'moves like a wheel: this one, by the order of the columns?'
		);
}

function offerSteering(offers: Offers): void {
	if (offers.has('steering') || offers.has('yaw')) return;
	const [left, right] = [offers.of('rear_left'), offers.of('rear_right')];
	if (left.length === 0 || right.length === 0) return;
	const at = offers.open.find((one) => Math.abs(swingsWithBends(offers.numbers(one), left, right)) >= SWINGS);
	if (at !== undefined) offers.offer(at, 'steering', 'swings with the bends: is it the steering angle?');
}

function offerSupply(offers: Offers): void {
	if (offers.has('supply')) return;
	const { least, most, spread } = SUPPLY_V;
	const at = offers.open.find((one) => {
		const unit = offers.guesses[one]?.unit?.toLowerCase();
		if (unit !== 'v' && unit !== 'volt' && unit !== 'volts') return false;
		const numbers = offers.numbers(one).filter((value) => !Number.isNaN(value));
		const mean = numbers.reduce((sum, value) => sum + value, 0) / numbers.length;
		return mean > least && mean < most && numbers.every((value) => Math.abs(value - mean) < spread * mean);
	});
	if (at !== undefined) offers.offer(at, 'supply', 'is a steady voltage: is it the supply?');
}
