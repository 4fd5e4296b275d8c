/** What is known of a ring besides its signal. */
export interface ScopeOptions {
	/** Teeth or pole pairs of the ring, where known. */
	teeth?: number | undefined;
	/** Number that the first pulse has on the ring map. */
	startTooth?: number;
}
