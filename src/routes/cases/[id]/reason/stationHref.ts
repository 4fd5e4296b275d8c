import type { ShownTest } from '$lib/case/reason/reasonView';

/** Where a test is done that has a page of its own. */
export function stationHref(
	caseId: string,
	{ kind, station, place }: Pick<ShownTest, 'kind' | 'station' | 'place'>
): string {
	const page = kind.startsWith('scope-')
		? 'measure/scope'
		: kind === 'substitute'
			? 'measure/substitute'
			: kind.startsWith('look:')
				? 'measure/look'
				: station;
	const at = page.startsWith('measure') ? `?at=${place}` : '';
	return `/cases/${caseId}/${page}${at}`;
}
