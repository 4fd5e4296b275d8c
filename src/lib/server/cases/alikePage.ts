import { titleSource } from '../../../../library/codes';
import { vehicleTypes } from '../../../../library';
import { traitsOf, traitWords, TRAIT_KINDS, type TraitCode } from '../../case/reason/caseTraits';
import { latest, ofKind, standing } from '../../case/thread/thread';
import type { Entry, EntryKind } from '../../case/entries/entry';
import { groupedBy } from '../../core/groupedBy';
import { mostAlike, type Trait } from '../../core/path/alike';
import { codeNumber, suffixOf } from '../../core/codes/codeId';
import type { CaseCode } from '../../case/codes/caseCode';
import type { CodeBook } from '../../../../library/codes';
import type { Stores } from '../stores';
import { loadCase } from './access';
import { spokenFor } from './learned';

/** How a case ended, as far as it says whether the repair was right. */
export type Ended = 'proven' | 'released' | 'unproven' | 'came-back' | 'open';

/** A case like another. */
export interface AlikeCase {
	id: string;
	number: string;
	vehicle: string;
	/** Share of what is known here that is the same there, 0–1. */
	share: number;
	/** What is the same, in words, what says most first. */
	same: string[];
	complaint: string | null;
	repairs: string[];
	ended: Ended;
	/** Number of the case that it came back as. */
	cameBackAs: string | null;
	/** What was done to prove it: cleared, key off and on, kilometres driven. */
	provenBy: { cleared: boolean; cycled: boolean; km: number };
	/** By how much it counts in the reasoning about this case, 0–1; null where it does not. */
	weight: number | null;
}

const OTHERS: readonly EntryKind[] = ['repair', 'signature', 'codes-cleared', 'key-cycled', 'proving-drive'];
const MOST_SHOWN = 10;
/** Candidates by each way of finding them, the newest first. */
const MOST_BY_CODE = 60;
const MOST_BY_TYPE = 60;
const MOST_BY_WORDS = 30;
const MOST_IN_ALL = 200;

/** Cases of this shop that are like one, the most alike first: with what mended them, how that was proven, and how much it counts. */
export async function alikePage(stores: Stores, { caseId }: { caseId: string }) {
	const loaded = await loadCase(stores, caseId);
	const { row, view, type } = loaded;
	const maker = type?.maker ?? null;
	const here = traitsOf(view.entries, traitCodes(view.codes, view.book, maker), maker);
	const ids = await candidates(stores, caseId, view);
	const [told, rows, spoken, backs] = await Promise.all([
		toldOf(stores, ids, view.book),
		stores.cases.rowsOf(ids),
		spokenHere(stores, loaded),
		stores.trackRecord.cameBackAs(ids)
	]);
	const counts = new Map(spoken.map(({ proven, weight }) => [proven.caseId, weight]));
	const ranked = mostAlike(
		here,
		rows.map((one) => ({ one, traits: told.get(one.id)?.traits ?? [] }))
	);
	return {
		known: here.length,
		looked: ids.length,
		counted: spoken.length,
		cases: ranked.slice(0, MOST_SHOWN).map(({ one, share, same }): AlikeCase => {
			const entries = told.get(one.id)?.entries ?? [];
			const back = backs.get(one.id) ?? null;
			return {
				id: one.id,
				number: one.number,
				vehicle:
					one.vehicle.id === row.vehicle.id ? 'this very vehicle' : one.vehicle.nickname || one.vehicleName,
				share,
				same: sameWords(same),
				complaint: one.summary.complaint,
				repairs: ofKind(entries, 'repair').map(({ payload }) => payload.title),
				ended: back === null ? endedOf(entries, one.signed) : 'came-back',
				cameBackAs: back,
				provenBy: {
					cleared: ofKind(entries, 'codes-cleared').length > 0,
					cycled: ofKind(entries, 'key-cycled').length > 0,
					km: ofKind(entries, 'proving-drive').reduce((sum, { payload }) => sum + payload.distanceKm, 0)
				},
				weight: counts.get(one.id) ?? null
			};
		})
	};
}

/** What is the same, each once; a code that fails in the same way is not said again by its number alone. */
function sameWords(same: readonly Trait[]): string[] {
	const isToldByFailure = ({ kind, value }: Trait) =>
		kind === 'code' && same.some((other) => other.kind === 'failure' && other.value.startsWith(`${value}-`));
	const words = same.filter((trait) => !isToldByFailure(trait)).flatMap((trait) => traitWords(trait) ?? []);
	return [...new Set(words)];
}

const traitCodes = (codes: readonly CaseCode[], book: CodeBook, maker: string | null): TraitCode[] =>
	codes.map(({ dtc }) => asTrait(codeNumber(dtc), suffixOf(dtc) ?? '', book, maker));

const asTrait = (code: string, failureType: string, book: CodeBook, maker: string | null): TraitCode => ({
	code,
	failureType,
	group: titleSource(book, { code, failureType: null, maker })?.group ?? null
});

function endedOf(entries: readonly Entry[], signed: boolean): Ended {
	if (!signed) return 'open';
	return latest(entries, 'signature')?.payload.outcome ?? 'proven';
}

/** Cases with one of its codes, of its type of vehicle, or with words of its complaint: the newest of each. */
async function candidates(
	{ cases }: Stores,
	caseId: string,
	view: Awaited<ReturnType<typeof loadCase>>['view']
): Promise<string[]> {
	const codes = [...new Set(view.codes.map(({ dtc }) => codeNumber(dtc)))];
	const typeId = latest(view.entries, 'case-opened')?.payload.typeId ?? null;
	const words = latest(view.entries, 'complaint')?.payload.words ?? '';
	const [byCode, byType, byWords] = await Promise.all([
		cases.newestWith(codes, MOST_BY_CODE),
		typeId === null ? [] : cases.newestOfType(typeId, MOST_BY_TYPE),
		words === '' ? [] : cases.search(words, MOST_BY_WORDS)
	]);
	const all = new Set([...byCode, ...byType, ...byWords.map(({ id }) => id)]);
	all.delete(caseId);
	return [...all].slice(0, MOST_IN_ALL);
}

/** What is known of each of some cases. */
async function toldOf({ threads, cases }: Stores, ids: readonly string[], book: CodeBook) {
	const [entries, codes] = await Promise.all([
		threads.readKinds([...ids], [...TRAIT_KINDS, ...OTHERS]),
		cases.codesOf(ids)
	]);
	const byCase = groupedBy(entries, ({ caseId }) => caseId);
	return new Map(
		ids.map((id) => {
			const thread = standing(byCase.get(id) ?? []);
			const typeId = latest(thread, 'case-opened')?.payload.typeId ?? '';
			const maker = vehicleTypes.get(typeId)?.maker ?? null;
			const had = (codes.get(id) ?? []).map(({ code, failureType }) =>
				asTrait(code, failureType, book, maker)
			);
			return [id, { entries: thread, traits: traitsOf(thread, had, maker) }] as const;
		})
	);
}

/** What the shop has learned from, as far as it speaks of this case. */
async function spokenHere(
	{ trackRecord }: Stores,
	{ row, view, type }: Awaited<ReturnType<typeof loadCase>>
) {
	if (!type) return [];
	return spokenFor(await trackRecord.read(), type, {
		caseId: row.id,
		view,
		now: new Date().toISOString()
	});
}
