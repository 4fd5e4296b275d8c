import type { ReasonBook } from '../../../../library/reason/book';
import type { ShopRecord } from '../db/trackRecord';
import type { Stores } from '../stores';

/** All that a reasoning rests on besides the thread of its case. */
export interface KnownHere {
	/** Changes whenever any of it does. */
	stamp: string;
	/** From track record (0) to prove first (1). */
	proving: number;
	book: ReasonBook;
	record: ShopRecord;
}

type Asked = Pick<Stores, 'codes' | 'settings' | 'reasonBooks' | 'trackRecord'>;

export async function knownHere({ codes, settings, reasonBooks, trackRecord }: Asked): Promise<KnownHere> {
	const [ofCodes, proving, book, record] = await Promise.all([
		codes.stamp(),
		settings.read('proving'),
		reasonBooks.read(),
		trackRecord.read()
	]);
	return { stamp: stampOf(ofCodes, proving, book.version, record.stamp), proving, book, record };
}

/** The stamp alone, for whoever only asks whether something has changed. */
export async function stampHere({ codes, settings, reasonBooks, trackRecord }: Asked): Promise<string> {
	const [ofCodes, proving, book, record] = await Promise.all([
		codes.stamp(),
		settings.read('proving'),
		reasonBooks.read(),
		trackRecord.stamp()
	]);
	return stampOf(ofCodes, proving, book.version, record);
}

const stampOf = (...parts: (string | number)[]): string => parts.join(' ');
