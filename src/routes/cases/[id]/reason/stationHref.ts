import { isProvoking } from '$lib/case/reason/waysToProvoke';
import type { ShownTest } from '$lib/case/reason/reasonView';

/** Pages of tests that are about the whole vehicle. */
const OF_VEHICLE: Record<string, string> = {
	spin: 'watch/bay?round=hand',
	road: 'watch/road',
	recheck: 'prove'
};

/** Where a test is done that has a page of its own. */
export function stationHref(
	caseId: string,
	{ kind, station, place }: Pick<ShownTest, 'kind' | 'station' | 'place'>
): string {
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
	return `/cases/${caseId}/${page}${at}${named}`;
}
