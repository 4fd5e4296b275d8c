import { outcomeIndex, pairChance, type Observation, type PathModel, type SignTable } from './model';

/** A hypothesis with its probability: nothing wrong, one fault in a bin, or two faults. */
export interface State {
	/** Single row; −1 where there is none. */
	row: number;
	/** Faults by index, none to two. */
	faults: readonly number[];
	/** Of these, what is there now: no repair has cured it since it came. */
	left: readonly number[];
	p: number;
}

/** A fault that a repair of ours may have left behind. */
export interface LeftBehind {
	fault: number;
	/** Entry of the repair. */
	entry: string;
	/** How many repairs had been done when it came, the one itself counted. */
	from: number;
	/** The epoch from which another repair has cured it; Infinity where none has. */
	until: number;
	/** That such a repair leaves it behind. */
	prior: number;
}

export interface Belief {
	/** Every state above a millionth, likeliest first; probabilities add up to one. */
	states: State[];
	/** By fault: the probability that it is there (alone or with another) and not cured. */
	present: Float64Array;
	/** By fault: of that, what a repair of ours left behind. */
	madeByUs: Float64Array;
	/** That nothing is wrong now: never was, or cured. */
	nothing: number;
	/** Natural logarithm of the probability of everything that was seen. */
	logEvidence: number;
	/** By observation: its probability under the likeliest state. Low = somebody misread, or the model is short of a fault. */
	fit: number[];
}

const SMALLEST = 1e-6;

/** One state before it is weighed against all others. */
interface Weighed {
	row: number;
	faults: readonly number[];
	log: number;
	/** The last of the faults came with a repair of ours. */
	came?: LeftBehind;
}

interface Known {
	/** Place among all observations: some tell nothing of their own. */
	nth: number;
	table: SignTable;
	outcome: number;
	sound: number;
	epoch: number;
}

/**
 * Exact Bayesian updating over nothing wrong, every single fault and every pair of faults. A fault that a repair has cured
 * shows like a sound vehicle from then on; one that a repair of ours may have left behind shows only from then on.
 *
 * @param curedFrom by fault: the epoch from which it is cured; Infinity where it never was
 * @param epochNow how many repairs have been done by now, though nothing may have been seen since the last
 */
export function believe(
	model: PathModel,
	observations: readonly Observation[],
	curedFrom: (fault: number) => number = () => Infinity,
	epochNow = 0,
	repairInduced: readonly LeftBehind[] = []
): Belief {
	const known = observations.flatMap((seen, nth): Known[] => {
		const table = model.sign(seen.sign);
		if (!table) return [];
		const outcome = outcomeIndex(table, seen.outcome);
		return [{ nth, table, outcome, sound: table.sound[outcome] ?? 0, epoch: seen.epoch }];
	});
	const { rows, faults } = model;
	const cured = faults.map((_, fault) => curedFrom(fault));
	const last = observations.reduce((most, { epoch }) => Math.max(most, epoch), epochNow);
	const soundLog = known.reduce((sum, { sound }) => sum + Math.log(sound), 0);
	const single = rows.map(({ fault }, row) => logRatio(known, row, cured[fault] ?? Infinity));
	const whole = faults.map((_, fault) => logRatio(known, rows.length + fault, cured[fault] ?? Infinity));
	const singlesPrior = 1 - model.nothing - model.pairs;
	const logs: Weighed[] = [{ row: -1, faults: [], log: Math.log(model.nothing) }];
	for (const [row, { fault, share }] of rows.entries()) {
		const prior = (faults[fault]?.prior ?? 0) * share * singlesPrior;
		if (prior > 0) logs.push({ row, faults: [fault], log: Math.log(prior) + (single[row]?.sum ?? 0) });
	}
	const most = logs.reduce((max, { log }) => Math.max(max, log), -Infinity);
	const floor = most + Math.log(SMALLEST) - 2;
	const came = leftBehindLogs(model, known, logs, single, repairInduced, floor);
	logs.push(...pairLogs(model, known, whole, floor), ...came);
	const isThere = (fault: number) => (cured[fault] ?? Infinity) > last;
	return normalised(model, known, logs, soundLog, isThere, last);
}

/** Several readings of the same case, each with its weight, as one belief: states that are the same add up. */
export function mixBeliefs(parts: readonly { belief: Belief; weight: number }[]): Belief {
	const [first] = parts;
	if (!first) throw new RangeError('nothing to mix');
	if (parts.length === 1) return first.belief;
	const total = parts.reduce((sum, { weight }) => sum + weight, 0);
	const states = new Map<string, State>();
	const present = new Float64Array(first.belief.present.length);
	const madeByUs = new Float64Array(present.length);
	let nothing = 0;
	for (const { belief, weight } of parts) {
		const share = weight / total;
		for (const state of belief.states) {
			const key = `${state.row}/${state.faults.join()}/${state.left.join()}`;
			const known = states.get(key);
			if (known) known.p += share * state.p;
			else states.set(key, { ...state, p: share * state.p });
		}
		for (const [i, p] of belief.present.entries()) present[i] = (present[i] ?? 0) + share * p;
		for (const [i, p] of belief.madeByUs.entries()) madeByUs[i] = (madeByUs[i] ?? 0) + share * p;
		nothing += share * belief.nothing;
	}
	return {
		...first.belief,
		states: [...states.values()].sort((a, b) => b.p - a.p),
		present,
		madeByUs,
		nothing
	};
}

/** Nothing or one fault from the start, and with it what a repair of ours left behind. */
function leftBehindLogs(
	model: PathModel,
	known: readonly Known[],
	alone: readonly Weighed[],
	single: readonly RowLog[],
	repairInduced: readonly LeftBehind[],
	floor: number
): Weighed[] {
	return repairInduced.flatMap((came): Weighed[] => {
		const row = model.rows.length + came.fault;
		const own = logRatio(known, row, came.until, came.from);
		return alone.flatMap((first): Weighed[] => {
			let log = first.log + Math.log(came.prior) + own.sum;
			const of = single[first.row];
			for (const [n, i] of own.at.entries()) {
				const inFirst = of ? of.at.indexOf(i) : -1;
				if (!of || inFirst < 0) continue;
				log += jointLog(known[i], first.row, row) - (of.logs[inFirst] ?? 0) - (own.logs[n] ?? 0);
			}
			return log > floor ? [{ row: -1, faults: [...first.faults, came.fault], log, came }] : [];
		});
	});
}

interface RowLog {
	sum: number;
	/** Observations at which the row differs from a sound vehicle, and by how much. */
	at: number[];
	logs: number[];
}

/** Logarithm of the likelihood of a row against a sound vehicle. */
function logRatio(known: readonly Known[], row: number, curedFrom: number, cameFrom = 0): RowLog {
	const found: RowLog = { sum: 0, at: [], logs: [] };
	for (const [i, { table, outcome, sound, epoch }] of known.entries()) {
		if (epoch >= curedFrom || epoch < cameFrom || !table.acts[row]) continue;
		const log = Math.log((table.chance[row * table.outcomes.length + outcome] ?? 0) / sound);
		found.sum += log;
		found.at.push(i);
		found.logs.push(log);
	}
	return found;
}

/** Pairs whose logarithm is above a floor: each is the sum of its two, corrected where both act on the same sign. */
function pairLogs(
	model: PathModel,
	known: readonly Known[],
	whole: readonly RowLog[],
	floor: number
): Weighed[] {
	const { faults, pairs } = model;
	const square = faults.reduce((sum, { prior }) => sum + prior * prior, 0);
	const scale = Math.log(pairs / Math.max(1e-12, (1 - square) / 2));
	const mark = new Int32Array(known.length).fill(-1);
	const rows = model.rows.length;
	const found: Weighed[] = [];
	const thinkable = [...whole.keys()].filter((fault) => (faults[fault]?.prior ?? 0) > 0);
	const isUnknown = (fault: number) => model.background?.has(fault) === true;
	/** Logarithm of a fault alone: its prior and all that was seen of it. */
	const own = whole.map(({ sum }, fault) => Math.log(faults[fault]?.prior ?? 0) + sum);
	for (const [nth, a] of thinkable.entries()) {
		const ofA = whole[a] as RowLog;
		const logA = scale + (own[a] as number);
		mark.fill(-1);
		for (let n = 0; n < ofA.at.length; n++) mark[ofA.at[n] as number] = n;
		for (let next = nth + 1; next < thinkable.length; next++) {
			const b = thinkable[next] as number;
			// Twice not described is not described.
			if (isUnknown(a) && isUnknown(b)) continue;
			const ofB = whole[b] as RowLog;
			let log = logA + (own[b] as number);
			for (let n = 0; n < ofB.at.length; n++) {
				const i = ofB.at[n] as number;
				const inA = mark[i] as number;
				if (inA < 0) continue;
				log += jointLog(known[i], rows + a, rows + b) - (ofA.logs[inA] ?? 0) - (ofB.logs[n] ?? 0);
			}
			if (log > floor) found.push({ row: -1, faults: [a, b], log });
		}
	}
	return found;
}

/** Logarithm of the chance of what was seen under two rows at once, against a sound vehicle. */
function jointLog(known: Known | undefined, a: number, b: number): number {
	if (!known) return 0;
	const { table, outcome, sound } = known;
	return Math.log(pairOf(table, outcome, a, b) / sound);
}

/** Chance of an outcome under two rows at once. */
export function pairOf(table: SignTable, outcome: number, a: number, b: number): number {
	const width = table.outcomes.length;
	return pairChance(
		table.sound[outcome] ?? 0,
		table.sound[table.good] ?? 1,
		{ chance: table.chance[a * width + outcome] ?? 0, good: table.chance[a * width + table.good] ?? 0 },
		{ chance: table.chance[b * width + outcome] ?? 0, good: table.chance[b * width + table.good] ?? 0 }
	);
}

function normalised(
	model: PathModel,
	known: readonly Known[],
	logs: readonly Weighed[],
	soundLog: number,
	isThere: (fault: number) => boolean,
	last: number
): Belief {
	let most = -Infinity;
	for (const { log } of logs) if (log > most) most = log;
	let total = 0;
	for (const { log } of logs) total += Math.exp(log - most);
	const least = most + Math.log(total * SMALLEST);
	const weighed = logs.filter(({ log }) => log > least).sort((x, y) => y.log - x.log);
	let kept = 0;
	for (const { log } of weighed) kept += Math.exp(log - most) / total;
	const present = new Float64Array(model.faults.length);
	const madeByUs = new Float64Array(model.faults.length);
	let nothing = 0;
	const states = weighed.map(({ row, faults, came, log }): State => {
		const p = Math.exp(log - most) / total / kept;
		const from = came ? faults.slice(0, -1) : faults;
		const left = from.filter(isThere);
		if (came && came.until > last) {
			if (!left.includes(came.fault)) left.push(came.fault);
			madeByUs[came.fault] = (madeByUs[came.fault] ?? 0) + p;
		}
		for (const fault of left) present[fault] = (present[fault] ?? 0) + p;
		if (left.length === 0) nothing += p;
		return { row, faults, left, p };
	});
	const [likeliest] = states;
	return {
		states,
		present,
		madeByUs,
		nothing,
		logEvidence: most + Math.log(total) + soundLog,
		fit: fitOf(model, known, likeliest)
	};
}

/** By observation; what tells nothing fits anything. */
function fitOf(model: PathModel, known: readonly Known[], likeliest: State | undefined): number[] {
	const fit: number[] = Array.from({ length: (known.at(-1)?.nth ?? -1) + 1 }, () => 1);
	if (likeliest)
		for (const { nth, table, outcome } of known) fit[nth] = stateChance(model, table, outcome, likeliest);
	return fit;
}

/** Chance of an outcome under a state, its faults all there. */
export function stateChance(
	model: PathModel,
	table: SignTable,
	outcome: number,
	{ row, faults }: Pick<State, 'row' | 'faults'>
): number {
	const a = faults[0];
	const b = faults[1];
	if (a === undefined) return table.sound[outcome] ?? 0;
	if (b === undefined)
		return table.chance[(row >= 0 ? row : model.rows.length + a) * table.outcomes.length + outcome] ?? 0;
	return pairOf(table, outcome, model.rows.length + a, model.rows.length + b);
}
