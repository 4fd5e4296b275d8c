import type { Entry } from './entry';
import { ofKind } from './thread';

/** Recordings whose kilometres already stand on the thread as a drive. */
export const countedRecordings = (entries: readonly Entry[]): string[] =>
	ofKind(entries, 'proving-drive').flatMap(({ payload }) => payload.recordings ?? []);

/** Distance of all proving drives; one that was read from recordings which are counted already adds nothing. */
export function drivenKm(entries: readonly Entry[]): number {
	const counted = new Set<string>();
	let km = 0;
	for (const { payload } of ofKind(entries, 'proving-drive')) {
		const own = payload.recordings ?? [];
		if (own.length === 0 || own.some((id) => !counted.has(id))) km += payload.distanceKm;
		for (const id of own) counted.add(id);
	}
	return km;
}
