/** How much of a fault there is: faults of one bin show alike, so tests tell apart what only looks like one fault. */
export const OUTCOME_BINS = ['slight', 'plain', 'now-and-then'] as const;
export type OutcomeBin = (typeof OUTCOME_BINS)[number];

/** Name of a row of counted outcomes. @param of fault as `gap-rust/corner/plain`, null for a sound vehicle */
export const rowKey = (of: {
	sensor: string;
	fault: string | null;
	sign: string;
	relation?: string;
}): string => `${of.sensor}|${of.fault ?? ''}|${of.sign}|${of.relation ?? ''}`;
