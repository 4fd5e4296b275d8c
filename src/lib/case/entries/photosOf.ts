import type { Entry } from './entry';
import { featureOf } from './registry';

/** Photos that an entry keeps beside the thread; a kind that this version does not know has none that it could name. */
export const photosOf = (entry: Entry): readonly { id: string; sha256: string }[] =>
	entry.kind === 'unknown' ? [] : (featureOf(entry.kind).photos?.(entry.payload) ?? []);
