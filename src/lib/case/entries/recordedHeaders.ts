/**
 * What goes with everything that a page tells the server: who recorded it, and how long before it was sent. The age is by the
 * device's own clock, which may be wrong; a difference of it is not.
 */
export const RECORDED_BY = 'x-jaldi-recorded-by';
export const RECORDED_AGO_MS = 'x-jaldi-recorded-ago-ms';

/** What waited longer has been forgotten by whoever recorded it: it is a wrong clock. */
const OLDEST_MS = 366 * 24 * 3600_000;

/** When something was recorded, ISO 8601, by what came with it. */
export function recordedAt(headers: Headers, now: Date): string {
	const ago = Number(headers.get(RECORDED_AGO_MS) ?? 0);
	const known = ago > 0 && ago < OLDEST_MS ? ago : 0;
	return new Date(now.getTime() - known).toISOString();
}
