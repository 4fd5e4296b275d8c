import { z } from 'zod';
import { rowKey } from './outcomeRows';
import outcomesFile from './outcomes.json' with { type: 'json' };

export { OUTCOME_BINS, rowKey, type OutcomeBin } from './outcomeRows';

type Counts = Record<string, number>;
const file = z
	.object({
		version: z.number(),
		/** Faults by class of place and bin that were counted. */
		bins: z.array(z.string()),
		rows: z.record(z.string(), z.record(z.string(), z.number().nonnegative()))
	})
	.parse(outcomesFile);
const rows = new Map<string, Counts>(Object.entries(file.rows));

const met = new Map<string, Set<string>>();
for (const [key, counts] of rows) {
	const [sensor = '', , sign = ''] = key.split('|');
	const known = met.get(`${sensor}|${sign}`) ?? new Set();
	for (const outcome of Object.keys(counts)) known.add(outcome);
	met.set(`${sensor}|${sign}`, known);
}

/**
 * Pulses of set lengths are to a meter what those of the kind with direction are: an average that hardly leaves the lower level; and a
 * scope sees each tooth once. They are not counted anew.
 */
const countedAs = (sensor: string): string =>
	sensor === 'two-wire-pulse-width' ? 'two-wire-direction' : sensor;

/** How often each outcome was counted, on bench vehicles (docs/reasoning.md). Rows like a sound vehicle's are not kept. */
export const countsOf = {
	version: file.version,
	row: (of: Parameters<typeof rowKey>[0]): Counts | null =>
		rows.get(rowKey({ ...of, sensor: countedAs(of.sensor) })) ?? null,
	/** Faults by class of place and bin that were counted at all. */
	bins: new Set(file.bins) as ReadonlySet<string>,
	outcomes: (sensor: string, sign: string): string[] => [...(met.get(`${countedAs(sensor)}|${sign}`) ?? [])]
};
