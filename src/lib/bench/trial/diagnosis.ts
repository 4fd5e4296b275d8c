import { againKey, splitKey, type Seen, type SignKey } from '../../../../library/reason/signs';
import {
	familyAccess,
	IDENTIFY_MIN,
	testKinds,
	placedTest,
	testsFor,
	type PlacedTest
} from '../../../../library/reason/tests';
import { givenSameLine } from '../../../../library/reason/sameLine';
import { repairsWithoutHelp, shareAfter } from '../../../../library/reason/unhelpful';
import { reasonModel, withNotDescribed } from '../../../../library/reason/model';
import type { PlacedRepair, ReasonModel } from '../../../../library/reason/placed';
import type { VehicleType } from '../../../../library';
import { withFamilyAt } from '../../../../library/wheelSensors';
import { believe, type Belief } from '../../core/path/believe';
import { GENERAL_METHOD, USUAL_NOT_DESCRIBED } from '../../../../library/reason/notDescribed';
import { faultOf } from '../faults/benchFault';
import { mixedSeed } from '../technician/mixedSeed';
import { Novice } from './novice';
import type { Observation } from '../../core/path/model';
import { minutesOf } from '../../core/path/nextTest';
import type { Policy } from '../../core/path/repairCost';
import { SimulatedTechnician } from '../technician/simulatedTechnician';
import { trialVehicle } from '../technician/trialVehicle';
import { uniform, type BenchVehicle } from '../vehicle';
import { isUnknown, type TrialCase } from './trialCase';

/** What a way of working does next: test, repair, or give the vehicle back. */
export type Move =
	| { test: PlacedTest }
	/** @property cures how sure it is held that something is cured by it, where that is said */
	| { repair: PlacedRepair; cures?: number }
	/** @property unknown it is said that something not described is likeliest of what is left */
	| { handBack: true; unknown?: boolean };

/** A repair that was advised, and whether it cured something. */
export interface Advice {
	/** How sure it was said to be; null where that is not said. */
	p: number | null;
	held: boolean;
	/** A good part was bought for it. */
	wrongPart: boolean;
}

/** All that a way of working may look at. It never sees what is wrong with the vehicle. */
export interface Bench {
	readonly model: ReasonModel;
	readonly policy: Policy;
	readonly tests: readonly PlacedTest[];
	/** Tests done since the last repair, and how many times each. */
	readonly done: ReadonlyMap<string, number>;
	readonly accessGained: ReadonlySet<string>;
	readonly seen: Seen;
	/** Repairs done, in order. */
	readonly mended: readonly PlacedRepair[];
	/** Whether what was seen after the last repair still tells of something wrong. */
	readonly troubled: boolean;
	/** How many repairs did not help, by what was seen after them. */
	readonly withoutHelp: number;
	belief(): Belief;
}
export type Way = (bench: Bench) => Move;

export interface Outcome {
	/** Until the right repair begins: tests, getting there, and repairs that did not help. */
	minutes: number;
	tests: number;
	wrongParts: number;
	/** Whether all that was wrong is cured. */
	resolved: boolean;
	/** False where it never showed anything to its owner. */
	brought: boolean;
	/** Whether the first thing repaired was at fault; null where nothing was repaired. */
	firstRight: boolean | null;
	advised: Advice[];
	/** Whether it was ever said that it is something not described: the general method, or likeliest when handed back. */
	calledUnknown: boolean;
	/** Whether something not described was wrong. */
	unknown: boolean;
	steps: string[];
}

const MOST_MOVES = 60;
const MOST_MINUTES = 720;
/** What comes and goes has to stay away for longer than one drive. */
const PROOF_TRIPS = 4;
/** By vehicle, and by what is known of its sensors. */
const models = new Map<string, ReasonModel>();
const modelOf = (type: VehicleType): ReasonModel => {
	const key = [type.id, ...type.wheels.map(({ sensor }) => sensor)].join(' ');
	const known = models.get(key) ?? reasonModel(type);
	models.set(key, known);
	return known;
};

/**
 * Works on one vehicle from its arrival until it is handed back. Outcomes come from the vehicle's physics alone.
 *
 * @param onlyBrought nothing is done on a vehicle that never showed anything to its owner
 * @param novice by somebody who is not always careful: {@link Novice}
 */
export function diagnose(
	trial: TrialCase,
	way: Way,
	policy: Policy,
	{ onlyBrought = false, novice = false }: { onlyBrought?: boolean; novice?: boolean } = {}
): Outcome {
	const vehicle = trialVehicle(trial.built, structuredClone(trial.faults), trial.seed, trial.scatter);
	const person = novice ? new Novice(uniform(mixedSeed(trial.seed + 11))) : null;
	return new Diagnosis(trial, vehicle, policy, person).run(way, onlyBrought);
}

class Diagnosis implements Bench {
	model: ReasonModel;
	tests: readonly PlacedTest[];
	readonly done = new Map<string, number>();
	readonly accessGained = new Set<string>();
	readonly mended: PlacedRepair[] = [];
	seen: Seen = {};
	withoutHelp = 0;
	troubled = true;
	private readonly observations: Observation[] = [];
	private readonly technician: SimulatedTechnician;
	private readonly outcome: Outcome = {
		minutes: 0,
		tests: 0,
		wrongParts: 0,
		resolved: false,
		brought: true,
		firstRight: null,
		advised: [],
		calledUnknown: false,
		unknown: false,
		steps: []
	};
	private known: Belief | null = null;

	constructor(
		trial: TrialCase,
		private readonly vehicle: BenchVehicle,
		readonly policy: Policy,
		private readonly novice: Novice | null = null
	) {
		this.model = modelOf(trial.type);
		this.tests = testsFor(trial.type);
		this.outcome.unknown = isUnknown(trial);
		this.technician = new SimulatedTechnician(vehicle, uniform(trial.seed + 7));
	}

	belief(): Belief {
		this.known ??= believe(
			withNotDescribed(this.model, shareAfter(USUAL_NOT_DESCRIBED, this.withoutHelp)),
			this.observations,
			(fault) => this.curedFrom(fault)
		);
		return this.known;
	}

	private curedFrom(fault: number): number {
		const curedBy = this.model.faults[fault]?.curedBy ?? [];
		const at = this.mended.findIndex(({ id }) =>
			curedBy.some((repair) => this.model.repairs[repair]?.id === id)
		);
		return at < 0 ? Infinity : at + 1;
	}

	run(way: Way, onlyBrought: boolean): Outcome {
		const { outcome } = this;
		this.note(this.technician.arrives());
		outcome.brought = this.technician.shown;
		if (!outcome.brought && onlyBrought) return outcome;
		this.test(this.find('scan'));
		for (let move = 0; move < MOST_MOVES && outcome.minutes < MOST_MINUTES; move++) {
			const next = way(this);
			if ('handBack' in next) {
				outcome.calledUnknown ||= next.unknown === true && this.left() > 0;
				break;
			}
			if ('test' in next)
				this.test(this.novice?.insteadOf(next.test, this.tests.filter(this.isNew)) ?? next.test);
			else this.mend(next.repair, next.cures);
		}
		outcome.resolved = this.left() === 0;
		return outcome;
	}

	private readonly isNew = ({ id, kind }: PlacedTest): boolean => !this.done.has(id) && kind.id !== 'scan';

	private find(kind: string): PlacedTest {
		const found = testKinds.get(kind);
		if (!found) throw new RangeError(`no test ${kind}`);
		return placedTest(found, this.model.type, 'vehicle');
	}

	private note(seen: Seen): void {
		const epoch = this.mended.length;
		for (const [sign, outcome] of Object.entries(seen)) {
			const before = this.seen[sign as SignKey];
			const again =
				before === undefined
					? givenSameLine(sign, (key) => this.seen[key as SignKey], this.model.type)
					: againKey(sign, before);
			this.observations.push({ sign: again, outcome, entry: '', epoch });
		}
		this.seen = { ...this.seen, ...seen };
		this.known = null;
	}

	private test(test: PlacedTest): void {
		const { outcome } = this;
		const { place } = test;
		if (test.access.some(({ id }) => id === familyAccess(place)) && !this.identify(place, test.id)) return;
		outcome.minutes += minutesOf(test, this.accessGained);
		outcome.tests += 1;
		for (const { id } of test.access) this.accessGained.add(id);
		// A road test puts the wheels on and the vehicle down.
		if (test.kind.access.includes('down'))
			for (const id of [...this.accessGained])
				if (id === 'lifted' || id.startsWith('wheel:')) this.accessGained.delete(id);
		this.done.set(test.id, (this.done.get(test.id) ?? 0) + 1);
		const shown = this.technician.perform(test);
		const seen = this.novice?.noted(test, shown, this.model) ?? shown;
		this.note(seen);
		outcome.steps.push(`${test.id}: ${remarkable(this.model, seen)}`);
	}

	/** Tells of what family a sensor is. @returns whether a test can still be done on it */
	private identify(position: string, test: string): boolean {
		const wheel = this.vehicle.world.wheels.find((one) => one.position === position);
		if (!wheel) return true;
		const type = withFamilyAt(this.model.type, position, wheel.family);
		this.model = modelOf(type);
		this.tests = testsFor(type);
		this.known = null;
		this.outcome.minutes += IDENTIFY_MIN;
		this.outcome.steps.push(`identify@${position}: ${wheel.family}`);
		this.accessGained.add(familyAccess(position));
		return this.tests.some(({ id }) => id === test);
	}

	private mend(repair: PlacedRepair, cures?: number): void {
		const { outcome, vehicle } = this;
		const before = this.left();
		vehicle.mend(repair.place, repair.kind);
		// A module is not in before it is coded and calibrated: that is part of the job.
		if (repair.kind === 'renew-module')
			for (const more of ['code-module', 'calibrate']) vehicle.mend(repair.place, more);
		this.mended.push(repair);
		const helped = this.left() < before;
		outcome.firstRight ??= helped;
		// The work that cures is the same for every way of working.
		if (!helped) outcome.minutes += repair.minutes + this.policy.provingMinutes;
		if (!helped && repair.part) outcome.wrongParts += 1;
		outcome.advised.push({ p: cures ?? null, held: helped, wrongPart: !helped && repair.part });
		if (repair.kind === GENERAL_METHOD) outcome.calledUnknown = true;
		const said = cures === undefined ? '' : ` (${Math.round(cures * 100)} %)`;
		outcome.steps.push(`${repair.id}${said} ${helped ? 'helped' : 'did not help'}`);
		this.done.clear();
		this.seen = {};
		this.prove();
	}

	/** Faults that are still there. A sensor that sits crooked stays so, but once calibrated it reads right. */
	private left(): number {
		return this.vehicle.faults.filter((fault) => {
			const cures = faultOf(fault).curedBy;
			const { at } = fault;
			return !this.mended.some(
				({ kind, place }) =>
					place === at && cures.includes(kind) && (kind === 'calibrate' || kind === 'code-module')
			);
		}).length;
	}

	/** Cleared, driven, read again. */
	private prove(): void {
		const road = this.technician.perform(this.find('road'));
		const felt = this.technician.arrives(PROOF_TRIPS);
		const scan = this.technician.perform(this.find('scan'));
		const all = { ...road, ...felt, ...scan };
		this.note(all);
		this.withoutHelp = repairsWithoutHelp(
			this.model,
			this.observations,
			this.mended.map(({ id }) => new Set([this.model.repairs.findIndex((one) => one.id === id)]))
		);
		this.known = null;
		this.troubled = Object.entries(all).some(
			([key, seen]) => this.model.sign(key as never)?.outcomes.indexOf(seen) !== this.model.sign(key)?.good
		);
		for (const id of ['road@vehicle', 'scan@vehicle']) this.done.set(id, 1);
	}
}

/** What of an outcome is not as on a sound vehicle. */
function remarkable(model: ReasonModel, seen: Seen): string {
	const bad = Object.entries(seen).filter(([key, outcome]) => {
		const table = model.sign(key);
		return table && table.outcomes[table.good] !== outcome;
	});
	if (bad.length === 0) return 'good';
	return bad.map(([key, outcome]) => `${splitKey(key).place} ${outcome}`).join(', ');
}
