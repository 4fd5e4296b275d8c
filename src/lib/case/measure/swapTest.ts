import { channelOf, mateOf, type Position } from '../../../../library/positions';
import type { Swapped, SwapOutcome } from '../../../../library/reason/swaps';
import { decodeStatus, tellsOfFault } from '../../core/codes/status';
import type { CaseCode } from '../codes/caseCode';
import type { Entry, EntryOf } from '../entries/entry';
import { describeEntry } from '../thread/describe';

/** The wheel that parts are swapped with: sensors across the axle, wheels along the side; null where there is none, or none is needed. */
export function swapsWith(what: Swapped, position: Position, wheels: readonly Position[]): Position | null {
	if (what === 'module') return null;
	const [axle = '', side = ''] = position.split('-');
	const along = wheels.filter((one) => one.endsWith(`-${side}`) && !one.startsWith(`${axle}-`));
	const other = what === 'sensors' ? mateOf(position) : (along[0] ?? null);
	return other && wheels.includes(other) ? other : null;
}

/** The swap that stands now at a wheel; null where all parts are at home. @param entries standing entries in order */
export function swapNow(entries: readonly Entry[], position: Position): EntryOf<'swap'> | null {
	const last = entries.findLast(
		(entry): entry is EntryOf<'swap'> => entry.kind === 'swap' && entry.payload.position === position
	);
	return last?.payload.state === 'swapped' ? last : null;
}

/** Something that was read of a wheel. */
export interface ReadOf {
	entryId: string;
	words: string;
	/** Whether it shows a fault that is there. */
	bad: boolean;
}

/** Everything that was read of a wheel in a stretch of a thread, the newest of each kind. */
export function readOf(entries: readonly Entry[], position: Position, codes: readonly CaseCode[]): ReadOf[] {
	const found = new Map<string, ReadOf>();
	for (const entry of entries) {
		const read = readIn(entry, position, codes);
		if (read) found.set(entry.kind, { entryId: entry.id, ...read });
	}
	return [...found.values()];
}

function readIn(
	entry: Entry,
	position: Position,
	codes: readonly CaseCode[]
): Omit<ReadOf, 'entryId'> | null {
	switch (entry.kind) {
		case 'network-scan': {
			const own = entry.payload.modules.flatMap(({ address, codes: told }) =>
				told.flatMap(({ dtc, status }) => {
					const known = codes.find((one) => one.address === address && one.dtc === dtc);
					return known?.corner === position && tellsOfFault(status) ? [{ text: known.text, status }] : [];
				})
			);
			const fails = own.some(({ status }) => decodeStatus(status).testFailed);
			const words = own.map(({ text }) => text).join(', ');
			return {
				words: own.length === 0 ? 'no code' : `${words} ${fails ? 'fails now' : 'stored'}`,
				bad: fails
			};
		}
		case 'wheel-round': {
			const corner = entry.payload.corners.find((one) => one.position === position);
			return (
				(corner && { words: corner.text, bad: !['answers', 'turns-mate'].includes(corner.result) }) ?? null
			);
		}
		case 'live-recording': {
			const channel = channelOf(position);
			if (!entry.payload.channels.includes(channel)) return null;
			const own = entry.payload.findings.filter((one) => one.channel === channel);
			return {
				words: own.length === 0 ? 'nothing found in live data' : own.map(({ text }) => text).join(' '),
				bad: own.length > 0
			};
		}
		case 'scope-capture': {
			const channel = entry.payload.channels.find((one) => one.position === position);
			return channel
				? {
						words: channel.findings.map(({ text }) => text).join(' ') || describeEntry(entry).detail,
						bad: channel.findings.length > 0
					}
				: null;
		}
		default:
			return null;
	}
}

/**
 * What the readings since a swap say of it: the fault is read at the other wheel, still at this one, at neither, or they do not tell.
 *
 * @param here what was read of the suspected wheel since; @param there of the wheel that its part went to
 */
export function swapShows(here: readonly ReadOf[], there: readonly ReadOf[]): SwapOutcome | null {
	const [atHere, atThere] = [here, there].map((list) => list.some(({ bad }) => bad));
	if (here.length === 0) return null;
	if (atHere && atThere) return null;
	if (atHere) return 'stayed';
	if (atThere) return 'moved';
	return 'gone';
}
