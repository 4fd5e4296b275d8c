import type { EntryOf } from './entry';
import type { Entry } from './entry';
import { ofKind } from './thread';

/** What of a fitting is not as it should be, each a few words; empty = nothing. */
export function fittingLacks({ part, steps }: EntryOf<'fitting'>['payload']): string[] {
	return [
		...(part.fits === 'no' ? ['the part is not for this vehicle'] : []),
		...part.missing.map((what) => `missing: ${what}`),
		...(part.damage ? [`damage: ${part.damage}`] : []),
		...steps.flatMap(({ words, state, within, value, unit }) => {
			if (within === false) return [`${words}: ${value} ${unit} is not right`.trim()];
			return state === 'open' ? [`${words}: not done`] : [];
		})
	];
}

/** The last sheet of each kind and place: one that was worked through again stands for the one before. */
export function lastFittings(entries: readonly Entry[]): EntryOf<'fitting'>[] {
	const last = new Map<string, EntryOf<'fitting'>>();
	for (const entry of ofKind(entries, 'fitting'))
		last.set(`${entry.payload.sheet}@${entry.payload.place ?? ''}`, entry);
	return [...last.values()];
}
