import type { VehicleType } from '../../../../library';
import { featureOf } from '../entries/registry';
import type { EntryKind, PayloadOf } from '../entries/entry';

/** Wheels that an entry names. */
function positionsIn(payload: object): string[] {
	const own = ['position', 'with'].flatMap((key) => {
		const wheel = (payload as Record<string, unknown>)[key];
		return typeof wheel === 'string' ? [wheel] : [];
	});
	const lists = ['corners', 'channels', 'tyres', 'wheels', 'works', 'tried'].flatMap((key) => {
		const list = (payload as Record<string, unknown>)[key];
		return Array.isArray(list) ? (list as { position?: string | null }[]) : [];
	});
	return [...own, ...lists.flatMap(({ position }) => position ?? [])];
}

/**
 * What an entry names that nobody knows: an id that is in no list of the library, or a wheel that this vehicle has not. Asked
 * before an entry is written; what is on a thread already is read whatever it names.
 *
 * @param type the vehicle of the case; null = not described, then any wheel may be meant
 * @returns a sentence for the person; null where all is known
 */
export function unknownId<K extends EntryKind>(
	kind: K,
	payload: PayloadOf<K>,
	type: VehicleType | null
): string | null {
	const named = featureOf(kind).names?.(payload) ?? [];
	const lost = named.find(([, id, known]) => !known.has(id));
	if (lost) return `This version knows no ${lost[0]} "${lost[1].slice(0, 60)}".`;
	const { position, with: other } = payload as { position?: unknown; with?: unknown };
	if (other !== undefined && other !== null && other === position)
		return 'A wheel changes places with another one.';
	const wheels = type && new Set<string>(type.wheels.map(({ position }) => position));
	const strange = wheels && positionsIn(payload).find((position) => !wheels.has(position));
	return strange ? `This vehicle has no wheel "${strange.slice(0, 60)}".` : null;
}
