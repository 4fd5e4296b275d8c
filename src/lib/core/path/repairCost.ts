import type { PathModel } from './model';
import type { Situation } from './situation';

/** How a shop weighs what it may waste. All in minutes of work. */
export interface Policy {
	/** Probability that a part must reach before it may be ordered. */
	confidence: number;
	/** Probability that a repair without a part must reach while a test can still tell more. */
	tryConfidence: number;
	/** Minutes of work that buy one unit of the shop's money. */
	minutesPerMoney: number;
	/** What a wrong part costs besides its price: the second visit, the word lost. */
	wrongPartMinutes: number;
	/** After every repair: clear, drive, read again. */
	provingMinutes: number;
	/** What it costs to give a vehicle back unmended. */
	unresolvedMinutes: number;
}

export interface RepairStep {
	repair: number;
	/** That it cures something that is there, given that all before it did not help. */
	cures: number;
	/** That after it nothing of what was wrong is left, and something was before: shares of one whole. */
	ends: number;
}

const MOST_STEPS = 12;
const LEAST_SHARE = 1e-4;
const NO_PLACES = new Int32Array();

export const repairMinutes = (model: PathModel, repair: number, policy: Policy): number => {
	const one = model.repairs[repair];
	return one ? one.minutes + one.price * policy.minutesPerMoney + policy.provingMinutes : Infinity;
};

/** Repairs that matter to a situation and the states they bring further, worked out once for many weights. */
/** Where something described is suspected, something that is not is suspected a little. */
const LIKE_DESCRIBED = 0.1;

export class Mending {
	/** Indices of the repairs that cure something in some state. */
	private readonly repairs: number[] = [];
	private readonly base: Float64Array;
	private readonly penalty: Float64Array;
	/** By fault: the repairs that cure it, as places in {@link repairs}. */
	private readonly ofFault = new Map<number, Int32Array>();
	/** By state: the repairs of all its faults, of its first and of its second. */
	private readonly ofState: Int32Array[];
	private readonly ofFirst: Int32Array[];
	private readonly ofSecond: (Int32Array | null)[];
	/** By place in {@link repairs}: the states it brings further. */
	private readonly states: number[][] = [];
	/** By state: minutes of mending that no knowledge saves. */
	private readonly least: Float64Array;
	/** Room to reckon in, used anew by every weight. */
	private readonly room: { gains: Float64Array; open: Float64Array; left: Int32Array };

	constructor(
		private readonly model: PathModel,
		private readonly faults: readonly (readonly number[])[],
		private readonly policy: Policy
	) {
		const places = new Map<number, number>();
		const placeOf = (repair: number) => {
			const known = places.get(repair);
			if (known !== undefined) return known;
			const place = this.repairs.push(repair) - 1;
			places.set(repair, place);
			this.states.push([]);
			return place;
		};
		this.ofState = faults.map((list, state) => {
			for (const fault of list)
				if (!this.ofFault.has(fault))
					this.ofFault.set(fault, Int32Array.from(model.faults[fault]?.curedBy ?? [], placeOf));
			const own = new Set(list.flatMap((fault) => [...(this.ofFault.get(fault) ?? NO_PLACES)]));
			for (const place of own) this.states[place]?.push(state);
			return Int32Array.from(own);
		});
		const placesOf = (fault: number) => this.ofFault.get(fault) ?? NO_PLACES;
		this.ofFirst = faults.map(([a = -1]) => placesOf(a));
		this.ofSecond = faults.map(([, b]) => (b === undefined ? null : placesOf(b)));
		this.base = Float64Array.from(this.repairs, (repair) => repairMinutes(model, repair, policy));
		this.penalty = Float64Array.from(this.repairs, (repair) =>
			model.repairs[repair]?.part ? policy.wrongPartMinutes : 0
		);
		const cheapest = (fault: number) =>
			placesOf(fault).reduce(
				(least, place) => Math.min(least, this.base[place] ?? Infinity),
				policy.unresolvedMinutes
			);
		this.least = Float64Array.from(faults, (list) =>
			list.length === 0 ? policy.provingMinutes : Math.max(...list.map(cheapest))
		);
		this.room = {
			gains: new Float64Array(this.repairs.length),
			open: new Float64Array(faults.length),
			left: new Int32Array(faults.length)
		};
	}

	/**
	 * What {@link cost} would come to if it were known what is wrong: no test can bring it lower.
	 *
	 * @param weight by state; need not add up to one
	 */
	knownCost(weight: Float64Array): number {
		let minutes = 0;
		for (let state = 0; state < weight.length; state++)
			minutes += (weight[state] as number) * (this.least[state] as number);
		return minutes;
	}

	/**
	 * Expected minutes of mending from here without another test: repairs in the order of probability over cost, until all
	 * that is wrong is cured (the order is optimal for single faults: Smith's ratio rule). A wrong part costs its penalty
	 * on top. Nothing wrong costs one proof.
	 *
	 * @param weight by state; need not add up to one
	 * @param first repair that is done first whatever the rule says; −1 = by the rule
	 * @returns expected minutes for the weight given, and the repairs in their order
	 */
	cost(weight: Float64Array, first = -1): { minutes: number; steps: RepairStep[] } {
		const { repairs, ofState, policy } = this;
		const { gains, open, left } = this.room;
		gains.fill(0);
		open.set(weight);
		/** Of a state of two faults, which is left after the other was cured (0 or 1); −1 = both are there. */
		left.fill(-1);
		let minutes = 0;
		let total = 0;
		for (let state = 0; state < open.length; state++) {
			const p = open[state] ?? 0;
			const own = ofState[state];
			if (p === 0 || !own) continue;
			if (own.length === 0) {
				minutes += p * policy.provingMinutes;
				open[state] = 0;
				continue;
			}
			total += p;
			addTo(gains, own, p);
		}
		const whole = total;
		const steps: RepairStep[] = [];
		while (total > whole * LEAST_SHARE && total > 0 && steps.length < MOST_STEPS) {
			const forced = steps.length === 0 ? repairs.indexOf(first) : -1;
			const best = forced >= 0 ? forced : this.bestOf(gains, total);
			if (best < 0) break;
			const cures = Math.min(1, (gains[best] ?? 0) / total);
			minutes += total * ((this.base[best] ?? 0) + (1 - cures) * (this.penalty[best] ?? 0));
			const before = total;
			for (const state of this.states[best] ?? []) total -= this.take(state, best, open, left, gains);
			steps.push({ repair: repairs[best] ?? 0, cures, ends: Math.max(0, before - total) / whole });
			// Rounding leaves crumbs that are no gain.
			gains[best] = 0;
		}
		return { minutes: minutes + Math.max(0, total) * policy.unresolvedMinutes, steps };
	}

	/** What a repair does to one state. @returns the weight that is then cured whole */
	private take(
		state: number,
		repair: number,
		open: Float64Array,
		left: Int32Array,
		gains: Float64Array
	): number {
		const p = open[state] as number;
		if (p === 0) return 0;
		const one = left[state] as number;
		const ofA = this.ofFirst[state] ?? NO_PLACES;
		const ofB = this.ofSecond[state] ?? null;
		if (one >= 0 || ofB === null) {
			const places = one === 1 && ofB ? ofB : ofA;
			if (!places.includes(repair)) return 0;
			addTo(gains, places, -p);
			open[state] = 0;
			return p;
		}
		const [curesA, curesB] = [ofA.includes(repair), ofB.includes(repair)];
		addTo(gains, this.ofState[state] ?? NO_PLACES, -p);
		if (curesA && curesB) {
			open[state] = 0;
			return p;
		}
		left[state] = curesA ? 1 : 0;
		addTo(gains, curesA ? ofB : ofA, p);
		return 0;
	}

	/**
	 * Where what is not described is searched first: by its own weight, and a little by what is suspected at its place. Null where
	 * nobody thinks of it, or all of it is done.
	 */
	searchFirst(weight: Float64Array, done: (repair: number) => boolean): RepairStep | null {
		const { background, backgroundOf, faults } = this.model;
		let total = 0;
		const own = new Map<number, number>();
		const suspected = new Map<number, number>();
		for (const [state, list] of this.faults.entries()) {
			const p = weight[state] ?? 0;
			total += p;
			for (const fault of list) {
				const isOwn = background?.has(fault) === true;
				const at = isOwn ? fault : (backgroundOf?.[fault] ?? -1);
				suspected.set(at, (suspected.get(at) ?? 0) + p * (isOwn ? 1 : LIKE_DESCRIBED));
				if (isOwn) own.set(at, (own.get(at) ?? 0) + p);
			}
		}
		let best: RepairStep | null = null;
		let most = -1;
		for (const at of background ?? []) {
			const repair = faults[at]?.curedBy[0];
			const all = suspected.get(at) ?? 0;
			if (repair === undefined || done(repair) || all <= most) continue;
			most = all;
			const cures = (own.get(at) ?? 0) / total;
			best = { repair, cures, ends: cures };
		}
		return best;
	}

	private bestOf(gains: Float64Array, total: number): number {
		let best = -1;
		let bestRatio = 0;
		for (let place = 0; place < gains.length; place++) {
			const gain = gains[place] ?? 0;
			if (gain <= total * LEAST_SHARE) continue;
			const ratio = gain / ((this.base[place] ?? 0) + (1 - gain / total) * (this.penalty[place] ?? 0));
			if (ratio > bestRatio) {
				best = place;
				bestRatio = ratio;
			}
		}
		return best;
	}
}

function addTo(gains: Float64Array, places: Int32Array, p: number): void {
	for (let i = 0; i < places.length; i++) {
		const place = places[i] as number;
		gains[place] = (gains[place] ?? 0) + p;
	}
}

/** {@link Mending.cost} of one weight. */
export const mendingCost = (
	model: PathModel,
	{ faults }: Situation,
	weight: Float64Array,
	policy: Policy
): { minutes: number; steps: RepairStep[] } => new Mending(model, faults, policy).cost(weight);
