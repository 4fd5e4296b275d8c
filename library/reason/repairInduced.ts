import { z } from 'zod';
import repairInducedFile from './repairInduced.json' with { type: 'json' };
import type { LeftBehind } from '../../src/lib/core/path/believe';
import { repairs } from '../repairs';
import { works } from '../vocabulary';
import { withNotDescribed } from './model';
import type { PlacedRepair, ReasonModel } from './placed';

const file = z
	.object({
		/** How many times as likely. */
		times: z.number().min(1),
		/** That a repair of one's own leaves something behind. */
		own: z.number().gt(0).lt(1),
		/** The same where its sheet shows that something was not done as it should be. */
		shown: z.number().gt(0).lt(1),
		works: z.array(
			z.object({
				/** Such work, by the vocabulary. */
				works: z.array(z.string().refine((id) => works.has(id), 'no such work')).min(1),
				/** Repairs of the library that are such work. */
				repairs: z.array(z.string().refine((id) => repairs.has(id), 'no such repair')).default([]),
				leaves: z.array(z.string()).min(1)
			})
		)
	})
	.parse(repairInducedFile);

/** Faults that work of the vocabulary leaves behind now and then, by the work. */
export function repairInducedBy(named: readonly string[]): Map<string, string> {
	const found = new Map<string, string>();
	for (const name of named)
		for (const { works: which, leaves } of file.works)
			if (which.includes(name)) for (const fault of leaves) if (!found.has(fault)) found.set(fault, name);
	return found;
}

/** Work that others did before a vehicle came. */
export interface DoneByOthers {
	/** By the vocabulary. */
	work: string;
	/** How much of what such work leaves behind is thought of: 1 = as usual, less where it is long ago. */
	leaves: number;
	/** How much likelier the part itself is bad than one that nobody touched. */
	badPart: number;
	/** The wheel at which it was; null where nobody knows. */
	position: string | null;
}

/**
 * The model of a vehicle that others have worked on: what such work leaves behind is likelier, and so is a part of a doubtful
 * kind; all else a little less.
 */
export function afterWork(model: ReasonModel, done: readonly DoneByOthers[]): ReasonModel {
	const timesOf = ({ fault, place }: ReasonModel['faults'][number]): number =>
		done.reduce((times, { work, leaves, badPart, position }) => {
			if (position !== null && fault.at === 'corner' && place !== position) return times;
			if (repairInducedBy([work]).has(fault.id)) return times * Math.max(1, 1 + (file.times - 1) * leaves);
			const repair = works.get(work)?.repair;
			return repair && fault.curedBy[0] === repair && !fault.madeByUs ? times * badPart : times;
		}, 1);
	const times = model.faults.map(timesOf);
	if (times.every((one) => one === 1)) return model;
	const total = model.faults.reduce((sum, { prior }, i) => sum + prior * (times[i] ?? 1), 0);
	const known = [...model.background].reduce((sum, index) => sum + (model.faults[index]?.prior ?? 0), 0);
	const raised = {
		...model,
		faults: model.faults.map((one, i) => ({ ...one, prior: (one.prior * (times[i] ?? 1)) / total }))
	};
	return withNotDescribed(raised, known);
}

/**
 * What a repair of one's own may have left behind: at its place, or where a fault cannot sit there, anywhere.
 *
 * @param from how many repairs had been done, this one counted
 */
export function repairInducedByOurs(
	model: ReasonModel,
	repair: PlacedRepair,
	entry: string,
	from: number
): Omit<LeftBehind, 'until'>[] {
	const ids = new Set(
		file.works.filter((work) => work.repairs.includes(repair.kind)).flatMap(({ leaves }) => leaves)
	);
	const possible = [...model.faults.keys()].filter((at) => ids.has(model.faults[at]?.fault.id ?? ''));
	const here = new Set(possible.filter((at) => model.faults[at]?.place === repair.place));
	const atPlace = new Set([...here].map((at) => model.faults[at]?.fault.id));
	const left = possible.filter((at) => here.has(at) || !atPlace.has(model.faults[at]?.fault.id));
	const weight = (at: number) => model.faults[at]?.prior ?? 0;
	const total = left.reduce((sum, at) => sum + weight(at), 0);
	return left.map((fault) => ({ fault, entry, from, prior: (file.own * weight(fault)) / total }));
}

/**
 * What is left behind by work whose sheet shows that it was not done as it should be: at its place, or where a fault cannot sit
 * there, anywhere.
 *
 * @param ids faults of the library that the sheet points at
 * @param place null = the vehicle
 */
export function leftBySheet(
	model: ReasonModel,
	ids: readonly string[],
	{ place, entry, from }: { place: string | null; entry: string; from: number }
): Omit<LeftBehind, 'until'>[] {
	return ids.flatMap((id) => {
		const possible = [...model.faults.keys()].filter((at) => model.faults[at]?.fault.id === id);
		const here = possible.filter((at) => model.faults[at]?.place === place);
		const left = here.length > 0 ? here : possible;
		return left.map((fault) => ({ fault, entry, from, prior: file.shown / left.length }));
	});
}

/** What a repair of this kind leaves behind where it is done badly: ids of faults. */
export const slipsOf = (repair: string): string[] => [
	...new Set(file.works.filter((work) => work.repairs.includes(repair)).flatMap(({ leaves }) => leaves))
];
