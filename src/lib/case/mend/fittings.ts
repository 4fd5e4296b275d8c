import { fittingSheets } from '../../../../library/fittingSheets';
import type { Entry, EntryOf } from '../entries/entry';
import { ofKind } from '../thread/thread';

/** The last sheet of each kind and place: one that was worked through again stands for the one before. */
export function lastFittings(entries: readonly Entry[]): EntryOf<'fitting'>[] {
	const last = new Map<string, EntryOf<'fitting'>>();
	for (const entry of ofKind(entries, 'fitting'))
		last.set(`${entry.payload.sheet}@${entry.payload.place ?? ''}`, entry);
	return [...last.values()];
}

const FUSE_SHEET = 'fuse';
/** Steps of its sheet by which a fuse's blowing is explained, and the new one shown to hold. */
const FUSE_EXPLAINED = ['cause', 'draw'];

/** Fuses that were renewed on this case and whose blowing nobody has explained since. */
export function unexplainedFuses(entries: readonly Entry[]): string[] {
	const open = new Set<string>();
	for (const entry of entries) {
		if (entry.kind === 'repair' && entry.payload.does?.kind === 'renew-fuse')
			open.add(entry.payload.does.place);
		if (entry.kind !== 'fitting' || entry.payload.sheet !== FUSE_SHEET) continue;
		const { place, steps } = entry.payload;
		const explained = FUSE_EXPLAINED.every((id) =>
			steps.some((step) => step.id === id && step.state === 'done' && step.within !== false)
		);
		if (place && explained) open.delete(place);
	}
	return [...open];
}

/** Faults that work leaves behind by what its sheet shows to be not right; each once. */
export function leftByFitting({ sheet, part, steps }: EntryOf<'fitting'>['payload']): string[] {
	const known = fittingSheets.get(sheet);
	if (!known) return [];
	const wrong = steps.filter(({ state, within }) => state !== 'done' || within === false);
	const left = known.steps
		.filter(({ id, optional }) =>
			wrong.some((step) => step.id === id && !(optional && step.state === 'left-out'))
		)
		.map(({ leaves }) => leaves);
	if (part.fits === 'no') left.push(known.part.wrongLeaves);
	left.push(
		...known.part.complete.filter(({ words }) => part.missing.includes(words)).map(({ leaves }) => leaves)
	);
	return [...new Set(left.filter((fault) => fault !== undefined))];
}
