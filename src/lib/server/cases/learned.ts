import { titleSource, type CodeBook } from '../../../../library/codes';
import { faults } from '../../../../library/faults';
import { libraryWeight } from '../../../../library/reason/odds';
import { repairs } from '../../../../library/repairs';
import type { VehicleType } from '../../../../library';
import { latest } from '../../case/thread/thread';
import type { CaseView } from '../../case/progress/project';
import { isLikeKm, isLikeSeason, likeness, type CaseTraits } from '../../core/path/likeCase';
import type { ProvenRepair } from '../db/trackRecord';

/** What this shop's own proven cases say about one case. */

/** One of them, and how much it says here. */
export interface Spoken {
	proven: ProvenRepair;
	/** See `likeness`. */
	weight: number;
	alike: { type: boolean; codes: boolean; km: boolean; season: boolean };
}

const monthOf = (at: string): number => new Date(at).getUTCMonth();

/** By the shop's own words on codes; a code without words is of no group. */
const groupsOf = (codes: readonly string[], book: CodeBook, maker: string | null): string[] => [
	...new Set(codes.flatMap((code) => titleSource(book, { code, failureType: null, maker })?.group ?? []))
];

/**
 * Outcomes that speak of this case: of the same type of vehicle, or with a code of the same group. Never the case's own.
 *
 * @param now when it is asked; stands for the time of a case that has no entry yet
 */
export function spokenFor(
	proven: readonly ProvenRepair[],
	type: VehicleType,
	{ caseId, view, now }: { caseId: string; view: CaseView; now: string }
): Spoken[] {
	const here: CaseTraits = {
		typeId: type.id,
		groups: groupsOf(
			view.codes.map(({ text }) => text.split('-')[0] ?? ''),
			view.book,
			type.maker
		),
		km: latest(view.entries, 'vehicle-checked')?.payload.odometerKm ?? null,
		month: monthOf(view.entries[0]?.observedAt ?? now)
	};
	return proven
		.filter(({ caseId: other }) => other !== caseId)
		.flatMap((one) => {
			const there: CaseTraits = {
				typeId: one.typeId,
				groups: groupsOf(one.codes, view.book, type.maker),
				km: one.km,
				month: monthOf(one.at)
			};
			const alike = {
				type: there.typeId === here.typeId,
				codes: there.groups.some((group) => here.groups.includes(group)),
				km: isLikeKm(here.km, there.km),
				season: isLikeSeason(here.month, there.month)
			};
			return alike.type || alike.codes ? [{ proven: one, weight: likeness(here, there), alike }] : [];
		});
}

/** A repair that was proven speaks for every fault that it cures, by the library's odds between them. */
export function countsByFault(spoken: readonly Spoken[]): Record<string, number> {
	const counts: Record<string, number> = {};
	for (const { proven, weight } of spoken) {
		const cured = [...faults.values()].filter(({ curedBy }) => curedBy.includes(proven.kind));
		const total = cured.reduce((sum, { id }) => sum + libraryWeight(id), 0);
		for (const { id } of cured) counts[id] = (counts[id] ?? 0) + (weight * libraryWeight(id)) / total;
	}
	return counts;
}

/** What was proven on cases like this one, most often first, with how many of them were alike in what. */
export interface LearnedLine {
	words: string;
	count: number;
	of: number;
	/** "3 on this type, 2 about this far driven, 1 at this time of the year". */
	alike: string;
}
const MOST_LINES = 3;

export function learnedLines(spoken: readonly Spoken[]): LearnedLine[] {
	const byRepair = new Map<string, Spoken[]>();
	for (const one of spoken) byRepair.set(one.proven.kind, [...(byRepair.get(one.proven.kind) ?? []), one]);
	return [...byRepair]
		.sort(([, a], [, b]) => b.length - a.length)
		.slice(0, MOST_LINES)
		.map(([kind, ones]) => ({
			words: repairs.get(kind)?.name ?? kind,
			count: ones.length,
			of: spoken.length,
			alike: alikeWords(ones)
		}));
}

function alikeWords(ones: readonly Spoken[]): string {
	const said = [
		[ones.filter(({ alike }) => alike.type).length, 'on this type'],
		[ones.filter(({ alike }) => alike.codes).length, 'with such codes'],
		[ones.filter(({ alike }) => alike.km).length, 'about as far driven'],
		[ones.filter(({ alike }) => alike.season).length, 'at this time of the year']
	] as const;
	return said.map(([count, words]) => `${count} ${words}`).join(', ');
}
