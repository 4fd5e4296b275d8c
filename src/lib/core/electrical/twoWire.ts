/** What a two-wire sensor with current output draws, and what it is fed with. */

/** Current of its lower level, A. */
export const LOW_A = 0.007;
/** Current of its upper level, A. */
export const HIGH_A = 0.014;
/** What a module feeds it with, V, where nothing was measured. */
export const USUAL_FEED_V = 12.1;
