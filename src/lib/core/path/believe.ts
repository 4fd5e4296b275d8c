import { outcomeIndex, pairChance, type Observation, type PathModel, type SignTable } from './model';

/** A hypothesis with its probability: nothing wrong, one fault in a bin, or two faults. */
export interface State {
	/** Single row; −1 where there is none. */
	row: number;
	/** Faults by index, none to two. */
	faults: readonly number[];
	p: number;
}

export interface Belief {
	/** Every state above a millionth, likeliest first; probabilities add up to one. */
	states: State[];
	/** By fault: the probability that it is there (alone or with another) and not cured. */
	present: Float64Array;
	/** That nothing is wrong now: never was, or cured. */
	nothing: number;
	/** Natural logarithm of the probability of everything that was seen. */
	logEvidence: number;
	/** By observation: its probability under the likeliest state. Low = somebody misread, or the model is short of a fault. */
	fit: number[];
}

const SMALLEST = 1e-6;

interface Known {
	table: SignTable;
	outcome: number;
	sound: number;
	epoch: number;
}

/**
 * Exact Bayesian updating over nothing wrong, every single fault and every pair of faults. A fault that a repair has cured
 * shows like a sound vehicle from then on.
 *
 * @param curedFrom by fault: the epoch from which it is cured; Infinity where it never was
 * @param epochNow how many repairs have been done by now, though nothing may have been seen since the last
 */
export function believe(
	model: PathModel,
	observations: readonly Observation[],
	curedFrom: (fault: number) => number = () => Infinity,
	epochNow = 0
): Belief {
	const known = observations.flatMap((seen): Known[] => {
		const table = model.sign(seen.sign);
		if (!table) return [];
		const outcome = outcomeIndex(table, seen.outcome);
		return [{ table, outcome, sound: table.sound[outcome] ?? 0, epoch: seen.epoch }];
	});
	const { rows, faults } = model;
	const cured = faults.map((_, fault) => curedFrom(fault));
	const last = observations.reduce((most, { epoch }) => Math.max(most, epoch), epochNow);
	const soundLog = known.reduce((sum, { sound }) => sum + Math.log(sound), 0);
	const single = rows.map(({ fault }, row) => logRatio(known, row, cured[fault] ?? Infinity));
	const whole = faults.map((_, fault) => logRatio(known, rows.length + fault, cured[fault] ?? Infinity));
	const singlesPrior = 1 - model.nothing - model.pairs;
	const logs: { row: number; faults: number[]; log: number }[] = [
		{ row: -1, faults: [], log: Math.log(model.nothing) }
	];
	for (const [row, { fault, share }] of rows.entries()) {
		const prior = (faults[fault]?.prior ?? 0) * share * singlesPrior;
		if (prior > 0) logs.push({ row, faults: [fault], log: Math.log(prior) + (single[row]?.sum ?? 0) });
	}
	const most = logs.reduce((max, { log }) => Math.max(max, log), -Infinity);
	logs.push(...pairLogs(model, known, whole, most + Math.log(SMALLEST) - 2));
	return normalised(model, known, logs, soundLog, (fault) => (cured[fault] ?? Infinity) <= last);
}

interface RowLog {
	sum: number;
	/** Observations at which the row differs from a sound vehicle, and by how much. */
	at: number[];
	logs: number[];
}

/** Logarithm of the likelihood of a row against a sound vehicle. */
function logRatio(known: readonly Known[], row: number, curedFrom: number): RowLog {
	const found: RowLog = { sum: 0, at: [], logs: [] };
	for (const [i, { table, outcome, sound, epoch }] of known.entries()) {
		if (epoch >= curedFrom || !table.acts[row]) continue;
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
): { row: number; faults: number[]; log: number }[] {
	const { faults, pairs } = model;
	const square = faults.reduce((sum, { prior }) => sum + prior * prior, 0);
	const scale = Math.log(pairs / Math.max(1e-12, (1 - square) / 2));
	const mark = new Int32Array(known.length).fill(-1);
	const found: { row: number; faults: number[]; log: number }[] = [];
	for (let a = 0; a < faults.length; a++) {
		const ofA = whole[a];
		const priorA = faults[a]?.prior ?? 0;
		if (!ofA || priorA === 0) continue;
		mark.fill(-1);
		for (const [n, i] of ofA.at.entries()) mark[i] = n;
		for (let b = a + 1; b < faults.length; b++) {
			const ofB = whole[b];
			const priorB = faults[b]?.prior ?? 0;
			if (!ofB || priorB === 0) continue;
			let log = scale + Math.log(priorA * priorB) + ofA.sum + ofB.sum;
			for (const [n, i] of ofB.at.entries()) {
				const inA = mark[i] ?? -1;
				if (inA < 0) continue;
				log += jointLog(known[i], model.rows.length, a, b) - (ofA.logs[inA] ?? 0) - (ofB.logs[n] ?? 0);
			}
			if (log > floor) found.push({ row: -1, faults: [a, b], log });
		}
	}
	return found;
}

function jointLog(known: Known | undefined, rows: number, a: number, b: number): number {
	if (!known) return 0;
	const { table, outcome, sound } = known;
	return Math.log(pairOf(table, outcome, rows + a, rows + b) / sound);
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
	logs: { row: number; faults: number[]; log: number }[],
	soundLog: number,
	isCured: (fault: number) => boolean
): Belief {
	const most = logs.reduce((max, { log }) => Math.max(max, log), -Infinity);
	const total = logs.reduce((sum, { log }) => sum + Math.exp(log - most), 0);
	const states = logs
		.map(({ row, faults, log }): State => ({ row, faults, p: Math.exp(log - most) / total }))
		.filter(({ p }) => p > SMALLEST)
		.sort((x, y) => y.p - x.p);
	const kept = states.reduce((sum, { p }) => sum + p, 0);
	const present = new Float64Array(model.faults.length);
	let nothing = 0;
	for (const state of states) {
		state.p /= kept;
		const left = state.faults.filter((fault) => !isCured(fault));
		for (const fault of left) present[fault] = (present[fault] ?? 0) + state.p;
		if (left.length === 0) nothing += state.p;
	}
	const [likeliest] = states;
	return {
		states,
		present,
		nothing,
		logEvidence: most + Math.log(total) + soundLog,
		fit: known.map((one) => (likeliest ? stateChance(model, one.table, one.outcome, likeliest) : 1))
	};
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
