import { kmDrivenSo } from '../../core/prove/drivenBands';
import type { Entry, PayloadOf } from '../entries/entry';
import type { ShowsWhen } from '../entries/returns-told/payload';
import { undisturbed } from '../thread/inTheWay';
import { ofKind } from '../thread/thread';
import { short } from '../words';

const clearedAt = (entries: readonly Entry[]): number =>
	entries.findLastIndex(({ kind }) => kind === 'codes-cleared');

/**
 * Recordings whose kilometres prove nothing more: they stand on the thread as a drive already, or were made before the codes
 * were cleared last.
 */
export function countedRecordings(entries: readonly Entry[]): string[] {
	const before = ofKind(entries.slice(0, Math.max(0, clearedAt(entries))), 'live-recording');
	const driven = ofKind(entries, 'proving-drive').flatMap(({ payload }) => payload.recordings ?? []);
	return [...before.map(({ id }) => id), ...driven];
}

/**
 * Distance of all proving drives since the codes were cleared last. One that was read from recordings which are counted
 * already, or which were made before the clear, adds nothing.
 *
 * @param all standing entries in order
 * @param showsWhen only what was driven so counts; null = all of it
 */
export function drivenKm(all: readonly Entry[], showsWhen: ShowsWhen | null = null): number {
	const entries = undisturbed(all);
	const from = Math.max(0, clearedAt(entries));
	const counted = new Set(ofKind(entries.slice(0, from), 'live-recording').map(({ id }) => id));
	let km = 0;
	for (const { payload } of ofKind(entries.slice(from), 'proving-drive')) {
		const own = payload.recordings ?? [];
		if (own.length === 0 || own.some((id) => !counted.has(id))) km += kmOf(payload, showsWhen);
		for (const id of own) counted.add(id);
	}
	return km;
}

/** By its own readings; where nobody read speed and steering, by the driver's word. */
export function kmOf(
	drive: Pick<PayloadOf<'proving-drive'>, 'distanceKm' | 'road' | 'bands' | 'asShownKm'>,
	showsWhen: ShowsWhen | null
): number {
	if (!showsWhen) return drive.distanceKm;
	if (showsWhen.road !== null && drive.road !== showsWhen.road) return 0;
	const anySpeed = showsWhen.fromKmh === null && showsWhen.toKmh === null && !showsWhen.turning;
	if (anySpeed) return drive.distanceKm;
	return drive.bands ? kmDrivenSo(drive.bands, showsWhen) : Math.min(drive.asShownKm ?? 0, drive.distanceKm);
}

const ROAD_WORDS = {
	dry: 'on a dry road',
	wet: 'on a wet road',
	'snow or ice': 'on snow or ice',
	loose: 'on a loose road'
};

/** "above 60 km/h, in bends, on a wet road"; empty where it does not matter how. */
export function showsWhenWords({ fromKmh, toKmh, turning, road }: ShowsWhen): string {
	const speed =
		fromKmh !== null && toKmh !== null
			? `between ${short(fromKmh, 0)} and ${short(toKmh, 0)} km/h`
			: fromKmh !== null
				? `above ${short(fromKmh, 0)} km/h`
				: toKmh !== null
					? `below ${short(toKmh, 0)} km/h`
					: '';
	return [speed, turning ? 'in bends' : '', road ? ROAD_WORDS[road] : ''].filter(Boolean).join(', ');
}
