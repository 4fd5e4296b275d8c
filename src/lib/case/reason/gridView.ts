import { splitKey } from '../../../../library/reason/signs';
import { describeEntry } from '../thread/describe';
import type { Entry } from '../entries/entry';
import { proofGrid, testsFor as testsForCell, type Cell } from './grid';
import { testWords } from './plan';
import type { Reasoning } from './reasoning';
import { placeWords, seenWords } from './words';

export interface ShownCell extends Omit<Cell, 'told'> {
	told: { entryId: string; title: string; words: string; for: boolean }[];
	otherwise: string[];
}

const TOLD: readonly Entry['kind'][] = [
	'network-scan',
	'prior-work',
	'complaint',
	'lamps-reported',
	'codes-reported'
];
const isTest = ({ kind }: Entry) => !TOLD.includes(kind);

export function shownGrid(reasoning: Reasoning, entries: readonly Entry[]) {
	// What lights up is what a test proved; what was told or read of all modules speaks of everything.
	const latestTest = [...entries]
		.reverse()
		.find((entry) => isTest(entry) && reasoning.observations.some((one) => one.entry === entry.id));
	const grid = proofGrid(reasoning, latestTest?.id ?? null);
	const byId = new Map(entries.map((entry) => [entry.id, entry]));
	const shown = (cell: Cell): ShownCell => ({
		...cell,
		told: cell.told.slice(0, 5).flatMap((at) => {
			const one = reasoning.observations[at];
			const entry = one && byId.get(one.entry);
			if (!one || !entry) return [];
			const table = reasoning.model.sign(one.sign);
			return [
				{
					entryId: entry.id,
					title: describeEntry(entry).title,
					words: `${placeWords(splitKey(one.sign).place, reasoning.model.type)}: ${seenWords(one.sign, one.outcome)}`,
					for: table !== null && table.outcomes[table.good] === one.outcome
				}
			];
		}),
		otherwise: testsForCell(reasoning, cell).flatMap((id) => {
			const test = reasoning.candidates.find((one) => one.id === id);
			return test ? [testWords(test.kind.name, test.place, reasoning.model.type)] : [];
		})
	});
	const rows = (list: readonly { place: string; words: string; cells: Cell[] }[]) =>
		list.map(({ place, words, cells }) => ({ place, words, cells: cells.map(shown) }));
	const roles = new Set<string>(reasoning.model.type.modules.map(({ role }) => role));
	const shared = rows(grid.shared);
	return {
		links: grid.links,
		rows: rows(grid.rows),
		modules: shared.filter(({ place }) => roles.has(place)),
		// Fuses, ground points and splices are named once something but silence speaks of them.
		feeds: shared.filter(
			({ place, cells }) =>
				!roles.has(place) &&
				cells.some(({ state, fresh }) => state === 'suspect' || state === 'proven-bad' || fresh)
		)
	};
}
