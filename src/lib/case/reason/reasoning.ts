import type { VehicleType } from '../../../../library';
import type { CodeBook } from '../../../../library/codes';
import { wheelReaderOf } from '../../../../library/measurePoints';
import { bookBy, NUMBERING_ODDS, NUMBERINGS, type Numbering } from '../../../../library/numbering';
import { judgedAs } from '../../../../library/repairs';
import { withNotDescribed } from '../../../../library/reason/model';
import type { ReasonModel } from '../../../../library/reason/placed';
import { repairsWithoutHelp, shareAfter } from '../../../../library/reason/unhelpful';
import { isSilent } from '../../../../library/reason/codeSigns';
import {
	afterWork,
	leftBySheet,
	repairInducedByOurs,
	type DoneByOthers
} from '../../../../library/reason/repairInduced';
import { notDescribedShare } from '../../../../library/reason/notDescribed';
import { lookedInto } from '../../../../library/reason/looked';
import { signKey, splitKey } from '../../../../library/reason/signs';
import {
	afterSameLine,
	canBeDone,
	onceMore,
	testsFor,
	type PlacedTest
} from '../../../../library/reason/tests';
import { believe, mixBeliefs, type Belief, type LeftBehind } from '../../core/path/believe';
import { contradictions, type Contradiction } from '../../core/path/contradiction';
import type { Observation } from '../../core/path/model';
import { decide, type Decision } from '../../core/path/nextTest';
import type { Policy } from '../../core/path/repairCost';
import { situationOf, type Situation } from '../../core/path/situation';
import { doneByOthers } from '../entries/prior-work/worth';
import { lastFittings, leftByFitting } from '../mend/fittings';
import { isMending, mendedBy, openCalibrations } from '../mend/calibrations';
import type { CaseCode } from '../codes/caseCode';
import type { Entry, EntryOf } from '../entries/entry';
import { ofKind } from '../thread/thread';
import { observationsOf } from './observations';

/** All that follows from a thread for what is wrong and what to do next. */
export interface Reasoning {
	model: ReasonModel;
	/** By entry that tells of work by others: the model as it would be without that work. */
	withoutWork: ReadonlyMap<string, ReasonModel>;
	policy: Policy;
	observations: Observation[];
	belief: Belief;
	curedFrom: (fault: number) => number;
	/** How many repairs have been done. */
	epoch: number;
	/** What they may have left behind. */
	repairInduced: LeftBehind[];
	situation: Situation;
	/** Tests that can still tell something, with the shop's minutes. */
	candidates: PlacedTest[];
	/** Tests that somebody has set aside, and why. */
	setAside: EntryOf<'test-step'>[];
	/** What has been got to. */
	accessGained: ReadonlySet<string>;
	decision: Decision;
	contradictions: Contradiction[];
	/** The numberings by which its codes can be read, the likelier first; empty where one is known. */
	numbering: { numbering: Numbering; p: number }[];
}

export interface ReasonOptions {
	book: CodeBook;
	codes: readonly CaseCode[];
	policy: Policy;
	/** Codes that mean one thing or another by a numbering that nothing tells yet. */
	numberingOpen?: readonly string[];
	/** The shop's own minutes of a test of the library, where it has timed it. */
	minutes?: ((kind: string) => number | null) | undefined;
}

/** @param entries standing entries in order */
export function reasonAbout(
	entries: readonly Entry[],
	ofType: ReasonModel,
	{ book, codes, policy, numberingOpen = [], minutes = () => null }: ReasonOptions
): Reasoning {
	const known = afterWork(ofType, workDone(entries));
	const { type } = known;
	const readings = (numberingOpen.length > 0 ? NUMBERINGS : [null]).map((numbering) => ({
		numbering,
		seen: observationsOf(entries, type, numbering ? bookBy(book, numbering) : book, codes)
	}));
	const done = entries
		.filter(isMending)
		.map((entry): Done => ({ id: entry.id, done: mendedIn(entry, known) }));
	const withoutHelp = repairsWithoutHelp(
		known,
		readings[0]?.seen ?? [],
		done.map((one) => one.done)
	);
	const share = notDescribedShare(codes.map(({ group }) => group));
	const model = withNotDescribed(known, shareAfter(share, withoutHelp));
	const curedFrom = curing(done, model);
	const epoch = done.length;
	const repairInduced = [...leftByOurRepairs(done, model), ...leftBySheets(entries, done, model)];
	const read = readings
		.map(({ numbering, seen }) => {
			const one = believe(model, seen, curedFrom, epoch, repairInduced);
			return {
				numbering,
				seen,
				belief: one,
				log: one.logEvidence + Math.log(numbering ? NUMBERING_ODDS[numbering] : 1)
			};
		})
		.sort((a, b) => b.log - a.log);
	const mostLog = read[0]?.log ?? 0;
	const weighed = read.map((one) => ({ ...one, weight: Math.exp(one.log - mostLog) }));
	const belief = mixBeliefs(weighed);
	const allWeight = weighed.reduce((sum, { weight }) => sum + weight, 0);
	// What is told of single readings goes by the likelier numbering; what is believed, by both.
	const observations = weighed[0]?.seen ?? [];
	const situation = situationOf(model, belief);
	const setAside = ofKind(entries, 'test-step').filter(({ payload }) => payload.how !== 'done');
	const aside = new Set(setAside.map(({ payload }) => `${payload.test}@${payload.place}`));
	const seen = new Map<string, string>();
	const looks = new Map<string, number>();
	const silent = new Set<string>();
	for (const one of observations.filter((each) => each.epoch === epoch)) {
		const { sign, place } = splitKey(one.sign);
		const key = signKey(sign, place);
		seen.set(key, one.outcome);
		looks.set(key, (looks.get(key) ?? 0) + 1);
		if (isSilent(sign, one.outcome)) silent.add(place);
	}
	const accessGained = reached(entries, type);
	// After a repair what is due is taught before anybody drives it.
	const mayDrive = epoch === 0 || openCalibrations(entries).length === 0;
	const candidates = testsFor(type)
		.filter((test) => test.kind.id !== 'scan' && !aside.has(test.id) && canBeDone(test, type, silent))
		.filter(({ kind }) => mayDrive || !kind.access.includes('down'))
		.flatMap((test) => {
			const times = Math.min(...test.signs.map((sign) => looks.get(sign) ?? 0));
			if (times === 0) return [afterSameLine(test, (sign) => seen.get(sign), type)];
			return times <= test.kind.repeats ? [onceMore(test, (sign) => seen.get(sign))] : [];
		})
		.map((test) => ({ ...test, minutes: minutes(test.kind.id) ?? test.minutes }));
	const withoutWork = new Map(
		ofKind(entries, 'prior-work').map(({ id }) => [
			id,
			afterWork(ofType, workDone(entries.filter((entry) => entry.id !== id)))
		])
	);
	return {
		model,
		withoutWork,
		policy,
		observations,
		belief,
		curedFrom,
		epoch,
		repairInduced,
		situation,
		candidates,
		setAside,
		accessGained,
		numbering: weighed.flatMap(({ numbering, weight }) =>
			numbering ? [{ numbering, p: weight / allWeight }] : []
		),
		decision: decide(model, situation, candidates, policy, accessGained, {
			...lookedInto(
				model,
				observations.filter((one) => one.epoch === epoch).map(({ sign }) => sign),
				candidates
			),
			withoutHelp,
			searched: (repair) => done.some((one) => one.done.has(repair))
		}),
		contradictions: contradictions(model, observations, belief)
	};
}

/** What others have done to the vehicle before it came. */
export const workDone = (entries: readonly Entry[]): DoneByOthers[] =>
	ofKind(entries, 'prior-work').flatMap(({ payload }) => payload.works.flatMap(doneByOthers));

/** One repair of the thread, as repairs of the library by index. */
interface Done {
	id: string;
	done: ReadonlySet<number>;
}

/** From which repair on a fault counts as cured. */
function curing(repairs: readonly Done[], model: ReasonModel): (fault: number) => number {
	const from = new Map<number, number>();
	for (const [i, { done }] of repairs.entries())
		for (const [fault, { curedBy }] of model.faults.entries())
			if (!from.has(fault) && curedBy.some((repair) => done.has(repair))) from.set(fault, i + 1);
	return (fault) => from.get(fault) ?? Infinity;
}

/** What each repair may have left behind, until a later one cures it. */
function leftByOurRepairs(repairs: readonly Done[], model: ReasonModel): LeftBehind[] {
	return repairs.flatMap(({ id, done }, i) =>
		[...done].flatMap((index) => {
			const repair = model.repairs[index];
			if (!repair) return [];
			return repairInducedByOurs(model, repair, id, i + 1).map((one): LeftBehind => {
				const curedBy = model.faults[one.fault]?.curedBy ?? [];
				const later = repairs.findIndex((next, at) => at > i && curedBy.some((cure) => next.done.has(cure)));
				return { ...one, until: later < 0 ? Infinity : later + 1 };
			});
		})
	);
}

/** What work left behind by its own sheet, until a later repair cures it. A sheet filled in before its repair belongs to that. */
function leftBySheets(entries: readonly Entry[], repairs: readonly Done[], model: ReasonModel): LeftBehind[] {
	return lastFittings(entries).flatMap((entry) => {
		const before = entries.slice(0, entries.indexOf(entry)).filter(isMending).length;
		const from = Math.max(1, before);
		return leftBySheet(model, leftByFitting(entry.payload), {
			place: entry.payload.place,
			entry: entry.id,
			from
		}).map((one): LeftBehind => {
			const curedBy = model.faults[one.fault]?.curedBy ?? [];
			const later = repairs.findIndex(
				(next, at) => at >= from && curedBy.some((cure) => next.done.has(cure))
			);
			return { ...one, until: later < 0 ? Infinity : later + 1 };
		});
	});
}

/** Repairs of the library that an entry comes to. */
function mendedIn(entry: Entry, model: ReasonModel): ReadonlySet<number> {
	if (entry.kind === 'repair') return repairsDone(entry.payload, model);
	if (entry.kind !== 'calibration') return new Set();
	const { kind, place } = mendedBy(entry);
	return new Set(
		[...model.repairs.keys()].filter((index) => {
			const repair = model.repairs[index];
			return repair?.kind === kind && repair.place === place;
		})
	);
}

/** Repairs of the library that an entry tells of: what was chosen, at its place. Its words alone tell of none. */
export function repairsDone({ does }: EntryOf<'repair'>['payload'], model: ReasonModel): Set<number> {
	const kind = does && judgedAs(does.kind);
	return new Set(
		[...model.repairs.keys()].filter((index) => {
			const one = model.repairs[index];
			return one?.kind === kind && one?.place === does?.place;
		})
	);
}

/** What tests and repairs have laid open on this case: it is paid for. */
function reached(entries: readonly Entry[], type: VehicleType): Set<string> {
	const accessGained = new Set<string>();
	const tests = new Map(testsFor(type).map((test) => [test.id, test]));
	const pay = (id: string) => {
		for (const access of tests.get(id)?.access ?? []) accessGained.add(access.id);
	};
	const reader = wheelReaderOf(type)?.role;
	const opened = (plugs: readonly string[]) => {
		for (const plug of plugs) accessGained.add(plug === reader ? `module:${plug}` : `plug:${plug}`);
	};
	for (const entry of entries) {
		switch (entry.kind) {
			case 'meter-reading':
				opened(entry.payload.opened);
				if (entry.payload.position) pay(`meter:${entry.payload.measurement}@${entry.payload.position}`);
				break;
			case 'substitution':
				opened(entry.payload.opened);
				break;
			case 'harness-search':
				opened(entry.payload.exposed.filter((one) => one === reader || one === entry.payload.position));
				break;
			case 'scope-capture':
				for (const { position, at } of entry.payload.channels) if (position) pay(`scope-${at}@${position}`);
				break;
			case 'wheel-round':
				accessGained.add('lifted');
				break;
			case 'inspection':
				pay(`look:${entry.payload.inspection}@${entry.payload.position}`);
				break;
			case 'test-step':
				if (entry.payload.how === 'done') pay(`${entry.payload.test}@${entry.payload.place}`);
				break;
			case 'proving-drive':
			case 'live-recording':
				// On the road all wheels are on again, and the vehicle is down.
				for (const id of [...accessGained])
					if (id === 'lifted' || id.startsWith('wheel:')) accessGained.delete(id);
				break;
			default:
		}
	}
	return accessGained;
}
