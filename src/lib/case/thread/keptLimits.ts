/** How much of what comes from outside an entry keeps; apart from the shapes, so that a worker need not load them. */
export const MOST_KEPT_EXCHANGES = 1000;
export const MOST_KEPT_PROBLEMS = 100;
/** Longest text kept with a reading, in signs. */
export const LONGEST_KEPT_TEXT = 200_000;
/** A frame log up to this size, unpacked, is kept whole beside the thread. */
export const MOST_KEPT_LOG_BYTES = 64 * 1024 * 1024;
/** The same, packed: what a request may bring. */
export const MOST_PACKED_LOG_BYTES = 32 * 1024 * 1024;
