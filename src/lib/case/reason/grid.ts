import { LINKS, type Link } from '../../../../library/links';
import type { ReasonModel } from '../../../../library/reason/placed';
import { mayProve } from '../../../../library/reason/ruledSigns';
import { splitKey } from '../../../../library/reason/signs';
import { outcomeIndex } from '../../core/path/model';
import type { Reasoning } from './reasoning';
import { placeWords } from './words';

export const CELL_STATES = ['not-tested', 'suspect', 'proven-good', 'proven-bad'] as const;
export type CellState = (typeof CELL_STATES)[number];

/** One link of one place's path. */
export interface Cell {
	place: string;
	link: Link;
	state: CellState;
	/** That a fault sits here. */
	p: number;
	/** Observations that tell of it, as indices, the strongest first. */
	told: number[];
	/** Whether the newest entry proved or accused it. */
	fresh: boolean;
}

export interface ProofGrid {
	/** Links of a wheel's path, from the road to the module. */
	links: Link[];
	rows: { place: string; words: string; cells: Cell[] }[];
	/** What several share: modules, feeds, bus, configuration. */
	shared: { place: string; words: string; cells: Cell[] }[];
}

/** From the road to the module. */
export const WHEEL_LINKS: readonly Link[] = [
	'tyre',
	'ring',
	'gap',
	'sensor',
	'sensor-connector',
	'harness',
	'module-connector',
	'module-input'
];

/** Above this a fault here is proven, below {@link GOOD} it is as good as ruled out if something has spoken for it. */
const BAD = 0.9;
const GOOD = 0.02;
const SUSPECT = 0.04;
/** An observation speaks of a link when it halves or doubles the odds of its likeliest fault. */
const SPEAKS = Math.log(2);

/** The state of every link of every path, from the belief and from what has spoken of it. */
export function proofGrid(reasoning: Reasoning, newest: string | null): ProofGrid {
	const { model } = reasoning;
	const { type } = model;
	const described = model.faults.filter((_, index) => !model.background.has(index));
	const cell = (place: string, link: Link): Cell => cellOf(reasoning, place, link, newest);
	const rows = type.wheels.map(({ position }) => ({
		place: position,
		words: placeWords(position, type),
		cells: WHEEL_LINKS.map((link) => cell(position, link))
	}));
	const places = [
		...new Set(described.filter(({ fault }) => fault.at !== 'corner').map(({ place }) => place))
	];
	const shared = places.map((place) => {
		const links = LINKS.filter((link) =>
			described.some((one) => one.place === place && one.fault.link === link && one.fault.at !== 'corner')
		);
		return { place, words: placeWords(place, type), cells: links.map((link) => cell(place, link)) };
	});
	return { links: [...WHEEL_LINKS], rows, shared };
}

/** Faults that can sit at a link of a place, by index. */
export const faultsAt = (model: ReasonModel, place: string, link: string): number[] =>
	[...model.faults.keys()].filter((index) => {
		const one = model.faults[index];
		return !model.background.has(index) && one?.place === place && one.fault.link === link;
	});

function cellOf(
	{ model, belief, observations, curedFrom }: Reasoning,
	place: string,
	link: Link,
	newest: string | null
): Cell {
	const faults = faultsAt(model, place, link);
	const p = faults.reduce((sum, fault) => sum + (belief.present[fault] ?? 0), 0);
	const spoken = observations.flatMap(({ sign, outcome, epoch }, i) => {
		const table = model.sign(sign);
		if (!table) return [];
		const at = outcomeIndex(table, outcome);
		const width = table.outcomes.length;
		let most = 0;
		for (const fault of faults) {
			const row = model.rows.length + fault;
			if (!table.acts[row] || epoch >= curedFrom(fault)) continue;
			const log = Math.log((table.chance[row * width + at] ?? 0) / (table.sound[at] ?? 1));
			if (Math.abs(log) > Math.abs(most)) most = log;
		}
		return Math.abs(most) > SPEAKS ? [{ i, log: most }] : [];
	});
	spoken.sort((a, b) => Math.abs(b.log) - Math.abs(a.log));
	const tested =
		spoken.some(({ i, log }) => log < 0 && mayProve(observations[i]?.sign ?? '', 'good')) ||
		faults.some((fault) => Number.isFinite(curedFrom(fault)));
	const confirmed = spoken.some(({ i, log }) => log > 0 && mayProve(observations[i]?.sign ?? '', 'bad'));
	const state: CellState =
		p >= BAD && confirmed
			? 'proven-bad'
			: p >= SUSPECT
				? 'suspect'
				: p < GOOD && tested
					? 'proven-good'
					: 'not-tested';
	return {
		place,
		link,
		state,
		p,
		told: spoken.map(({ i }) => i),
		fresh: spoken.some(({ i }) => observations[i]?.entry === newest)
	};
}

/** Tests that would prove a cell otherwise: those whose outcomes differ most under its faults. */
export function testsFor(reasoning: Reasoning, { place, link }: Pick<Cell, 'place' | 'link'>): string[] {
	const { model, candidates } = reasoning;
	const faults = faultsAt(model, place, link);
	return candidates
		.map(({ id, signs }) => {
			let apart = 0;
			for (const sign of signs) {
				if (splitKey(sign).place !== place && signs.length > 1) continue;
				const table = model.sign(sign);
				if (!table) continue;
				for (const fault of faults) {
					const row = model.rows.length + fault;
					const good = table.chance[row * table.outcomes.length + table.good] ?? 0;
					apart = Math.max(apart, (table.sound[table.good] ?? 0) - good);
				}
			}
			return { id, apart };
		})
		.filter(({ apart }) => apart > 0.3)
		.sort((a, b) => b.apart - a.apart)
		.slice(0, 4)
		.map(({ id }) => id);
}
