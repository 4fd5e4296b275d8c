import type { Position } from '../../../../library/positions';
import type { Entry, EntryOf } from '../entries/entry';

export const BENCH_KINDS = [
	'meter-reading',
	'scope-capture',
	'substitution',
	'harness-search',
	'inspection'
] as const;
export type BenchKind = (typeof BENCH_KINDS)[number];
export type BenchTest = EntryOf<BenchKind>;

export const isBenchTest = (entry: Entry): entry is BenchTest =>
	(BENCH_KINDS as readonly string[]).includes(entry.kind);

/** Whether a test found something that is not as it should be. */
export function isBadBenchTest(entry: BenchTest): boolean {
	switch (entry.kind) {
		case 'meter-reading':
			return entry.payload.judged === 'out';
		case 'scope-capture':
			return entry.payload.channels.some(({ findings }) => findings.length > 0);
		case 'substitution':
			return entry.payload.outcome !== 'follows';
		case 'harness-search':
			return entry.payload.found;
		case 'inspection':
			return entry.payload.result === 'bad';
	}
}

/** A test that opened a circuit with the key on, and so may have set its codes. */
export function circuitOpenedBy(entry: Entry): Position | null {
	if (entry.kind === 'substitution' || entry.kind === 'signal-held') return entry.payload.position;
	if (entry.kind === 'meter-reading') return entry.payload.opened.length > 0 ? entry.payload.position : null;
	return entry.kind === 'harness-search' ? entry.payload.position : null;
}
