/** How much of what comes from outside an entry keeps; apart from the shapes, so that a worker need not load them. */
export const MOST_KEPT_EXCHANGES = 1000;
export const MOST_KEPT_PROBLEMS = 100;
/** Longest text kept with a reading, in signs. */
export const LONGEST_KEPT_TEXT = 200_000;
