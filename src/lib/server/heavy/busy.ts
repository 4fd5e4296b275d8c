/** Refused because there is too much to do, or stopped. */
export interface Busy extends Error {
	busy: true;
}
export const isBusy = (error: unknown): error is Busy => error instanceof Error && 'busy' in error;
