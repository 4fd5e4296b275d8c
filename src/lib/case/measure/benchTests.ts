import type { Position } from '../../../../library/positions';
import type { Entry, EntryOf } from '../entries/entry';
import { channelsTold } from '../entries/scope-capture/evidence';

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
			return channelsTold(entry.payload).some(({ findings }) => findings.length > 0);
		case 'substitution':
			return entry.payload.outcome !== 'follows';
		case 'harness-search':
			return entry.payload.found;
		case 'inspection':
			return entry.payload.result === 'bad';
	}
}

/** Wheels whose circuits a test opened, and so may have set their codes. */
export function circuitsOpenedBy(entry: Entry): Position[] {
	switch (entry.kind) {
		case 'substitution':
		case 'signal-held':
		case 'harness-search':
			return [entry.payload.position];
		case 'meter-reading':
			return entry.payload.opened.length > 0 && entry.payload.position ? [entry.payload.position] : [];
		case 'swap':
			return [entry.payload.position, ...(entry.payload.with ? [entry.payload.with] : [])];
		default:
			return [];
	}
}
