import { isProvoking } from './waysToProvoke';
import type { EntryKind } from '../entries/entry';
import type { ShownTest } from './reasonView';

/** Pages of tests that are about the whole vehicle. */
const OF_VEHICLE: Record<string, string> = {
	spin: 'watch/bay?round=hand',
	road: 'watch/road',
	recheck: 'prove'
};

/** What is written down where a test is done on its own page. */
export function answeredBy(kind: string): EntryKind {
	const [what = ''] = kind.split(':');
	switch (what) {
		case 'meter':
			return 'meter-reading';
		case 'look':
			return 'inspection';
		case 'scope-sensor':
		case 'scope-module':
			return 'scope-capture';
		case 'substitute':
			return 'substitution';
		case 'spin':
			return 'wheel-round';
		case 'recheck':
			return 'network-scan';
		default:
			return 'live-recording';
	}
}

/** Where a test is done that has a page of its own, below its case. */
export function testPath({ kind, station, place }: Pick<ShownTest, 'kind' | 'station' | 'place'>): string {
	const page =
		OF_VEHICLE[kind] ??
		(kind.startsWith('scope-')
			? 'measure/scope'
			: kind === 'substitute'
				? 'measure/substitute'
				: kind.startsWith('look:')
					? 'measure/look'
					: isProvoking(kind)
						? 'measure/provoke'
						: station);
	const at = page.startsWith('measure') ? `?at=${place}` : '';
	const [what, test] = kind.split(':');
	const named = test !== undefined && (what === 'meter' || what === 'look') ? `&test=${test}` : '';
	return `${page}${at}${named}`;
}
