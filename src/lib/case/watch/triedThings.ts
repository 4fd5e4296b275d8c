import { channelOf, positionOf } from '../../../../library/positions';
import type { Chunk } from '../../core/live/chunk';
import { isWheel } from '../../core/live/recording';
import { triedIn } from '../../core/live/provoked';
import {
	PROVOKING,
	type LiveMark,
	type LiveRecording,
	type Provoking,
	type Purpose,
	type TriedThing
} from '../entries/live-recording/payload';

const IN_GEAR = 'in gear';

/** What was done to make something show in a recording, and what it showed; undefined where it was made for something else. */
export function triedThings(
	{ timeS, channels }: Chunk,
	{ purpose, marks }: Pick<LiveRecording, 'purpose' | 'marks'>
): TriedThing[] | undefined {
	if (purpose?.what === 'in-gear')
		return [...channels].flatMap(([channel, kmh]) => {
			const position = isWheel(channel) ? positionOf(channel) : null;
			if (!position) return [];
			return triedIn({ timeS, kmh }, [{ atS: -1, label: IN_GEAR }]).map((one): TriedThing => ({
				...one,
				position,
				does: 'in-gear'
			}));
		});
	if (purpose?.what !== 'wiggle' || !purpose.position) return undefined;
	const { position } = purpose;
	const kmh = channels.get(channelOf(position));
	return kmh && byHand({ timeS, kmh }, marks, purpose).map((one) => ({ ...one, position }));
}

/** @param samples of the wheel that is turned by hand */
export function byHand(
	samples: Parameters<typeof triedIn>[0],
	marks: readonly LiveMark[],
	{ places = [] }: Pick<Purpose, 'places'>
): Omit<TriedThing, 'position'>[] {
	const placeOf = (label: string) => places.find((one) => one.label === label);
	const doesOf = (label: string) => placeOf(label)?.does ?? 'move';
	const said = marks.filter(({ label }) => doesOf(label) === 'turns-still').map(({ atS }) => atS);
	const done = marks
		.filter(({ label }) => placeOf(label) && doesOf(label) !== 'turns-still')
		.map(({ atS, label }) => ({ atS, label: doesOf(label) === 'hands-off' ? '' : label }));
	return triedIn(samples, done, said).flatMap((one) => {
		const does = doesOf(one.label);
		const is = placeOf(one.label)?.is;
		return isProvoking(does) ? [{ ...one, does, ...(is ? { is } : {}) }] : [];
	});
}

const isProvoking = (does: string): does is Provoking => PROVOKING.includes(does as Provoking);
