import { availableParallelism } from 'node:os';
import { Worker } from 'node:worker_threads';
import { casesOfFile, type FileCases } from '../src/lib/bench/trial/faultFile';
import { diagnose, type Outcome } from '../src/lib/bench/trial/diagnosis';
import { casesFrom, type WayName } from '../src/lib/bench/trial/trial';
import { scattered, type Draw, type TrialCase } from '../src/lib/bench/trial/trialCase';
import { WAYS } from '../src/lib/bench/trial/ways';
import type { Policy } from '../src/lib/core/path/repairCost';
import type { VehicleType } from '../library';
import { checkDescription } from '../library/vehicle/check';
import type { Result } from '../src/lib/core/result';

/** What `jaldi trial` is asked to run. */
export interface Trial {
	/** Text of a file of faults; null draws vehicles. */
	faults: string | null;
	/** How many; null = each of the file once. */
	count: number | null;
	seed: number;
	way: WayName;
	policy: Policy;
	draw: Draw;
	/** By how much the physics of each vehicle differs; 0 = not at all. */
	perturb: number;
	/** By somebody who is not always careful. */
	novice: boolean;
	/** The vehicle that they all are, as `jaldi vehicle check` takes it; null = the shipped types. */
	vehicle: unknown;
}

/** One vehicle in the order in which the seed gives them. */
export interface Worked {
	index: number;
	/** What was wrong, in words. */
	what: string;
	outcome: Outcome;
}

/** Where so many times more vehicles are drawn than were asked for, the rest show their owners nothing. */
const MOST_DRAWN = 50;
/** Fewer are done before a helper has started. */
const ALONE_UP_TO = 4;
const MOST_HELPERS = 8;

/** Checked before: what does not fit never comes here. */
const vehicleOf = ({ vehicle }: Trial): VehicleType | undefined => {
	if (vehicle === null) return undefined;
	const read = checkDescription(vehicle);
	if (!read.ok) throw new RangeError('this vehicle is not described');
	return read.type;
};
const ofFile = (trial: Trial): Result<FileCases> | null =>
	trial.faults === null ? null : casesOfFile(trial.faults, trial.count, trial.seed, vehicleOf(trial));

/** The vehicles of one helper of several: every `of`-th, from `part`. */
export function* workOn(trial: Trial, part: number, of: number): Generator<Worked> {
	const read = ofFile(trial);
	if (read && !read.ok) throw new RangeError(read.error);
	let index = -1;
	const { way, policy, novice, seed, draw, perturb } = trial;
	for (const drawn of read?.value.cases ?? casesFrom(seed, vehicleOf(trial), draw)) {
		index += 1;
		if (read === null && index >= (trial.count ?? 0) * MOST_DRAWN) return;
		if (index % of !== part) continue;
		const one = scattered(drawn, perturb);
		const outcome = diagnose(one, WAYS[way], policy, { onlyBrought: read === null, novice });
		yield { index, what: `${one.type.id}: ${one.faults.map(faultWords).join(' and ')}`, outcome };
	}
}

const faultWords = ({ id, at, everyKm }: TrialCase['faults'][number]) =>
	`${id} at ${at}${everyKm ? ` every ${everyKm} km` : ''}`;

/** Runs a trial on all cores; the same for any number of them. The error says what is wrong in the file of faults. */
export async function runTrial(trial: Trial): Promise<Result<Ran>> {
	const read = ofFile(trial);
	if (read && !read.ok) return read;
	const count = read ? read.value.cases.length : (trial.count ?? 0);
	const helpers = Math.min(availableParallelism(), MOST_HELPERS, count);
	const sorted = new InOrder(count);
	if (count <= ALONE_UP_TO || helpers < 2) {
		for (const worked of workOn(trial, 0, 1)) if (sorted.isEnough(worked)) break;
	} else await byHelpers(trial, helpers, sorted);
	return { ok: true, value: { worked: sorted.worked, skipped: read ? read.value.skipped : null } };
}

/** What a trial came to. */
export interface Ran {
	worked: Worked[];
	/** Of a file: how many cases no vehicle can have. */
	skipped: number | null;
}

/** Vehicles in the seed's order; those that show their owner nothing are not brought in, unless a file names them. */
class InOrder {
	readonly worked: Worked[] = [];
	private readonly early = new Map<number, Worked>();
	private next = 0;

	constructor(private readonly count: number) {}

	/** Takes one vehicle; true once all that were asked for are there. */
	isEnough(one: Worked): boolean {
		this.early.set(one.index, one);
		for (let due = this.early.get(this.next); due; due = this.early.get(this.next)) {
			this.early.delete(this.next);
			this.next += 1;
			if (due.outcome.steps.length > 0 && this.worked.length < this.count) this.worked.push(due);
		}
		return this.worked.length >= this.count;
	}
}

async function byHelpers(trial: Trial, helpers: number, sorted: InOrder): Promise<void> {
	const workers = Array.from({ length: helpers }, (_, part) => {
		const workerData = { trial, part, of: helpers };
		return new Worker(new URL('./trialHelper.js', import.meta.url), { workerData });
	});
	try {
		await new Promise<void>((resolve, reject) => {
			let running = workers.length;
			for (const worker of workers) {
				worker.on('message', (worked: Worked) => {
					if (sorted.isEnough(worked)) resolve();
				});
				worker.once('error', reject);
				worker.once('exit', () => {
					running -= 1;
					if (running === 0) resolve();
				});
			}
		});
	} finally {
		await Promise.all(workers.map((worker) => worker.terminate()));
	}
}
