import type { StationId } from './stations';

/** The one thing to do next, and why. */
export interface NextStep {
	station: StationId;
	title: string;
	why: string;
	/** Place on the station's page to go to. */
	anchor: string | null;
	/** Page of the station, below its own; absent = the station’s first. */
	page?: string;
	/** Where exactly it is done, below the case, with what it is about; absent = station and page say it. */
	path?: string;
	/** The fault is still to be found: what tells most is worked out by Reason. */
	seeks?: true;
}

export const step = (
	station: StationId,
	title: string,
	why: string,
	anchor: string | null = null
): NextStep => ({
	station,
	title,
	why,
	anchor
});

export const seeking = (...of: Parameters<typeof step>): NextStep => ({ ...step(...of), seeks: true });
