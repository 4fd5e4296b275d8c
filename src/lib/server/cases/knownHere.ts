import type { ReasonBook } from '../../../../library/reason/book';
import type { Timed } from '../db/trackRecord';
import type { Stores } from '../stores';

/** All that a reasoning rests on besides the thread of its case, but for the repairs that {@link Stores.trackRecord} has proven. */
export interface KnownHere {
	/** Changes whenever any of it does, or what was proven. */
	stamp: string;
	/** From track record (0) to prove first (1). */
	proving: number;
	book: ReasonBook;
	/** Whole minutes that a test takes here, by its kind, where it was timed often enough to count. */
	minutes: Readonly<Record<string, number>>;
}

type Asked = Pick<Stores, 'codes' | 'settings' | 'reasonBooks' | 'trackRecord'>;

/** A shop's minutes count from so many times on. */
const TIMED_FROM = 2;

/** Whole minutes, so that not every step that somebody does has every case in the shop reasoned anew. */
const wholeMinutes = (timed: Timed): Record<string, number> =>
	Object.fromEntries(
		Object.entries(timed)
			.filter(([, { times }]) => times >= TIMED_FROM)
			.map(([test, { mean }]) => [test, Math.max(1, Math.round(mean))] as const)
			.sort(([a], [b]) => a.localeCompare(b))
	);

/** Cheap: it is asked at every page, and by the floor. */
export async function knownHere({ codes, settings, reasonBooks, trackRecord }: Asked): Promise<KnownHere> {
	const [ofCodes, proving, book, proven, timed] = await Promise.all([
		codes.stamp(),
		settings.read('proving'),
		reasonBooks.read(),
		trackRecord.stamp(),
		trackRecord.minutes()
	]);
	const minutes = wholeMinutes(timed);
	const stamp = [ofCodes, proving, book.version, proven, JSON.stringify(minutes)].join(' ');
	return { stamp, proving, book, minutes };
}
